import { availableParallelism } from 'node:os'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    reporters: ['default', './scripts/lineReporter.ts'],
    // Vitest leaves one core to its own main process, which waits for most of a run.
    maxWorkers: availableParallelism(),
    projects: [
      {
        test: {
          name: 'unit',
          include: ['{core,contract,demo,prove}/src/**/*.test.ts', 'scripts/*.test.ts'],
          environment: 'node',
          setupFiles: process.env['FIRST_FAILURE'] === undefined ? [] : ['scripts/firstFailure.ts'],
          // Pure: nothing is left behind for the next file. Two busy cores take their time.
          isolate: false,
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: 'web',
          include: ['web/src/**/*.test.ts'],
          environment: 'node',
          // What a page keeps in memory is its own: each file is a page that was just opened.
          isolate: true,
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/src/**/*.test.ts'],
          environment: 'node',
          globalSetup: ['server/src/fixtures/database.ts'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
          isolate: false,
          // Each worker has a database of its own.
          maxWorkers: 2,
        },
      },
    ],
  },
})
