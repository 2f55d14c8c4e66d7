import {
  middleLength,
  plateFor,
  plateLeaves,
  plateUsed,
  sayPlate,
  type HouseRules,
  type LoopState,
  type SharpeningTool,
  type Um,
} from '@undercliff/core'
import { computed } from 'vue'
import { useKit } from '../remote/kitStore'
import { useShed } from '../remote/shedStore'
import { useWoodStep } from './woodStep'

/** What gauges of a loop are brought down to. */
interface Asked {
  readonly state: LoopState
  readonly rules: HouseRules
  /** Of a cutter in the middle of the loop once its edges are filed; as it stands where it is left out. */
  readonly middleUm?: Um | undefined
  readonly tool?: SharpeningTool | undefined
}

/**
 * The plate that gauges come down to: one of the crew's own, or the house's, chosen by its step for this saw today and
 * never by its stamp; with what it leaves, in words and as an entry names it.
 */
export function usePlate(asked: () => Asked | null) {
  const kit = useKit()
  const shed = useShed()
  const woodStep = useWoodStep(() => asked()?.state.sawId ?? null)
  return computed(() => {
    const of = asked()
    if (of === null) return null
    const { spec, cutters } = of.state
    const rule = { gaugeSchool: of.rules.gaugeSchool, woodStep: woodStep.step.value ?? of.rules.woodStep }
    const middleUm = of.middleUm ?? middleLength(cutters.map(({ length }) => length.um))
    const choice = plateFor(kit.kit, spec, middleUm, rule)
    const used = plateUsed(choice, rule)
    return sayPlate(
      { choice, used, leavesUm: plateLeaves(spec, middleUm, used) },
      of.tool ?? 'plateGuide',
      shed.figures,
    )
  })
}
