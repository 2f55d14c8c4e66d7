import type { LoopState } from '../state'
import type { RemovalFigures } from '../wear'

/** Where what a sharpening takes off a loop is known from. */
export function sayLearnedFrom(
  { own }: Pick<RemovalFigures, 'own'>,
  { beganWith }: Pick<LoopState, 'beganWith'>,
): string {
  if (own > 0) return `${own} of its own measured`
  const known = beganWith === 'crew' ? 'as on the crew’s loops before it' : 'common practice'
  return `${known}, none of its own measured`
}
