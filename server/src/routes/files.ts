import express, { Router } from 'express'
import type { Database } from '../database/connect'
import { restoreBackup, writeBackup } from '../store/backup'
import { Refusal } from '../store/refusal'
import { TABLES, writeTable, type TableName } from '../store/tables'

/** Largest backup that is read: some hundred thousand entries. */
export const BACKUP_LIMIT = '100mb'

const isTable = (name: string): name is TableName => (TABLES as readonly string[]).includes(name)

/** Everything in and out as files: one backup, and each table as CSV. */
export function filesRoutes(db: Database, crewId: string, clock: () => Date): Router {
  const router = Router()

  router.get('/backup', async (_request, response) => {
    const now = clock()
    response.attachment(`undercliff-${now.toISOString().slice(0, 10)}.json`)
    response.json(await writeBackup(db, crewId, now))
  })

  router.post('/backup', express.json({ limit: BACKUP_LIMIT }), async (request, response) => {
    await restoreBackup(db, crewId, request.body, clock())
    response.status(204).end()
  })

  router.get('/tables/:name.csv', async (request, response) => {
    const { name } = request.params
    if (!isTable(name)) throw new Refusal('no-such-route', `There is no such table. There are: ${TABLES.join(', ')}.`)
    response.attachment(`undercliff-${name}.csv`).type('text/csv; charset=utf-8')
    response.send(await writeTable(db, crewId, name))
  })

  return router
}
