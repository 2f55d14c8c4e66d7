import { CUTTER_DAMAGE, decide, loopPriceMinor, type HouseRules, type LoopState, type Verdict } from '@undercliff/core'

/** What is turned on the decision screen without touching the log. */
export interface WhatIf {
  /** Price of a new loop, in minor units. */
  readonly loopPriceMinor: number
  readonly labourPerHourMinor: number
  /** By how much the deepest damage, and with it every other, is deeper than it is known to be. */
  readonly deeperUm: number
  /** Tanks since it was sharpened, weighted by dirt. */
  readonly tanks: number
}

/** The loop and the prices as they are. */
export const asItIs = (state: LoopState, rules: HouseRules): WhatIf => ({
  loopPriceMinor: loopPriceMinor(state.spec, rules),
  labourPerHourMinor: rules.labourPerHourMinor,
  deeperUm: 0,
  tanks: Math.round(state.wearTanksSinceSharpened * 2) / 2,
})

/** The loop, and the rules it is judged by, with what was turned. */
export function supposed(state: LoopState, rules: HouseRules, what: WhatIf): { state: LoopState; rules: HouseRules } {
  const { pitchClass, driveLinks } = state.spec
  const was = asItIs(state, rules)
  const cutters =
    what.deeperUm === 0
      ? state.cutters
      : state.cutters.map((cutter) => ({
          ...cutter,
          damage: cutter.damage.map((one) =>
            one.depthUm === null || CUTTER_DAMAGE[one.kind].effect !== 'depth'
              ? one
              : { ...one, depthUm: Math.max(50, one.depthUm + what.deeperUm) },
          ),
        }))
  return {
    state: {
      ...state,
      decision: null,
      cutters,
      wearTanksSinceSharpened: what.tanks === was.tanks ? state.wearTanksSinceSharpened : what.tanks,
    },
    rules: {
      ...rules,
      labourPerHourMinor: what.labourPerHourMinor,
      linkPriceMinor:
        what.loopPriceMinor === was.loopPriceMinor
          ? rules.linkPriceMinor
          : { ...rules.linkPriceMinor, [pitchClass]: what.loopPriceMinor / driveLinks },
    },
  }
}

/** The verdict with what was turned. */
export function whatIf(state: LoopState, rules: HouseRules, what: WhatIf): Verdict {
  const turned = supposed(state, rules, what)
  return decide(turned.state, turned.rules)
}
