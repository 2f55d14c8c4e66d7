import { crewChangeSchema, newPersonSchema, newSawSchema, type CrewChange, type NewPerson, type NewSaw } from '@undercliff/contract'
import { createHash } from 'node:crypto'
import { Router } from 'express'
import type { Database } from '../database/connect'
import { addPerson, addSaw, changeCrew, readShed, revisionOf } from '../store/shed'
import { readBody } from './body'

interface Kept {
  readonly revision: number
  readonly body: Buffer
  readonly etag: string
}

/**
 * The shed and what is added to it. The answer for the whole shed is kept as bytes and served
 * again while the crew's revision, read from the database each time, stays the same.
 */
export function shedRoutes(db: Database, crewId: string): Router {
  const router = Router()
  let kept: Kept | null = null

  router.get('/shed', async (request, response) => {
    const revision = await revisionOf(db, crewId)
    if (kept?.revision !== revision) {
      const body = Buffer.from(JSON.stringify(await readShed(db, crewId)))
      kept = { revision, body, etag: `"${createHash('sha1').update(body).digest('base64url')}"` }
    }
    response.setHeader('ETag', kept.etag)
    response.setHeader('Cache-Control', 'private, no-cache')
    if (request.headers['if-none-match'] === kept.etag) response.status(304).end()
    else response.type('json').send(kept.body)
  })

  router.put('/crew', async (request, response) => {
    response.json(await changeCrew(db, crewId, readBody<CrewChange>(crewChangeSchema, request.body)))
  })

  router.post('/saws', async (request, response) => {
    response.status(201).json(await addSaw(db, crewId, readBody<NewSaw>(newSawSchema, request.body)))
  })

  router.post('/people', async (request, response) => {
    response.status(201).json(await addPerson(db, crewId, readBody<NewPerson>(newPersonSchema, request.body)))
  })

  return router
}
