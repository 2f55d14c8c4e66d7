import { defineConfig } from 'vite'

/** Bundles the server with the workspaces it uses; packages from the registry stay outside. */
export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rolldownOptions: { input: { start: 'src/run/start.ts', worker: 'src/work/worker.ts' } },
  },
  ssr: { noExternal: [/^@undercliff\//] },
})
