import { cpSync, existsSync, rmSync } from 'node:fs'
import { join } from 'node:path'

/** Where a run keeps data folders as they are after a first start, for its tests to begin with. */
export const TEMPLATES = 'UNDERCLIFF_TEMPLATES'

export const nameOf = (flags: readonly string[]): string => (flags.includes('--empty') ? 'empty' : 'demo')

/** A data folder as it is after a first start with these flags; false where the run has none such. */
export function copyTemplate(flags: readonly string[], to: string): boolean {
  const [dir, name] = [process.env[TEMPLATES], nameOf(flags)]
  if (dir === undefined || !existsSync(join(dir, name))) return false
  cpSync(join(dir, name), to, { recursive: true })
  // Each copy takes a port and a password of its own.
  rmSync(join(to, 'database.json'), { force: true })
  return true
}
