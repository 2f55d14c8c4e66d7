import type { CutterState, Estimate, HeldReading, LoopState } from '../state'

/**
 * The length of a cutter of which a reading is held out: one of the two is right, and the safe one, the shorter, is
 * worked with. It is no measurement, and its range holds both.
 */
const eitherOf = (thought: Estimate, { um, sdUm }: HeldReading): Estimate => ({
  um: Math.max(0, Math.min(thought.um, Math.round(um))),
  known: 'estimated',
  sdUm: Math.max(thought.sdUm, Math.round(Math.hypot(sdUm, (thought.um - um) / 2))),
})

/** The cutters of a loop as they are worked with while readings are held out: nobody knows which figure is right. */
export function cuttersWorkedWith({ cutters, held }: Pick<LoopState, 'cutters' | 'held'>): readonly CutterState[] {
  if (held.length === 0) return cutters
  const byNumber = new Map(held.map((one) => [one.cutter, one]))
  return cutters.map((cutter) => {
    const one = byNumber.get(cutter.number)
    return one === undefined ? cutter : { ...cutter, length: eitherOf(cutter.length, one) }
  })
}
