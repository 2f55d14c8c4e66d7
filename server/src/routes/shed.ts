import {
  crewChangeSchema,
  newProfileSchema,
  newSawSchema,
  rulesChangeSchema,
  type CrewChange,
  type HouseRulesChange,
  type NewSaw,
  type ShedAnswer,
} from '@undercliff/contract'
import type { CrewProfile } from '@undercliff/core'
import type { Request, Response } from 'express'
import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import zlib from 'node:zlib'
import type { Route } from '../http/access'
import { addProfile, addSaw, changeCrew, removeProfile } from '../store/shed'
import { ShedIndex } from '../store/shedIndex'
import { Refusal } from '../store/refusal'
import { pathId, readBody } from '../http/body'
import type { RouteParts } from './parts'

const gzip = promisify(zlib.gzip)

/** A whole answer as it travels. */
interface Kept {
  readonly revision: number
  readonly body: Buffer
  readonly gzipped: Buffer
  readonly etag: string
}

async function asBytes(shed: ShedAnswer, revision: number): Promise<Kept> {
  const body = Buffer.from(JSON.stringify(shed))
  return { revision, body, gzipped: await gzip(body), etag: `"${createHash('sha1').update(body).digest('base64url')}"` }
}

function sendKept(request: Request, response: Response, kept: Kept): void {
  const gzipped = request.acceptsEncodings('gzip') === 'gzip'
  response.setHeader('ETag', kept.etag)
  response.vary('Accept-Encoding')
  if (request.headers['if-none-match'] === kept.etag) {
    response.status(304).end()
    return
  }
  if (gzipped) response.setHeader('Content-Encoding', 'gzip')
  response.type('json').send(gzipped ? kept.gzipped : kept.body)
}

/**
 * The shed: what changed since a place that an answer told, or all of it. The whole is kept as bytes for each
 * crew, and served again while the crew's revision, read with the session each time, stays the same.
 */
function shedNews({ db }: RouteParts): Route {
  const keptOf = new Map<string, Kept>()
  const index = new ShedIndex(db)
  return {
    method: 'get',
    path: '/shed',
    access: 'signedIn',
    handle: async (request, response, { crewId, revision }) => {
      const { since } = request.query
      if (typeof since === 'string') {
        if (index.isNow(crewId, revision, since)) {
          response.status(204).end()
          return
        }
        const changes = await index.changes(crewId, since)
        if (changes !== null) {
          response.json(changes)
          return
        }
      }
      let kept = keptOf.get(crewId)
      if (kept?.revision !== revision) {
        kept = await asBytes(await index.whole(crewId), revision)
        keptOf.set(crewId, kept)
      }
      sendKept(request, response, kept)
    },
  }
}

/** The shed, and what a lead adds to it and changes about the crew. */
export const shedRoutes = (parts: RouteParts): Route[] => [shedNews(parts), ...wear(parts), ...changes(parts)]

const wear = ({ workers }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/wear',
    access: 'signedIn',
    handle: async (_request, response, { crewId, personId }) => {
      response.json(await workers.run(personId, 'readWear', { crewId }))
    },
  },
]

const changeOf = (body: unknown): HouseRulesChange => readBody<HouseRulesChange>(rulesChangeSchema, body)

const changes = ({ writes, workers }: RouteParts): Route[] => [
  {
    method: 'put',
    path: '/crew',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.json(await changeCrew(writes, crewId, readBody<CrewChange>(crewChangeSchema, request.body)))
    },
  },
  {
    method: 'put',
    path: '/rules',
    access: 'lead',
    handle: async (request, response, { crewId, personId }) => {
      const change = changeOf(request.body)
      response.json(await workers.run(personId, 'changeRules', { crewId, change }))
    },
  },
  {
    method: 'post',
    path: '/rules/effect',
    access: 'lead',
    handle: async (request, response, { crewId, personId }) => {
      const change = changeOf(request.body)
      response.json(await workers.run(personId, 'effectOfRules', { crewId, change }))
    },
  },
  {
    method: 'post',
    path: '/profiles',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.status(201).json(await addProfile(writes, crewId, readBody<CrewProfile>(newProfileSchema, request.body)))
    },
  },
  {
    method: 'delete',
    path: '/profiles/:id',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      const id = pathId(request, 'id')
      if (id === null) throw new Refusal('no-such-profile', 'There is no such profile.')
      await removeProfile(writes, crewId, id)
      response.status(204).end()
    },
  },
  {
    method: 'post',
    path: '/saws',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.status(201).json(await addSaw(writes, crewId, readBody<NewSaw>(newSawSchema, request.body)))
    },
  },
]
