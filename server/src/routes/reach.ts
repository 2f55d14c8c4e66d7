import type { Route } from '../http/access'
import type { RouteParts } from './parts'

/** How phones get to this Undercliff. */
export const reachRoutes = ({ reach }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/reach',
    access: 'signedIn',
    handle: (_request, response) => {
      response.json(reach)
      return Promise.resolve()
    },
  },
]
