import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'

const DIST = join(import.meta.dirname, '..', '..', 'web', 'dist')

/** What of a script is fetched before a page shows: itself and all that it imports at once. */
function withImports(path: string, seen = new Set<string>()): Set<string> {
  if (seen.has(path)) return seen
  seen.add(path)
  const text = readFileSync(join(DIST, 'assets', path), 'utf8')
  // The application itself is fetched while the first script reads what the device keeps.
  for (const [, next] of text.matchAll(/(?:import|from)\s*"\.\/([^"]+\.js)"/g))
    if (next !== undefined) withImports(next, seen)
  for (const [, next] of text.matchAll(/import\([`"]\.\/(start-[^`"]+\.js)[`"]\)/g))
    if (next !== undefined) withImports(next, seen)
  return seen
}

test('what the first page waits for checks no bodies: Yup comes with the screens that need it', () => {
  const page = readFileSync(join(DIST, 'index.html'), 'utf8')
  const first = [...page.matchAll(/(?:src|href)="\/assets\/([^"]+\.js)"/g)].map(([, name = '']) => name)
  const fetched = new Set(first.flatMap((name) => [...withImports(name)]))
  expect(fetched.size).toBeGreaterThan(2)
  for (const name of fetched) {
    const text = readFileSync(join(DIST, 'assets', name), 'utf8')
    // A sentence of Yup's own, which no build shortens.
    expect(text.includes('must match the following'), name).toBe(false)
  }
})
