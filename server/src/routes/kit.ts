import { kitSchemaFor } from '@undercliff/contract'
import type { KitItem } from '@undercliff/core'
import type { Route } from '../http/access'
import { pathId, readBody } from '../http/body'
import { putKitItem } from '../store/kit'
import { Refusal } from '../store/refusal'
import type { RouteParts } from './parts'

/** What a crew sharpens and measures with. Everybody keeps it: who finds a wheel glazed says so. */
export const kitRoutes = ({ writes, workers }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/kit',
    access: 'signedIn',
    handle: async (_request, response, { crewId }) => {
      response.json(await workers.run('readKitUsage', { crewId }))
    },
  },
  {
    method: 'put',
    path: '/kit/:id',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const item = readBody<KitItem>(kitSchemaFor(request.body), request.body)
      if (pathId(request, 'id') !== item.id) throw new Refusal('id-taken', 'The address and the body name two things.')
      response.json(await putKitItem(writes, crewId, item))
    },
  },
]
