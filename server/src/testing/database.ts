import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { connect, migrateUp } from '../database/connect'
import { startPrivateDatabase } from '../database/privateDatabase'

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string
  }
}

/** A private MariaDB for the whole run, thrown away after it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const dir = mkdtempSync(join(tmpdir(), 'undercliff-test-'))
  const database = await startPrivateDatabase(dir)
  const connected = connect(database.url)
  await migrateUp(connected)
  await connected.pool.end()
  project.provide('databaseUrl', database.url)
  return async () => {
    await database.stop()
    rmSync(dir, { recursive: true, force: true })
  }
}
