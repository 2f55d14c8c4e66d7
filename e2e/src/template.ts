import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { nameOf, TEMPLATES } from './copyTemplate'
import { Undercliff } from './undercliff'

/** The demo, and an empty shed, are made once for the whole run, and copied from then on. */
export default async function setup(): Promise<() => void> {
  const dir = mkdtempSync(join(tmpdir(), 'undercliff-templates-'))
  for (const flags of [[], ['--empty']]) {
    const made = await Undercliff.start(...flags)
    await made.leave()
    cpSync(made.dataDir, join(dir, nameOf(flags)), { recursive: true })
    rmSync(made.dataDir, { recursive: true, force: true })
  }
  process.env[TEMPLATES] = dir
  return () => {
    rmSync(dir, { recursive: true, force: true })
  }
}
