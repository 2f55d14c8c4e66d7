import { spawn } from 'node:child_process'
import { closeSync, openSync } from 'node:fs'
import { StartProblem } from './startProblem'

/** How long what an earlier start left at work may take, in seconds. */
const WAIT_S = 120

/**
 * Does some work while nobody else does any on the same file: neither another start, nor what one that was cut short
 * had begun. Whoever is given the descriptor holds the file too, until it ends, and so does a process that is being
 * launched, until it is the program that it is to be.
 *
 * @throws StartProblem when the other does not come to an end
 */
export async function onlyOne<T>(file: string, work: (descriptor: number) => Promise<T>): Promise<T> {
  const descriptor = openSync(file, 'a', 0o600)
  try {
    const code = await new Promise<number | null>((resolve, reject) => {
      const waiting = spawn('flock', ['--wait', String(WAIT_S), '3'], {
        stdio: ['ignore', 'ignore', 'ignore', descriptor],
      })
      waiting.once('error', () => {
        reject(new StartProblem('flock is missing. Install it with: apt-get install util-linux'))
      })
      waiting.once('exit', resolve)
    })
    if (code !== 0)
      throw new StartProblem(
        'An earlier start that was cut short is still at work on this folder. Try again in a while.',
      )
    return await work(descriptor)
  } finally {
    closeSync(descriptor)
  }
}
