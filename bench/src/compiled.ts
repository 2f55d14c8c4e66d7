import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'vite'

/**
 * A module of the bench compiled as what ships is compiled, so that the development runner's
 * additions to every function are not measured.
 *
 * @param entry path of the module
 */
export async function compiled<T>(entry: string): Promise<T> {
  // Beside the packages, so that those that stay outside the bundle are found.
  const outDir = mkdtempSync(join(import.meta.dirname, '../.compiled-'))
  try {
    await build({
      configFile: false,
      logLevel: 'error',
      ssr: { noExternal: [/^@undercliff\//] },
      build: {
        ssr: entry,
        outDir,
        emptyOutDir: true,
        target: 'node20',
        rolldownOptions: { output: { entryFileNames: 'compiled.js' } },
      },
    })
    return (await import(pathToFileURL(join(outDir, 'compiled.js')).href)) as T
  } finally {
    rmSync(outDir, { recursive: true, force: true })
  }
}
