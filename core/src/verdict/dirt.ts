import { CUTTER_DAMAGE, damageDepth } from '../damage'
import type { CutterState, LoopState } from '../state'
import type { FindingRules } from './findingRules'
import type { Reason } from './verdict'

/** Part of the cutters that must still cut for work in dirt. Starting value. */
const STILL_CUT = 2 / 3

/** How many of so many cutters still have to cut. */
export const leastThatCut = (cutters: number): number => Math.ceil(STILL_CUT * cutters)

/** Whether a cutter has lost its corner: dull, or hurt. */
const isBlunt = ({ damage }: CutterState): boolean =>
  damage.some(({ kind }) => ['dullness', 'depth'].includes(CUTTER_DAMAGE[kind].effect))

/** Fewer cutters with a corner than work in dirt needs; null while there are enough. */
export function tooFewCut({ cutters }: Pick<LoopState, 'cutters'>): Reason | null {
  const cut = cutters.filter((cutter) => !isBlunt(cutter)).length
  const least = leastThatCut(cutters.length)
  if (cut >= least) return null
  return {
    rule: 'tooFewCut',
    value: { unit: 'cutters', amount: cut },
    limit: { unit: 'cutters', amount: least },
    limitFrom: 'trade',
  }
}

/** The hurt cutter that has least left behind its damage, where that is less than the reserve; null while none has. */
function nothingBehind({ cutters, spec }: LoopState, rules: FindingRules): Reason | null {
  const limitUm = spec.markLengthUm + rules.reserveUm
  let least: Reason | null = null
  for (const { number, hand, length, damage } of cutters) {
    const { knownUm } = damageDepth(damage)
    const behindUm = length.um - knownUm
    if (knownUm === 0 || behindUm >= (least?.value?.amount ?? limitUm)) continue
    least = {
      rule: 'noLengthBehindDamage',
      cutter: number,
      hand,
      value: { unit: 'um', amount: behindUm },
      limit: { unit: 'um', amount: limitUm },
      limitFrom: 'house',
      known: length.known,
    }
  }
  return least
}

/**
 * Why a loop is not fit for work in dirt, beside what makes it unfit for any: nothing behind its damage,
 * or too few cutters that still cut. It need be neither even nor free of nicks.
 */
export const unfitForDirt = (state: LoopState, rules: FindingRules): readonly Reason[] =>
  [nothingBehind(state, rules), tooFewCut(state)].flatMap((reason) => reason ?? [])
