import type { Known, LoopState, OvertakenFitting, Place } from '../state'
import { CUTTER_DAMAGE, damageDepth, type CutterDamageKind, type DamageKind } from '../damage'
import { fileFor } from '../geometry'
import { usableLengthUm, type LoopSpec } from '../profile'
import type { MinutesRange } from '../sharpen'
import type { CountRange } from '../wear'
import { gaugeRuleOf, gaugeStanding, type GaugeStanding, type HouseRules } from '../house'
import type { Action, Duty } from '../log'
import { decide, forecast, waysOut, type Forecast, type Reason, type RunnerUp, type WayOut } from '../verdict'

/** What the drawn tooth of a loop shows; every part of it from the loop's own figures. */
export interface ToothSign {
  /** What the worst cutter has left to the mark, 1 new to 0 at the mark, before damage comes off. */
  readonly left: number
  /** The part of that which its damage takes. */
  readonly damaged: number
  /** Whether that length was measured. */
  readonly known: Known
  /** Depth-gauge setting against its target: 1 as it should be, less when gauges stand high. */
  readonly setting: number
  /** The gravest kind of damage anywhere on the loop. */
  readonly damage: DamageKind | null
  /** How the side plate leans, where anybody has found it wrong. */
  readonly shape: 'hook' | 'backSlope' | null
  /** Where the gauges stand against the house's tolerance. */
  readonly gauge: GaugeStanding | 'flat'
}

/** A loop in a list: enough to draw it, say what to do next and where it belongs. */
export interface LoopCard {
  readonly loopId: string
  readonly tag: string
  /** Its file is the one for its present wear. */
  readonly spec: Pick<
    LoopSpec,
    'pitchClass' | 'gaugeUm' | 'driveLinks' | 'cutterType' | 'sequence' | 'fileUm' | 'startMark' | 'stamp'
  >
  readonly sawId: string | null
  readonly place: Place
  /** Another saw that somebody put it on, and whoever moved it later did not know of that. */
  readonly overtaken: OvertakenFitting | null
  readonly retired: boolean
  readonly action: Action
  readonly also: readonly Action[]
  readonly fitForUse: boolean
  /** The deciding reason. */
  readonly reason: Reason | null
  readonly minutes: MinutesRange
  readonly sharpeningsLeft: CountRange
  /** What the verdict's job costs, in minor units; null where it is no job. */
  readonly costMinor: number | null
  /** What came second, and by how much an hour of sharp running. */
  readonly runnerUp: RunnerUp | null
  /** The cheapest way back to work of one that must not cut; null where it may, or where nothing brings it back. */
  readonly wayOut: WayOut | null
  /** What the model would do, where a lead settled on something else. */
  readonly advised: Action
  readonly settled: boolean
  readonly duty: Duty
  readonly tooth: ToothSign
  readonly lastEntryAt: string
}

/** Which damage is drawn when there are several; only their order counts. Starting values. */
const GRAVITY = { ends: 4, unfit: 3, attention: 3, depth: 2, shape: 1, gauge: 0.5, dullness: 0 } as const

function gravestDamage(state: LoopState): DamageKind | null {
  let gravest: DamageKind | null = state.parts[0]?.kind ?? null
  let weight = gravest === null ? -1 : 3
  for (const { damage } of state.cutters) {
    for (const { kind } of damage) {
      const own = GRAVITY[CUTTER_DAMAGE[kind].effect]
      if (own > weight) {
        weight = own
        gravest = kind
      }
    }
  }
  return gravest
}

const rounded = (value: number): number => Math.round(Math.min(1.5, Math.max(0, value)) * 1000) / 1000

const has = ({ cutters }: LoopState, wanted: CutterDamageKind): boolean =>
  cutters.some(({ damage }) => damage.some(({ kind }) => kind === wanted))

function gaugeOf(state: LoopState, rules: HouseRules, ahead: Forecast): ToothSign['gauge'] {
  const rule = gaugeRuleOf(state, rules)
  if (state.cutters.some((cutter) => gaugeStanding(state.spec, cutter, rule) === 'low')) return 'low'
  const mean = { length: { um: ahead.meanLengthUm }, setting: { um: ahead.settingUm } }
  if (gaugeStanding(state.spec, mean, rule) === 'high') return 'high'
  return has(state, 'gaugeFlat') ? 'flat' : 'fine'
}

/** The drawn tooth of a loop. */
export function toothSign(state: LoopState, rules: HouseRules): ToothSign {
  const ahead = forecast(state, rules)
  const { summary, settingUm, targetUm } = ahead
  const usable = usableLengthUm(state.spec)
  const { worst } = summary
  return {
    left: rounded((worst.length.um - state.spec.markLengthUm) / usable),
    damaged: rounded(damageDepth(worst.damage).knownUm / usable),
    known: worst.length.known,
    setting: rounded(settingUm / Math.max(1, targetUm)),
    damage: gravestDamage(state),
    shape: has(state, 'hook') ? 'hook' : has(state, 'backSlope') ? 'backSlope' : null,
    gauge: gaugeOf(state, rules, ahead),
  }
}

/** The card of a loop under a crew's house rules. */
export function cardOf(state: LoopState, rules: HouseRules): LoopCard {
  const verdict = decide(state, rules)
  const { pitchClass, gaugeUm, driveLinks, cutterType, sequence, startMark, stamp } = state.spec
  const tooth = toothSign(state, rules)
  const shortestUm = Math.min(...state.cutters.map(({ length }) => length.um))
  const { fileUm } = fileFor(state.spec, shortestUm, rules.fileSchool)
  return {
    loopId: state.loopId,
    tag: state.tag,
    spec: {
      pitchClass,
      gaugeUm,
      driveLinks,
      cutterType,
      sequence,
      fileUm,
      ...(startMark === undefined ? {} : { startMark }),
      ...(stamp === undefined ? {} : { stamp }),
    },
    sawId: state.sawId,
    place: state.place,
    overtaken: state.overtaken,
    retired: state.retired !== null,
    action: verdict.action,
    also: verdict.also,
    fitForUse: verdict.fitForUse,
    reason: verdict.reasons[0] ?? null,
    minutes: verdict.minutes,
    sharpeningsLeft: verdict.sharpeningsLeft,
    costMinor: verdict.options.find(({ action }) => action === verdict.action)?.money.totalMinor ?? null,
    runnerUp: verdict.runnerUp,
    wayOut: waysOut(state, rules, verdict)[0] ?? null,
    advised: verdict.advised,
    settled: verdict.decision !== null,
    duty: state.duty,
    tooth,
    lastEntryAt: state.lastEntryAt,
  }
}
