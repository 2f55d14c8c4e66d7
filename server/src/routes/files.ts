import type { Route } from '../http/access'
import type { SetAsideAnswer } from '@undercliff/contract'
import { readAside } from '../store/aside'
import { callerOf } from '../store/caller'
import type { ImportsUnderWay } from '../store/logsSince'
import { Refusal } from '../store/refusal'
import { TABLES, type TableName } from '../store/tables'
import { bytesOf, deviceMsOf } from '../http/body'
import type { RouteParts } from './parts'

/** Largest backup that is read: as large as the text of one can be, written or read, in Node. */
const BACKUP_LIMIT = '500mb'
/** Largest import: its rows at about a kilobyte each. */
const IMPORT_LIMIT = '40mb'

const isTable = (name: string): name is TableName => (TABLES as readonly string[]).includes(name)

/** Everything in and out as files: one backup, each table as CSV, and what a spreadsheet brings. */
export const filesRoutes = (parts: RouteParts, imports: ImportsUnderWay): Route[] => [
  ...backups(parts),
  ...tables(parts, imports),
]

const backups = ({ db, workers, clock }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/backup',
    access: 'lead',
    handle: async (_request, response, { crewId, personId }) => {
      const now = clock()
      const file = await workers.run(personId, 'writeBackup', { crewId, nowMs: now.getTime() })
      response.attachment(`undercliff-${now.toISOString().slice(0, 10)}.json`)
      response.type('json').send(Buffer.from(file))
    },
  },
  {
    method: 'post',
    path: '/backup',
    access: 'lead',
    bodyLimit: BACKUP_LIMIT,
    bytes: true,
    handle: async (request, response, session) => {
      const asked = { caller: callerOf(session), body: bytesOf(request) }
      const answer: SetAsideAnswer = await workers.run(session.personId, 'restoreBackup', asked)
      // Nothing to say where all of it was brought in.
      if (answer.rows.length === 0) response.status(204).end()
      else response.json(answer)
    },
  },
  {
    method: 'get',
    path: '/set-aside',
    access: 'lead',
    handle: async (_request, response, { crewId }) => {
      const answer: SetAsideAnswer = { rows: await readAside(db, crewId) }
      response.json(answer)
    },
  },
]

const tables = ({ workers, clock }: RouteParts, imports: ImportsUnderWay): Route[] => [
  {
    method: 'post',
    path: '/import',
    access: 'lead',
    bodyLimit: IMPORT_LIMIT,
    bytes: true,
    handle: async (request, response, session) => {
      const asked = {
        caller: callerOf(session),
        body: bytesOf(request),
        nowMs: clock().getTime(),
        deviceMs: deviceMsOf(request),
      }
      const answer = await imports.during(session.crewId, () => workers.run(session.personId, 'runImport', asked))
      response.status(201).json(answer)
    },
  },
  {
    method: 'get',
    path: '/tables/:name.csv',
    access: 'signedIn',
    handle: async (request, response, { crewId, personId }) => {
      const name = String(request.params.name)
      if (!isTable(name)) throw new Refusal('no-such-route', `There is no such table. There are: ${TABLES.join(', ')}.`)
      const table = await workers.run(personId, 'writeTable', { crewId, table: name })
      response.attachment(`undercliff-${name}.csv`).type('text/csv; charset=utf-8')
      response.send(Buffer.from(table))
    },
  },
]
