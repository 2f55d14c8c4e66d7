import { edgeDrop, targetSetting } from '../geometry'
import { gaugeRuleOf, gaugeStanding, type HouseRules } from '../house'
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
  /** What the plate is to leave: of the middle cutter, where it grows with wear. */
  readonly plateUm: Um
  /** Length of that cutter then: a progressive plate leaves by it what its step has. */
  readonly middleUm: Um
  readonly each: readonly GaugeJob[]
  /** Cutters that need the same few strokes, by their number of strokes. */
  readonly groups: readonly { readonly strokes: number; readonly cutters: readonly number[] }[]
  readonly tooLow: readonly number[]
}

type GaugeRules = Pick<HouseRules, 'gaugeSchool' | 'woodStep' | 'gaugeHighUm' | 'gaugeLowUm'>

/** What the work does to the edges, and on the way to the gauges. */
export interface EdgesBack {
  /** Fall of the top plate, degrees. */
  readonly slopeDeg: number
  /** The tool files the gauge in the same stroke, to one setting for life. */
  readonly onTheWay: boolean
}

/** The one in the middle of so many lengths, itself one of them; 0 for none. */
export const middleLength = (lengthsUm: readonly Um[]): Um =>
  [...lengthsUm].sort((a, b) => a - b)[Math.floor(lengthsUm.length / 2)] ?? 0

/**
 * The depth gauges of a loop once its edges have gone back: which stand high, how many strokes each needs, which are
 * too low and stay. None is due where the tool brings them down on the way.
 */
export function gaugeJobs(
  state: LoopState,
  jobs: readonly CutterJob[],
  rules: GaugeRules,
  { slopeDeg, onTheWay }: EdgesBack,
): GaugeJobs {
  const { spec, cutters } = state
  const rule = gaugeRuleOf(state, rules)
  let due = false
  const each = jobs.map(({ number, removeUm, targetUm: lengthUm }): GaugeJob => {
    const { setting } = cutters[number - 1] ?? { setting: { um: spec.settingUm, sdUm: 0 } }
    const sunkUm = setting.um - edgeDrop(removeUm, slopeDeg)
    const settingUm = onTheWay && removeUm > 0 ? Math.max(sunkUm, spec.settingUm) : sunkUm
    const standing = gaugeStanding(spec, { length: { um: lengthUm }, setting: { um: settingUm } }, rule)
    if (standing === 'high' && !onTheWay) due = true
    const targetUm = targetSetting(spec, lengthUm, rule)
    const strokes = onTheWay ? 0 : Math.max(0, Math.round((targetUm - settingUm) / UM_PER_GAUGE_STROKE))
    return { number, settingUm, targetUm, strokes, tooLow: standing === 'low' }
  })
  const counts = [...new Set(each.map(({ strokes }) => strokes))].filter((strokes) => strokes > 0).sort((a, b) => a - b)
  return {
    due,
    plateUm: middleLength(each.map(({ targetUm }) => targetUm)),
    middleUm: middleLength(jobs.map(({ targetUm }) => targetUm)),
    each,
    groups: counts.map((strokes) => ({
      strokes,
      cutters: each.filter((one) => one.strokes === strokes).map(({ number }) => number),
    })),
    tooLow: each.filter(({ tooLow }) => tooLow).map(({ number }) => number),
  }
}
