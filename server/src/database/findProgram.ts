import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { StartProblem } from './startProblem'

/**
 * The path of one of MariaDB's programs.
 *
 * @throws StartProblem when it is not installed
 */
export function findProgram(...names: string[]): string {
  for (const name of names) {
    for (const dir of ['/usr/sbin', '/usr/bin', '/usr/local/sbin', '/usr/local/bin']) {
      if (existsSync(join(dir, name))) return join(dir, name)
    }
  }
  throw new StartProblem(
    `MariaDB is missing (${names[0] ?? 'mariadbd'} was not found). Install it with: apt-get install mariadb-server`,
  )
}
