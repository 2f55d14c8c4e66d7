import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Undercliff } from './undercliff'

/** Where a run keeps data folders as they are after a first start, for its tests to begin with. */
export const TEMPLATES = 'UNDERCLIFF_TEMPLATES'

const nameOf = (flags: readonly string[]): string | null =>
  flags.length === 0 ? 'demo' : flags.length === 1 && flags[0] === '--empty' ? 'empty' : null

/** A data folder as it is after a first start with these flags; null where the run has none such. */
export function copyTemplate(flags: readonly string[], to: string): boolean {
  const [dir, name] = [process.env[TEMPLATES], nameOf(flags)]
  if (dir === undefined || name === null || !existsSync(join(dir, name))) return false
  cpSync(join(dir, name), to, { recursive: true })
  return true
}

/** The demo, and an empty shed, are made once for the whole run, and copied from then on. */
export default async function setup(): Promise<() => void> {
  const dir = mkdtempSync(join(tmpdir(), 'undercliff-templates-'))
  for (const flags of [[], ['--empty']]) {
    const made = await Undercliff.start(...flags)
    await made.leave()
    cpSync(made.dataDir, join(dir, nameOf(flags) ?? ''), { recursive: true })
    rmSync(made.dataDir, { recursive: true, force: true })
  }
  process.env[TEMPLATES] = dir
  return () => {
    rmSync(dir, { recursive: true, force: true })
  }
}
