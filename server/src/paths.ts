import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

function findRoot(from: string): string {
  const manifest = join(from, 'package.json')
  if (existsSync(manifest) && (JSON.parse(readFileSync(manifest, 'utf8')) as { name?: string }).name === 'undercliff') {
    return from
  }
  const above = dirname(from)
  if (above === from) throw new Error('the folder of the undercliff repository was not found')
  return findRoot(above)
}

/** The repository, whether run from source or from the built bundle. */
export const ROOT = findRoot(dirname(fileURLToPath(import.meta.url)))
export const MIGRATIONS_DIR = join(ROOT, 'server', 'drizzle')
export const WEB_DIST = join(ROOT, 'web', 'dist')
export const DEFAULT_DATA_DIR = join(ROOT, 'data')
