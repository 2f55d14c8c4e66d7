import type { EntryBodies, LoopState } from '@undercliff/core'

/** What a look at the whole loop found: all sound, or all dulled by dirt, which goes with the next touch-up. */
export type Looked = 'sound' | 'dirt'

/**
 * A look at the whole loop as the log has it. What was known to be wrong with a cutter or the chassis stays known: that
 * all is dulled by dirt takes none of it back, and that no more was found does not either.
 */
export function lookOf(
  { cutters, parts }: Pick<LoopState, 'cutters' | 'parts'>,
  found: Looked,
): EntryBodies['inspected'] {
  if (found === 'sound') return { readings: [], parts }
  const readings = cutters.map(({ number, damage }) => ({
    cutter: number,
    damage: [...damage.filter(({ kind }) => kind !== 'dirtDulled'), { kind: 'dirtDulled' as const, depthUm: null }],
  }))
  return { readings, parts }
}

export const sayLook = (tag: string, found: Looked): string =>
  `${tag} looked over, ${found === 'sound' ? 'all sound' : 'all dulled by dirt: touch it up'}`
