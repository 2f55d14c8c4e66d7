import { lstatSync, mkdirSync, statSync } from 'node:fs'
import { dirname } from 'node:path'
import { StartProblem } from './startProblem'

const exists = (look: () => unknown): boolean => {
  try {
    look()
    return true
  } catch {
    return false
  }
}

/**
 * Makes a folder and what it lies in, one after the other, so that what is in the way is named: making all of them in
 * one call does not return where a folder that is no disk's, as /proc, takes none.
 *
 * @throws StartProblem where a link leads nowhere or in a circle, or a file system takes no folders; the system's own
 *   error for what {@link ofFolder} says
 */
export function makeFolder(dir: string): void {
  if (exists(() => statSync(dir))) {
    // A file in its place is said by whoever writes into it.
    mkdirSync(dir, { recursive: true, mode: 0o700 })
    return
  }
  if (exists(() => lstatSync(dir)))
    throw new StartProblem(`${dir} is a link that leads nowhere, or in a circle. Choose another: ./start --data DIR`)
  if (dirname(dir) !== dir) makeFolder(dirname(dir))
  try {
    mkdirSync(dir, { mode: 0o700 })
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT')
      throw new StartProblem(`No folder can be made in ${dirname(dir)}. Choose another: ./start --data DIR`)
    // Two starts at once make the same one.
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST' || !statSync(dir).isDirectory()) throw error
  }
}
