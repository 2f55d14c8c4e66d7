import {
  fileInUse,
  kitOf,
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
 * by step say the same counts and minutes, for whoever does it with the file that is in use.
 */
export function useOnePlan() {
  const hands = useHands()
  const kit = useKit()
  void kit.hear()
  /** What the file bites that is in use for it, where the kit has one. */
  const biteOf = ({ setUp }: SharpeningPlan): number | undefined => {
    const file = setUp.with === 'file' ? fileInUse(kitOf(kit.kit, 'file'), setUp.fileUm) : undefined
    return file === undefined ? undefined : kit.usageOf(file.id).bite
  }
  return (asked: Asked): SharpeningPlan => {
    const state = { ...asked.state, decision: null }
    const wanted = hands(asked)
    const plan = planSharpening(state, asked.rules, wanted)
    const fileBite = biteOf(plan)
    return fileBite === undefined ? plan : planSharpening(state, asked.rules, { ...wanted, fileBite })
  }
}

/** Strokes for a sound cutter of each side by a plan. */
export function strokesBySide({ sides }: SharpeningPlan): Record<Hand, number> {
  const strokes = { left: 0, right: 0 }
  for (const { hand, count } of sides) strokes[hand] = count
  return strokes
}
