import { defineConfig } from '@playwright/test'
import { CHROMIUM, CHROMIUM_ARGS } from './src/browser'

export default defineConfig({
  testDir: './src',
  globalSetup: './src/template.ts',
  testMatch: '**/*.spec.ts',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  fullyParallel: false,
  workers: 2,
  retries: 0,
  outputDir: '../test-results',
  reporter: [['list'], ['./src/lineReporter.ts']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // Each page fetches its own; what the browser keeps for a cold start has tests of its own.
    serviceWorkers: 'block',
    launchOptions: { executablePath: CHROMIUM, args: CHROMIUM_ARGS },
  },
})
