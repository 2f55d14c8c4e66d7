import { underWaySchema, type SaveUnderWay } from '@undercliff/contract'
import type { Request } from 'express'
import type { Route } from '../http/access'
import { pathId, readBody } from '../http/body'
import { Refusal } from '../store/refusal'
import { endUnderWay, readUnderWay, saveUnderWay } from '../store/underWay'
import type { RouteParts } from './parts'

function loopIdOf(request: Request): string {
  const loopId = pathId(request, 'loopId')
  if (loopId === null) throw new Refusal('no-such-loop', 'There is no such loop.')
  return loopId
}

/** Sharpenings that are under way: who is at which loop, and what has happened so far. */
export const underWayRoutes = ({ db, writes, clock }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/loops/:loopId/under-way',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      response.json({ underWay: await readUnderWay(db, crewId, loopIdOf(request)) })
    },
  },
  {
    method: 'put',
    path: '/loops/:loopId/under-way',
    access: 'signedIn',
    handle: async (request, response, session) => {
      const body = readBody<SaveUnderWay>(underWaySchema, request.body)
      response.json({ underWay: await saveUnderWay(writes, session, loopIdOf(request), body, clock()) })
    },
  },
  {
    method: 'delete',
    path: '/loops/:loopId/under-way/:deviceId',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const deviceId = pathId(request, 'deviceId')
      if (deviceId === null) throw new Refusal('no-such-loop', 'No device is called that.')
      await endUnderWay(writes, crewId, loopIdOf(request), deviceId)
      response.status(204).end()
    },
  },
]
