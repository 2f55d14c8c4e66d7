import {
  crewChangeSchema,
  newProfileSchema,
  newSawSchema,
  rulesChangeSchema,
  type CrewChange,
  type HouseRulesChange,
  type NewSaw,
} from '@undercliff/contract'
import type { CrewProfile } from '@undercliff/core'
import { createHash } from 'node:crypto'
import type { Route } from '../http/access'
import { addProfile, addSaw, changeCrew, readShed, removeProfile } from '../store/shed'
import { Refusal } from '../store/refusal'
import { pathId, readBody } from '../http/body'
import type { RouteParts } from './parts'

interface Kept {
  readonly revision: number
  readonly body: Buffer
  readonly etag: string
}

/**
 * The whole shed. Its answer is kept as bytes for each crew, and served again while the crew's
 * revision, read with the session each time, stays the same.
 */
function wholeShed({ db }: RouteParts): Route {
  const keptOf = new Map<string, Kept>()
  return {
    method: 'get',
    path: '/shed',
    access: 'signedIn',
    handle: async (request, response, { crewId, revision }) => {
      let kept = keptOf.get(crewId)
      if (kept?.revision !== revision) {
        const body = Buffer.from(JSON.stringify(await readShed(db, crewId)))
        kept = { revision, body, etag: `"${createHash('sha1').update(body).digest('base64url')}"` }
        keptOf.set(crewId, kept)
      }
      response.setHeader('ETag', kept.etag)
      if (request.headers['if-none-match'] === kept.etag) response.status(304).end()
      else response.type('json').send(kept.body)
    },
  }
}

/** The shed, and what a lead adds to it and changes about the crew. */
export const shedRoutes = (parts: RouteParts): Route[] => [wholeShed(parts), ...wear(parts), ...changes(parts)]

const wear = ({ workers }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/wear',
    access: 'signedIn',
    handle: async (_request, response, { crewId }) => {
      response.json(await workers.run('readWear', { crewId }))
    },
  },
]

/** What somebody changes of the rules. Pace is learned, and what a device read of it changes nothing. */
function changeOf(body: unknown): HouseRulesChange {
  const { pace: _pace, signCounts: _counts, ...change } = readBody<HouseRulesChange>(rulesChangeSchema, body)
  return change
}

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
    handle: async (request, response, { crewId }) => {
      const change = changeOf(request.body)
      response.json(await workers.run('changeRules', { crewId, change }))
    },
  },
  {
    method: 'post',
    path: '/rules/effect',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      const change = changeOf(request.body)
      response.json(await workers.run('effectOfRules', { crewId, change }))
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
