import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline/promises'
import { nanoid } from 'nanoid'
import { pino, type Logger } from 'pino'
import { connect, type Connected } from '../database/connect'
import { keepCopy } from '../database/keepCopy'
import { portIsFree, startPrivateDatabase, type PrivateDatabase } from '../database/privateDatabase'
import { ofFolder, StartProblem } from '../database/startProblem'
import { upgrade } from '../database/upgrade'
import { openDoors, portTaken } from '../front/doors'
import { isLoopback } from '../front/names'
import { likelyAddress, prepareFront, reachesBeyond } from '../front/prepare'
import { createApp } from '../http/app'
import { hasAccounts, isDemo } from '../store/accounts'
import { begin, crewNameOf, installedCrew } from '../store/crew'
import { openSteadyClock } from '../store/steadyClock'
import { Workers } from '../work/workers'
import { checkOutside, ofDatabase } from './outsideDatabase'
import { renewInBackground } from './renew'
import { lockFolder } from './lock'
import type { StartOptions } from './options'

/** A running Undercliff. */
export interface Running {
  readonly address: string
  readonly crewId: string
  /** Process id of the private database; null with an outside one. */
  databasePid(): number | null
  stop(): Promise<void>
}

async function confirmFresh({ fresh, yes }: StartOptions): Promise<void> {
  if (!fresh || yes) return
  if (!process.stdin.isTTY) {
    throw new StartProblem('--fresh throws away everything in the database. Add --yes to do so without being asked.')
  }
  const prompt = createInterface({ input: process.stdin, output: process.stdout })
  const answer = await prompt.question('Throw away everything in the database and start anew? Type yes: ')
  prompt.close()
  if (answer.trim().toLowerCase() !== 'yes') throw new StartProblem('Nothing was changed.')
}

async function prepare({ connected, url }: Data, options: StartOptions, say: (line: string) => void): Promise<string> {
  await upgrade(url, { keepCopy: () => keepCopy(url, options.dataDir, new Date()), say })
  const { db, writes } = connected
  const before = options.fresh ? null : await installedCrew(db)
  if (before !== null) return before
  const crewId = nanoid()
  const { fresh, empty } = options
  if (!empty) say('Loading the demo: an invented crew on an invented island.')
  await begin(writes, { crewId, now: new Date(), fresh, empty })
  return crewId
}

const defaultLogger = (): Logger =>
  pino({ level: process.env.LOG_LEVEL ?? 'warn' }, pino.destination({ dest: 2, sync: false }))

/** What the database is reached by, and how it is let go of again. */
interface Data {
  readonly url: string
  readonly connected: Connected
  readonly privateDatabase: PrivateDatabase | null
}

async function openData({ databaseUrl, dataDir }: StartOptions, say: (line: string) => void): Promise<Data> {
  if (databaseUrl !== null) await checkOutside(databaseUrl)
  const privateDatabase = databaseUrl === null ? await startPrivateDatabase(dataDir, say) : null
  const url = privateDatabase?.url ?? databaseUrl ?? ''
  return { url, privateDatabase, connected: connect(url) }
}

async function closeData({ connected, privateDatabase }: Data): Promise<void> {
  await connected.end()
  await privateDatabase?.stop()
}

/** Prepares the tables and serves them; everything that was opened before is closed by whoever opened it. */
async function serveOn(
  data: Data,
  options: StartOptions,
  webDist: string | null,
  say: (line: string) => void,
  logger: Logger,
): Promise<Running> {
  const { connected, privateDatabase, url } = data
  const { db } = connected
  const crewId = await prepare(data, options, say)
  const beyond = reachesBeyond(options)
  if (beyond && !(await hasAccounts(db))) {
    throw new StartProblem(
      'Nobody can sign in yet, so it listens on this machine only. ' +
        'Run ./start, set up the lead, then start it with --host again.',
    )
  }
  const clock = (): Date => new Date()
  const prepared = await prepareFront(options, { crewName: await crewNameOf(db, crewId), now: clock() })
  const steady = await openSteadyClock(db)
  const workers = new Workers(url)
  const { front, address, said } = prepared
  const app = createApp({ connected, workers, logger, clock, steadyMs: steady.nowMs, front, webDist })
  const doors = await openDoors(options, prepared, app, { say, clock })
  for (const line of said) say(line)
  if (beyond && (await isDemo(db)))
    say('This is the demo, and its passwords are on the sign-in screen: anyone who reaches this address can use it.')
  const renewal = renewInBackground(db, say)
  return {
    address,
    crewId,
    databasePid: () => privateDatabase?.pid() ?? null,
    stop: async () => {
      await doors.close()
      await workers.stop()
      await renewal.stop()
      await steady.stop()
    },
  }
}

/**
 * Starts everything: lock, database, tables, demo, HTTP.
 *
 * @param webDist the built web application; null serves the API alone
 * @throws StartProblem with a sentence for the person who started it
 */
export async function serve(
  options: StartOptions,
  webDist: string | null,
  say: (line: string) => void,
  logger: Logger = defaultLogger(),
): Promise<Running> {
  if (webDist !== null && !existsSync(join(webDist, 'index.html'))) {
    throw new StartProblem('The web application is not built yet. Run ./start, or npm run build.')
  }
  await confirmFresh(options)
  const unlock = await lockFolder(options.dataDir, likelyAddress(options), say)
  let data: Data | null = null
  const close = async (): Promise<void> => {
    if (data !== null) await closeData(data)
    await unlock()
  }
  try {
    if (isLoopback(options.host) && !(await portIsFree(options.port))) throw portTaken(options.port, options.port)
    data = await openData(options, say)
    const served = await serveOn(data, options, webDist, say, logger)
    return {
      ...served,
      stop: async () => {
        await served.stop()
        await close()
      },
    }
  } catch (error) {
    await close()
    throw ofFolder(ofDatabase(error, options), options.dataDir)
  }
}
