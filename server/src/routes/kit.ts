import { kitSchemaFor } from '@undercliff/contract'
import { believeClock, type KitItem } from '@undercliff/core'
import type { Route } from '../http/access'
import { deviceMsOf, pathId, readBody } from '../http/body'
import { KIT_TIMES, putKitItem } from '../store/kit'
import { Refusal } from '../store/refusal'
import type { RouteParts } from './parts'

/** A thing of the kit with the times that the server believes. */
function withBelieved(item: KitItem, nowMs: number, deviceMs: number | null): KitItem {
  const times = Object.entries(item).filter(([field]) => (KIT_TIMES as readonly string[]).includes(field))
  const said = times.map(([, happenedAt]) => ({ happenedAt: String(happenedAt) }))
  const believed = believeClock(said, nowMs, deviceMs)
  return Object.assign(
    {},
    item,
    Object.fromEntries(times.map(([field], i) => [field, believed[i]?.happenedAt])),
  ) as KitItem
}

/** What a crew sharpens and measures with. Everybody keeps it: who finds a wheel glazed says so. */
export const kitRoutes = ({ writes, workers, clock }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/kit',
    access: 'signedIn',
    handle: async (_request, response, { crewId, personId }) => {
      response.json(await workers.run(personId, 'readKitUsage', { crewId }))
    },
  },
  {
    method: 'put',
    path: '/kit/:id',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const said = readBody<KitItem>(kitSchemaFor(request.body), request.body)
      const item = withBelieved(said, clock().getTime(), deviceMsOf(request))
      if (pathId(request, 'id') !== item.id) throw new Refusal('id-taken', 'The address and the body name two things.')
      response.json(await putKitItem(writes, crewId, item))
    },
  },
]
