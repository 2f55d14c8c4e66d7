import type { Route } from '../http/access'
import { ImportsUnderWay } from '../store/logsSince'
import type { RouteParts } from './parts'
import { entriesRoutes } from './entries'
import { filesRoutes } from './files'
import { kitRoutes } from './kit'
import { peopleRoutes } from './people'
import { photosRoutes } from './photos'
import { reachRoutes } from './reach'
import { sawsRoutes } from './saws'
import { sessionRoutes } from './session'
import { shedRoutes } from './shed'
import { underWayRoutes } from './underWay'
import { tagsRoutes } from './tags'

/** Every route below `/api`. */
export function allRoutes(parts: RouteParts): readonly Route[] {
  const imports = new ImportsUnderWay(parts.db)
  return [
    ...sessionRoutes(parts),
    ...peopleRoutes(parts),
    ...shedRoutes(parts),
    ...kitRoutes(parts),
    ...photosRoutes(parts),
    ...entriesRoutes(parts, imports),
    ...underWayRoutes(parts),
    ...sawsRoutes(parts),
    ...tagsRoutes(parts),
    ...reachRoutes(parts),
    ...filesRoutes(parts, imports),
  ]
}
