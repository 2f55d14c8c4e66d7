import { fileURLToPath } from 'node:url'
import { compiled } from './compiled'
import type { Figure } from './figure'
import type { foldRun } from './foldRun'

/** Folding and deciding for a whole shed, measured in code compiled as the server and the pages are. */
export async function foldBench(): Promise<Figure[]> {
  const module = await compiled<{ foldRun: typeof foldRun }>(fileURLToPath(new URL('./foldRun.ts', import.meta.url)))
  return module.foldRun()
}
