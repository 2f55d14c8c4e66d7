import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Figure } from './figure'

const DIST = new URL('../../web/dist/', import.meta.url).pathname

interface Chunk {
  readonly file: string
  readonly isEntry?: boolean
  readonly imports?: readonly string[]
}

/** Gzipped bytes of some chunks with all that they import at once. */
function bytesOf(manifest: Readonly<Record<string, Chunk>>, keys: readonly string[]): number {
  const seen = new Set<string>()
  const visit = (key: string): void => {
    const chunk = manifest[key]
    if (chunk === undefined || seen.has(key)) return
    seen.add(key)
    for (const imported of chunk.imports ?? []) visit(imported)
  }
  for (const key of keys) visit(key)
  return [...seen].reduce((sum, key) => sum + gzipSync(readFileSync(join(DIST, manifest[key]?.file ?? ''))).length, 0)
}

/** JavaScript that the browser has to have before the shed, or the wood, is drawn, and the fonts. */
export function initialScriptBench(): Figure[] {
  const manifest = JSON.parse(readFileSync(join(DIST, '.vite/manifest.json'), 'utf8')) as Record<string, Chunk>
  const entries = Object.keys(manifest).filter((key) => manifest[key]?.isEntry === true)
  const shed = [...entries, 'src/start.ts', 'src/shed/overview/ShedPage.vue']
  const bytes = bytesOf(manifest, shed)
  const wood = bytesOf(manifest, [...entries, 'src/start.ts', 'src/wood/field/WoodPage.vue'])
  const fonts = readdirSync(join(DIST, 'assets')).filter((file) => file.endsWith('.woff2'))
  const fontBytes = fonts.reduce((sum, file) => sum + statSync(join(DIST, 'assets', file)).size, 0)
  return [
    { name: 'initial JavaScript of the shed, gzipped', value: bytes / 1000, unit: 'kB', limit: { atMost: 350 } },
    { name: 'initial JavaScript of the wood, gzipped', value: wood / 1000, unit: 'kB', limit: { atMost: 180 } },
    { name: `fonts, ${fonts.length} files`, value: fontBytes / 1000, unit: 'kB' },
  ]
}
