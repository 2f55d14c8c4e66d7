import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createConnection, type RowDataPacket } from 'mysql2/promise'
import { afterAll, expect, test } from 'vitest'
import { startPrivateDatabase, type PrivateDatabase } from './privateDatabase'

const dirs: string[] = []
const started: PrivateDatabase[] = []
const folder = (): string => {
  const dir = mkdtempSync(join(tmpdir(), 'undercliff-private-'))
  dirs.push(dir)
  return dir
}
const start = async (dir: string): Promise<PrivateDatabase> => {
  const database = await startPrivateDatabase(dir)
  started.push(database)
  return database
}
afterAll(async () => {
  await Promise.all(started.map((database) => database.stop()))
  for (const dir of dirs) rmSync(dir, { recursive: true, force: true })
})

const filesOf = async ({ url }: PrivateDatabase): Promise<string> => {
  const connection = await createConnection({ uri: url })
  const [rows] = await connection.query<RowDataPacket[]>('select @@datadir as dir')
  await connection.end()
  return String(rows[0]?.['dir'])
}

const ownFiles = (dir: string): string => join(dir, 'mariadb', 'files/')

test('a copy of a folder has the port and password of the first, and is served from its own files', async () => {
  const [first, copy] = [folder(), folder()]
  await (await start(first)).stop()
  cpSync(first, copy, { recursive: true })
  const both = await Promise.all([first, copy].map(start))
  expect(await Promise.all(both.map(filesOf))).toEqual([first, copy].map(ownFiles))
  // As where the other one was quicker to take the port that is written down here.
  both[1]?.release()
  cpSync(join(first, 'database.json'), join(copy, 'database.json'))
  const again = await start(copy)
  expect(await filesOf(again)).toBe(ownFiles(copy))
  expect(again.adopted).toBe(false)
  expect(await filesOf(await start(first))).toBe(ownFiles(first))
}, 120_000)
