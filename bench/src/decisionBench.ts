import { fileURLToPath } from 'node:url'
import { compiled } from './compiled'
import type { decisionRun } from './decisionRun'
import type { Figure } from './figure'

/** The decision in full, measured in code compiled as the server and the pages are. */
export async function decisionBench(): Promise<Figure[]> {
  const module = await compiled<{ decisionRun: typeof decisionRun }>(
    fileURLToPath(new URL('./decisionRun.ts', import.meta.url)),
  )
  return module.decisionRun()
}
