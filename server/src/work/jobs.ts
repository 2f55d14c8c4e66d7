import { importSchema, type HouseRulesChange, type Import } from '@undercliff/contract'
import type { Connected } from '../database/connect'
import { readBody, readText, shallow } from '../http/body'
import { writeJobSheet } from '../paper/writeJobSheet'
import { restoreBackup, writeBackup } from '../store/backup'
import type { Caller } from '../store/caller'
import { runImport } from '../store/importing'
import { readKitUsage } from '../store/kit'
import { learnFromLogs } from '../store/learnFromLogs'
import { readLogsSince, type LogsAsked } from '../store/logsSince'
import { changeRules, effectOfRules } from '../store/rules'
import { writeTable, type TableName } from '../store/tables'
import { readWear } from '../store/wear'
import { writeTagSheet, type TagsWanted } from '../tags/writeTagSheet'

type Job<A, R> = (connected: Connected, asked: A) => Promise<R>

const job = <A, R>(work: Job<A, R>): Job<A, R> => work
const utf8 = (text: string): Uint8Array => Buffer.from(text)

/** What takes longer than a request may keep the others waiting, by name. */
export const JOBS = {
  /** For a thread to be there before it is asked for. */
  nothing: job((_connected, _asked: null) => Promise.resolve(null)),
  writeBackup: job(async ({ db }, { crewId, nowMs }: { crewId: string; nowMs: number }) =>
    utf8(JSON.stringify(await writeBackup(db, crewId, new Date(nowMs)))),
  ),
  restoreBackup: job(({ writes }, { caller, body }: { caller: Caller; body: Uint8Array }) =>
    restoreBackup(writes, caller, shallow(readText(body))),
  ),
  runImport: job(
    (
      { writes },
      { caller, body, nowMs, deviceMs }: { caller: Caller; body: Uint8Array; nowMs: number; deviceMs: number | null },
    ) => runImport(writes, caller, readBody<Import>(importSchema, readText(body)), new Date(nowMs), deviceMs),
  ),
  changeRules: job(({ writes }, { crewId, change }: { crewId: string; change: HouseRulesChange }) =>
    changeRules(writes, crewId, change),
  ),
  learnFromLogs: job(({ writes }, { crewId }: { crewId: string }) => learnFromLogs(writes, crewId)),
  effectOfRules: job(({ writes }, { crewId, change }: { crewId: string; change: HouseRulesChange }) =>
    effectOfRules(writes, crewId, change),
  ),
  writeTable: job(async ({ db }, { crewId, table }: { crewId: string; table: TableName }) =>
    utf8(await writeTable(db, crewId, table)),
  ),
  writeTagSheet: job(({ db }, asked: TagsWanted) => writeTagSheet(db, asked)),
  readLogsSince: job(async ({ db }, asked: LogsAsked) => utf8(JSON.stringify(await readLogsSince(db, asked)))),
  readKitUsage: job(({ db }, { crewId }: { crewId: string }) => readKitUsage(db, crewId)),
  writeJobSheet: job(({ db }, asked: Parameters<typeof writeJobSheet>[1]) => writeJobSheet(db, asked)),
  readWear: job(({ db }, { crewId }: { crewId: string }) => readWear(db, crewId)),
}

type Jobs = typeof JOBS
export type JobName = keyof Jobs
export type Asked<K extends JobName> = Parameters<Jobs[K]>[1]
export type Done<K extends JobName> = Awaited<ReturnType<Jobs[K]>>
