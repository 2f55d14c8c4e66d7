import type { Shelf } from '../log'
import type { Place } from '../state'
import { sayDay, type DateOrder } from './dates'
import { capital } from './text'

/** What a place off the saws is called. */
export const SHELF_NAMES: Readonly<Record<Shelf, string>> = {
  truck: 'truck',
  sharpRack: 'sharp rack',
  dullBox: 'dull box',
  bench: 'bench',
}

/** A loop lies in a box and on everything else. */
const IN_OR_ON: Readonly<Record<Shelf, 'in' | 'on'>> = { truck: 'on', sharpRack: 'on', dullBox: 'in', bench: 'on' }

/** Where a loop on a shelf is, in the middle of a sentence. `onShelf('dullBox') // 'in the dull box'` */
export const onShelf = (shelf: Shelf): string => `${IN_OR_ON[shelf]} the ${SHELF_NAMES[shelf]}`

/** A place in a word or two, for lists and search. `placeWord({ at: 'sharpRack' }) // 'sharp rack'` */
export const placeWord = ({ at }: Pick<Place, 'at'>): string =>
  at === 'saw' || at === 'shop' || at === 'retired' ? at : SHELF_NAMES[at]

/**
 * Where a loop is, as a crew says it.
 *
 * @example
 * sayPlace({ at: 'dullBox' }, () => 'a saw') // 'In the dull box'
 */
export function sayPlace(place: Place, sawName: (id: string) => string, dates: DateOrder = 'dayFirst'): string {
  // A shop's days are kept as days, not as moments.
  const dayOf = (instant: string): string => sayDay(instant, dates, { year: false, timeZone: 'UTC' })
  switch (place.at) {
    case 'saw':
      return `On ${sawName(place.sawId)}`
    case 'retired':
      return 'Retired'
    case 'shop': {
      const back = place.dueBackAt === null ? '' : `, due back ${dayOf(place.dueBackAt)}`
      return `At ${place.shop} since ${dayOf(place.sentAt)}${back}`
    }
    case 'dullBox':
    case 'truck':
    case 'sharpRack':
    case 'bench':
      return capital(onShelf(place.at))
  }
}
