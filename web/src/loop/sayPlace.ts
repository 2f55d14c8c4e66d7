import { SHELF_NAMES, type Place } from '@undercliff/core'

const dayOf = (instant: string): string =>
  new Date(instant).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' })

/** Where a loop is, as a crew says it. */
export function sayPlace(place: Place, sawName: (id: string) => string): string {
  switch (place.at) {
    case 'saw':
      return `On ${sawName(place.sawId)}`
    case 'retired':
      return 'Retired'
    case 'shop':
      return `At ${place.shop} since ${dayOf(place.sentAt)}${place.dueBackAt === null ? '' : `, due back ${dayOf(place.dueBackAt)}`}`
    case 'dullBox':
      return 'In the dull box'
    case 'truck':
    case 'sharpRack':
    case 'bench':
      return `On the ${SHELF_NAMES[place.at]}`
  }
}
