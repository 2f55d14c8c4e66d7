import {
  planSharpening,
  toolFor,
  type Hand,
  type HouseRules,
  type LoopState,
  type Sharpening,
  type SharpeningPlan,
} from '@undercliff/core'
import { useCrewKnows } from '../remote/crewKnows'
import { useKit } from '../remote/kitStore'
import { useShed } from '../remote/shedStore'

/** What is sharpened, how, and by whom. */
interface Asked {
  readonly state: LoopState
  readonly rules: HouseRules
  readonly action: Sharpening['action']
  readonly personId: string | null
  readonly tool?: Sharpening['tool']
}

/** What is known of whoever sharpens: their weaker side, and what a stroke of theirs takes. */
export function useHands() {
  const knows = useCrewKnows()
  const shed = useShed()
  const kit = useKit()
  return ({ state, rules, action, personId, tool }: Asked): Sharpening => {
    const weakSide = shed.people.find(({ id }) => id === personId)?.weakSide ?? null
    const { known } = knows.value
    const takes = toolFor(state, rules, { action, tool, kit: kit.kit })
    return {
      action,
      personId,
      tool: takes,
      kit: kit.kit,
      ...(weakSide === null ? {} : { weakSide }),
      ...(known === null ? {} : { known }),
    }
  }
}

/**
 * The plan of a sharpening as every page reads it: the card, the wood, the short form, the job sheet and the work step
 * by step say the same counts and minutes, for whoever does it.
 */
export function useOnePlan() {
  const hands = useHands()
  return (asked: Asked): SharpeningPlan => planSharpening({ ...asked.state, decision: null }, asked.rules, hands(asked))
}

/** Strokes for a sound cutter of each side by a plan. */
export function strokesBySide({ sides }: SharpeningPlan): Record<Hand, number> {
  const strokes = { left: 0, right: 0 }
  for (const { hand, count } of sides) strokes[hand] = count
  return strokes
}
