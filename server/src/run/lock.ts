import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { StartProblem } from '../database/privateDatabase'

interface Holder {
  readonly pid: number
  readonly address: string
}

/** Whether a process is alive and is an Undercliff, not another that got its number since. */
function isRunning(pid: number): boolean {
  try {
    return /undercliff|start\.js|run\/(start|dev)\.ts|vitest/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'))
  } catch {
    return false
  }
}

function readHolder(file: string): Holder | null {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Holder
  } catch {
    return null
  }
}

/**
 * Takes a data folder for this process. A lock that a killed Undercliff left behind is taken over.
 *
 * @param say told when a stale lock was found
 * @returns gives the folder back
 * @throws StartProblem when a running Undercliff holds it
 */
export function lockFolder(dataDir: string, address: string, say: (line: string) => void): () => void {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 })
  const file = join(dataDir, 'undercliff.lock')
  const write = (): void => {
    writeFileSync(file, JSON.stringify({ pid: process.pid, address } satisfies Holder), { flag: 'wx' })
  }
  try {
    write()
  } catch {
    const holder = readHolder(file)
    if (holder !== null && holder.pid !== process.pid && isRunning(holder.pid)) {
      throw new StartProblem(
        `Undercliff is running on this data folder already: ${holder.address} (process ${holder.pid}).`,
      )
    }
    say('The last run did not end in good order; its lock is taken over.')
    rmSync(file, { force: true })
    write()
  }
  return () => {
    if (readHolder(file)?.pid === process.pid) rmSync(file, { force: true })
  }
}
