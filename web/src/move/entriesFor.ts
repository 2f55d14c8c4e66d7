import type { LoopCard, NewEntry, Shelf } from '@undercliff/core'

/** Where loops are to go. */
export type Target =
  | { readonly to: 'shelf'; readonly shelf: Shelf; readonly costMinor?: number }
  | { readonly to: 'shop'; readonly shop: string; readonly dueBackAt?: string }
  | {
      readonly to: 'saw'
      readonly sawId: string
      readonly barFlipped: boolean
      readonly tensionChecked: boolean
      /** Where the loop goes that comes off it; where such a one usually goes when it is left out. */
      readonly offTo?: Shelf
      readonly overruled?: string
    }

/** Who moves, when, and where ids come from. */
export interface Moving {
  readonly personId: string | null
  readonly at: string
  readonly newId: () => string
}

type Body<T> = T extends NewEntry ? Omit<T, 'id' | 'loopId' | 'happenedAt' | 'personId'> : never

/** Where a loop that makes room goes: what is due to the dull box, the rest to the rack. */
export const shelfFor = ({ action }: Pick<LoopCard, 'action'>): Shelf => (action === 'runOn' ? 'sharpRack' : 'dullBox')

/** Whether a loop is at a target already. */
export const isAt = ({ place }: LoopCard, target: Target): boolean => {
  if (target.to === 'saw') return place.at === 'saw' && place.sawId === target.sawId
  return target.to === 'shelf' ? place.at === target.shelf : place.at === 'shop'
}

/**
 * The entries that bring a loop to a target, in order: back from a shop first, and whatever is on
 * the saw off it.
 *
 * @param occupant the loop on the saw, when the target is one
 */
export function entriesFor(
  loop: LoopCard,
  target: Target,
  occupant: LoopCard | undefined,
  { personId, at, newId }: Moving,
): NewEntry[] {
  let order = 0
  const startMs = Date.parse(at)
  // A millisecond apart, so that they count in this order.
  const entry = (loopId: string, body: Body<NewEntry>): NewEntry => ({
    id: newId(),
    loopId,
    happenedAt: new Date(startMs + order++).toISOString(),
    personId,
    ...body,
  })
  const away = loop.place.at === 'shop'
  switch (target.to) {
    case 'shelf': {
      const { shelf, costMinor } = target
      if (away)
        return [entry(loop.loopId, { kind: 'cameBack', to: shelf, ...(costMinor === undefined ? {} : { costMinor }) })]
      return [entry(loop.loopId, { kind: loop.place.at === 'saw' ? 'takenOff' : 'moved', from: loop.sawId, to: shelf })]
    }
    case 'shop': {
      const { shop, dueBackAt } = target
      return [
        entry(loop.loopId, {
          kind: 'sentOut',
          from: loop.sawId,
          shop,
          ...(dueBackAt === undefined ? {} : { dueBackAt }),
        }),
      ]
    }
    case 'saw': {
      const { to: _to, offTo, ...fitting } = target
      const off =
        occupant === undefined || occupant.loopId === loop.loopId
          ? []
          : [entry(occupant.loopId, { kind: 'takenOff', from: target.sawId, to: offTo ?? shelfFor(occupant) })]
      const back = away ? [entry(loop.loopId, { kind: 'cameBack', to: 'bench' })] : []
      return [...off, ...back, entry(loop.loopId, { kind: 'fitted', from: loop.sawId, ...fitting })]
    }
  }
}
