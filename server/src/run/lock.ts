import { spawn, type ChildProcess } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { makeFolder } from '../database/makeFolder'
import { ofFolder, StartProblem } from '../database/startProblem'

/** Who holds a data folder; written into the locked file for those who find it locked. */
interface Holder {
  readonly pid: number
  readonly address: string
  /** Missing from an earlier version, which went by the process alone. */
  readonly locked?: true
}

/** Whether a process of an earlier version is alive and is an Undercliff. */
function runsUnlocked({ pid, locked }: Holder): boolean {
  if (locked === true || pid === process.pid) return false
  try {
    return /undercliff|start\.js|run\/(start|dev)\.ts/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))
  } catch {
    return false
  }
}

function readHolder(file: string): Holder | null {
  try {
    const holder = JSON.parse(readFileSync(file, 'utf8')) as Partial<Holder> | null
    return typeof holder?.pid === 'number' && typeof holder.address === 'string' ? (holder as Holder) : null
  } catch {
    return null
  }
}

/**
 * Has the kernel lock a file until this process ends, however it ends: flock(1) holds the lock for as
 * long as it can read from us. In a process group of its own, so that Ctrl-C leaves it to be let go of
 * last.
 */
function holdLock(file: string): Promise<ChildProcess | null> {
  return new Promise((resolve, reject) => {
    const child = spawn('flock', ['--exclusive', '--nonblock', file, 'sh', '-c', 'echo held; exec cat >/dev/null'], {
      detached: true,
      stdio: ['pipe', 'pipe', 'ignore'],
    })
    child.on('error', () => {
      reject(new StartProblem('flock is missing. Install it with: apt-get install util-linux'))
    })
    child.stdout.once('data', () => {
      child.unref()
      resolve(child)
    })
    child.once('exit', () => {
      resolve(null)
    })
  })
}

function inUse(holder: Holder | null): StartProblem {
  const who = holder === null ? '.' : `: ${holder.address} (process ${holder.pid}).`
  return new StartProblem(`Undercliff is running on this data folder already${who}`)
}

/** Gives a data folder back. */
export type Unlock = () => Promise<void>

/**
 * Takes a data folder for this process. However many try at once, one has it; what a killed Undercliff
 * held is free.
 *
 * @param say told when the last run was killed
 * @throws StartProblem when a running Undercliff has it, or it cannot be written to
 */
export async function lockFolder(dataDir: string, address: string, say: (line: string) => void): Promise<Unlock> {
  const file = join(dataDir, 'undercliff.lock')
  try {
    makeFolder(dataDir)
    // Nothing is written yet: whoever holds it has its name there.
    writeFileSync(file, '', { flag: 'a', mode: 0o600 })
  } catch (error) {
    throw ofFolder(error, dataDir)
  }
  const child = await holdLock(file)
  if (child === null) throw inUse(readHolder(file))
  const letGo: Unlock = () =>
    new Promise((resolve) => {
      if (child.exitCode !== null || child.signalCode !== null) {
        resolve()
        return
      }
      child.once('exit', () => {
        resolve()
      })
      child.ref()
      child.stdin?.end()
    })
  try {
    const before = readHolder(file)
    if (before !== null && runsUnlocked(before)) throw inUse(before)
    if (before !== null) say('The last run did not end in good order; it is put right now.')
    writeFileSync(file, JSON.stringify({ pid: process.pid, address, locked: true } satisfies Holder))
  } catch (error) {
    await letGo()
    throw ofFolder(error, dataDir)
  }
  return async () => {
    try {
      writeFileSync(file, '')
    } catch {
      // The next start finds our name in it and says so; it is none the worse for it.
    }
    await letGo()
  }
}
