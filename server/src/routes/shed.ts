import {
  crewChangeSchema,
  newProfileSchema,
  newSawSchema,
  rulesSchema,
  type CrewChange,
  type NewSaw,
} from '@undercliff/contract'
import { rulesConflicts, withDefaults, type CrewProfile, type HouseRules } from '@undercliff/core'
import { createHash } from 'node:crypto'
import type { Route } from '../http/access'
import { changeRules } from '../store/rules'
import { readWear } from '../store/wear'
import { addProfile, addSaw, changeCrew, readShed, removeProfile } from '../store/shed'
import { Refusal } from '../store/refusal'
import { readBody } from './body'
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
      response.setHeader('Cache-Control', 'private, no-cache')
      if (request.headers['if-none-match'] === kept.etag) response.status(304).end()
      else response.type('json').send(kept.body)
    },
  }
}

/** House rules as they were sent, once they can hold together. */
function readRules(body: unknown): HouseRules {
  const rules = withDefaults(readBody<Partial<HouseRules>>(rulesSchema, body))
  const conflicts = rulesConflicts(rules)
  const [first] = conflicts
  if (first === undefined) return rules
  const problems = conflicts.flatMap(({ fields, message }) => fields.map((field) => ({ field, message })))
  throw new Refusal('rules-conflict', first.message, problems)
}

/** The shed, and what a lead adds to it and changes about the crew. */
export const shedRoutes = (parts: RouteParts): Route[] => [wholeShed(parts), ...wear(parts), ...changes(parts)]

const wear = ({ db }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/wear',
    access: 'signedIn',
    handle: async (_request, response, { crewId }) => {
      response.setHeader('Cache-Control', 'private, no-store')
      response.json(await readWear(db, crewId))
    },
  },
]

const changes = ({ db }: RouteParts): Route[] => [
  {
    method: 'put',
    path: '/crew',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.json(await changeCrew(db, crewId, readBody<CrewChange>(crewChangeSchema, request.body)))
    },
  },
  {
    method: 'put',
    path: '/rules',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.json(await changeRules(db, crewId, readRules(request.body)))
    },
  },
  {
    method: 'post',
    path: '/profiles',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.status(201).json(await addProfile(db, crewId, readBody<CrewProfile>(newProfileSchema, request.body)))
    },
  },
  {
    method: 'delete',
    path: '/profiles/:id',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      await removeProfile(db, crewId, String(request.params.id))
      response.status(204).end()
    },
  },
  {
    method: 'post',
    path: '/saws',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.status(201).json(await addSaw(db, crewId, readBody<NewSaw>(newSawSchema, request.body)))
    },
  },
]
