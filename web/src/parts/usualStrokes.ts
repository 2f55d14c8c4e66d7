import { planSharpening, type Hand, type HouseRules, type LoopState, type SharpeningPlan } from '@undercliff/core'
import { useCrewKnows } from '../remote/crewKnows'
import { useKit } from '../remote/kitStore'
import { useShed } from '../remote/shedStore'

/** What is sharpened, how, and by whom. */
interface Asked {
  readonly state: LoopState
  readonly rules: HouseRules
  readonly action: 'touchUp' | 'file' | 'regrind'
  readonly personId: string | null
}

/**
 * The plan of a sharpening as every page reads it: the card, the wood, the short form, the job sheet and the work step
 * by step say the same counts and minutes, for whoever does it.
 */
export function useOnePlan() {
  const knows = useCrewKnows()
  const shed = useShed()
  const kit = useKit()
  return ({ state, rules, action, personId }: Asked): SharpeningPlan => {
    const weakSide = shed.people.find(({ id }) => id === personId)?.weakSide ?? undefined
    return planSharpening({ ...state, decision: null }, rules, {
      action,
      personId,
      weakSide,
      kit: kit.kit,
      ...(knows.value.known === null ? {} : { known: knows.value.known }),
    })
  }
}

/** Strokes for a sound cutter of each side by a plan. */
export function strokesBySide({ sides }: SharpeningPlan): Record<Hand, number> {
  const strokes = { left: 0, right: 0 }
  for (const { hand, count } of sides) strokes[hand] = count
  return strokes
}
