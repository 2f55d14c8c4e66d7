import { spawn } from 'node:child_process'
import { closeSync, fsyncSync, mkdirSync, openSync, readdirSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { findProgram } from './findProgram'
import { ofFolder, StartProblem } from './startProblem'

/** Copies that are kept; older ones make room. */
const KEPT = 5
const FOLDER = 'before-upgrades'

interface Reached {
  readonly host: string
  readonly port: string
  readonly user: string
  readonly password: string
  readonly database: string
}

function reached(url: string): Reached {
  const { hostname, port, username, password, pathname } = new URL(url)
  return {
    host: hostname,
    port: port === '' ? '3306' : port,
    user: decodeURIComponent(username),
    password: decodeURIComponent(password),
    database: decodeURIComponent(pathname.slice(1)),
  }
}

/** Runs mariadb-dump into a file; resolves with what it complained of, empty when all is well. */
function dump({ host, port, user, password, database }: Reached, to: number): Promise<string> {
  return new Promise((resolve) => {
    const child = spawn(
      findProgram('mariadb-dump', 'mysqldump'),
      ['--no-defaults', `--host=${host}`, `--port=${port}`, `--user=${user}`, '--single-transaction', database],
      { stdio: ['ignore', to, 'pipe'], env: { ...process.env, MYSQL_PWD: password } },
    )
    let said = ''
    child.stderr?.on('data', (part: Buffer) => (said += part.toString()))
    child.once('error', (error) => {
      resolve(error.message)
    })
    child.once('close', (code) => {
      resolve(code === 0 ? '' : said.trim() || `exit code ${String(code)}`)
    })
  })
}

/**
 * Keeps a copy of a database as SQL in the data folder: whole, or not at all.
 *
 * @returns a sentence that says where
 * @throws StartProblem when there is no room or it cannot be made; nothing has been changed then
 */
export async function keepCopy(url: string, dataDir: string, now: Date): Promise<string> {
  const folder = join(dataDir, FOLDER)
  const name = `${now.toISOString().replaceAll(':', '-')}.sql`
  const part = join(folder, `${name}.part`)
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 })
    for (const left of readdirSync(folder)) if (left.endsWith('.part')) rmSync(join(folder, left))
    const file = openSync(part, 'w', 0o600)
    try {
      const wrong = await dump(reached(url), file)
      if (wrong !== '') throw dumpProblem(wrong, dataDir)
      fsyncSync(file)
    } finally {
      closeSync(file)
    }
    renameSync(part, join(folder, name))
    const copies = readdirSync(folder).filter((one) => one.endsWith('.sql'))
    for (const old of copies.sort().slice(0, -KEPT)) rmSync(join(folder, old))
  } catch (error) {
    rmSync(part, { force: true })
    throw ofFolder(error, dataDir)
  }
  return `A copy as it was is kept in ${join(folder, name)}.`
}

function dumpProblem(wrong: string, dataDir: string): StartProblem {
  return /errno: 28|No space left/i.test(wrong)
    ? new StartProblem(`The disk that holds ${dataDir} is too full for a copy before the upgrade. Nothing was changed.`)
    : new StartProblem(`No copy of the data could be made before the upgrade (${wrong}). Nothing was changed.`)
}
