import { problemDetails } from '@undercliff/contract'
import { sql } from 'drizzle-orm'
import { Router } from 'express'
import type { Database } from '../database/connect'
import { sendProblem } from '../http/problems'

/** `GET /healthz`: 200 when requests can be served, 503 when the database is away. */
export function healthRoutes(db: Database): Router {
  const router = Router()
  router.get('/healthz', async (_request, response) => {
    try {
      await db.execute(sql`select 1`)
      response.json({ status: 'ok' })
    } catch {
      sendProblem(response, problemDetails('database-away', 'The database is not answering.'))
    }
  })
  return router
}
