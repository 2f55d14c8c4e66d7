import type { Saw } from '@undercliff/contract'
import { unreadOf, type LoopCard } from '@undercliff/core'

/** What loops that carry a stamp are, by the crew's own list. */
export interface Stamped extends Pick<
  LoopCard['spec'],
  'pitchClass' | 'gaugeUm' | 'driveLinks' | 'cutterType' | 'sequence'
> {
  readonly stamp: string
  /** Some of the loops that carry it, the newest last. */
  readonly tags: readonly string[]
}

const NAMED = 3
const plain = (stamp: string): string => stamp.toLowerCase().replace(/[\s.-]+/g, '')

/** Whether two stamps read the same but for capitals, spaces, dots and dashes. */
const same = (a: string | undefined, b: string): boolean => a !== undefined && plain(b) !== '' && plain(a) === plain(b)

/**
 * What a stamp has been on this crew's loops: their list of stamps is their loops, and grows with them. Where it was
 * different things, what it was last.
 *
 * @param stamp as it is read off the links or the box; null is answered while the crew has none like it
 */
export function knownByStamp(stamp: string, loops: readonly LoopCard[]): Stamped | null {
  const alike = loops.filter(({ spec }) => same(spec.stamp, stamp))
  const last = alike.at(-1)
  if (last === undefined) return null
  const { pitchClass, gaugeUm, driveLinks, cutterType, sequence } = last.spec
  return {
    ...{ stamp: last.spec.stamp ?? stamp, pitchClass, gaugeUm, driveLinks, cutterType, sequence },
    tags: alike.slice(-NAMED).map(({ tag }) => tag),
  }
}

/**
 * A saw of the crew's whose present bar carries this stamp: what it takes is proposed for the next one. One of which
 * something is not known proposes nothing.
 *
 * @param stamp as it is read off the bar; null is answered while the crew has none like it
 */
export const barByStamp = (stamp: string, saws: readonly Saw[]): Saw | null =>
  saws.findLast((saw) => same(saw.barStamp, stamp) && unreadOf(saw).length === 0) ?? null
