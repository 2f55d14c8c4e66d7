import { edgeDrop, targetSetting } from '../geometry'
import { gaugeStanding, type HouseRules } from '../house'
import type { LoopState } from '../state'
import type { Um } from '../units'
import type { CutterJob } from './cutterJobs'

/** What a stroke of a flat file takes off a depth gauge. Starting value. */
export const UM_PER_GAUGE_STROKE: Um = 50

/** What becomes of one depth gauge. */
export interface GaugeJob {
  readonly number: number
  /** Its setting once the edge has gone back, and the one that is wanted. */
  readonly settingUm: Um
  readonly targetUm: Um
  /** Strokes of a flat file on it; 0 where it stays as it is. */
  readonly strokes: number
  /** It stands too low, and stays: steel cannot be put back. */
  readonly tooLow: boolean
}

/** What becomes of the depth gauges. */
export interface GaugeJobs {
  /** Whether they are due: some stand higher than the house lets run. */
  readonly due: boolean
  /** The setting that the plate is to have: of the middle cutter, where it grows with wear. */
  readonly plateUm: Um
  readonly each: readonly GaugeJob[]
  /** Cutters that need the same few strokes, by their number of strokes. */
  readonly groups: readonly { readonly strokes: number; readonly cutters: readonly number[] }[]
  readonly tooLow: readonly number[]
}

type GaugeRules = Pick<HouseRules, 'gaugeSchool' | 'woodStep' | 'gaugeHighUm' | 'gaugeLowUm'>

/**
 * The depth gauges of a loop once its edges have gone back: which stand high, how many strokes each needs, which are
 * too low and stay.
 *
 * @param slopeDeg fall of the top plate
 */
export function gaugeJobs(
  state: LoopState,
  jobs: readonly CutterJob[],
  rules: GaugeRules,
  slopeDeg: number,
): GaugeJobs {
  const { spec, cutters } = state
  let due = false
  const each = jobs.map(({ number, removeUm, targetUm: lengthUm }): GaugeJob => {
    const { setting } = cutters[number - 1] ?? { setting: { um: spec.settingUm, sdUm: 0 } }
    const settingUm = setting.um - edgeDrop(removeUm, slopeDeg)
    const standing = gaugeStanding(spec, { length: { um: lengthUm }, setting: { um: settingUm } }, rules)
    if (standing === 'high') due = true
    const targetUm = targetSetting(spec, lengthUm, rules)
    const strokes = Math.max(0, Math.round((targetUm - settingUm) / UM_PER_GAUGE_STROKE))
    return { number, settingUm, targetUm, strokes, tooLow: standing === 'low' }
  })
  const counts = [...new Set(each.map(({ strokes }) => strokes))].filter((strokes) => strokes > 0).sort((a, b) => a - b)
  const targets = each.map(({ targetUm }) => targetUm).sort((a, b) => a - b)
  return {
    due,
    plateUm: targets[Math.floor(targets.length / 2)] ?? spec.settingUm,
    each,
    groups: counts.map((strokes) => ({
      strokes,
      cutters: each.filter((one) => one.strokes === strokes).map(({ number }) => number),
    })),
    tooLow: each.filter(({ tooLow }) => tooLow).map(({ number }) => number),
  }
}
