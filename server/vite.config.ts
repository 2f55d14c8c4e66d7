import { defineConfig } from 'vite'

/**
 * What stays outside the bundle: code for the machine it runs on, and packages that read files of their own or start
 * threads from them.
 */
const OUTSIDE = [
  '@node-rs/argon2',
  'sharp',
  'pdfkit',
  'piscina',
  'pino',
  'pino-http',
  '@fontsource/atkinson-hyperlegible-next',
]

/** Bundles the server with what it uses: a start reads two files, not a thousand. */
export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rolldownOptions: { input: { start: 'src/run/start.ts', worker: 'src/work/worker.ts' } },
  },
  ssr: { noExternal: true, external: OUTSIDE },
})
