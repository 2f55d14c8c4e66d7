import { sideDifference, sumOf } from '../belief'
import { CUTTER_DAMAGE, type CutterDamageKind } from '../damage'
import { targetSetting } from '../geometry'
import { gaugeRuleOf, type HouseRules } from '../house'
import type { Cause } from '../log'
import type { Hand } from '../loop'
import type { SawDue, SawState } from '../saw'
import type { LoopState, OpenSign } from '../state'
import { normalBelow } from '../stats'
import { learnSharpness } from '../wear'

/** What is known of a loop, of the saw it is on and of the day, where somebody said so. */
export interface Scene {
  readonly state: LoopState
  /** Null where the loop is on none, or nothing is known of it. */
  readonly saw: (Pick<SawState, 'fit' | 'due' | 'tension'> & { readonly unturned?: number }) | null
  readonly rules: Pick<HouseRules, 'gaugeSchool' | 'woodStep' | 'gaugeHighUm' | 'gaugeLowUm' | 'sideDifferenceUm'>
}

/** The day, as the sign says it. */
export type Day = Pick<OpenSign, 'wood' | 'along'>

/** Chance of what somebody saw, or said. */
const SEEN = 0.95
/** How steeply edges dull: the first tank takes little, the fourth much. Shape of a Weibull life. Starting value. */
const DULLS = 2
/** Mean of such a life, as a part of its scale: Γ(1 + 1/2). */
const MEAN_OF_SCALE = 0.8862
/** Part of the house's limit at which sides begin to tell. Starting value. */
const TELLS = 0.6
/** Chance of a longer side where nobody ever read one, and where somebody did. Starting values. */
const [UNREAD_LONGER, READ_LONGER] = [0.1, 0.03]
/** A grind that took more than this off a cutter is a heavy one. Starting value. */
const HEAVY_UM = 400

const has = ({ cutters }: LoopState, ...kinds: readonly CutterDamageKind[]): boolean =>
  cutters.some(({ damage }) => damage.some(({ kind }) => kinds.includes(kind)))

/** Part of the cutters of a side that have lost their edge, or were hurt. */
function bluntPart({ cutters }: LoopState, hand: Hand): number {
  const side = cutters.filter((cutter) => cutter.hand === hand)
  const blunt = side.filter(({ damage }) =>
    damage.some(({ kind }) => ['dullness', 'depth'].includes(CUTTER_DAMAGE[kind].effect)),
  )
  return side.length === 0 ? 0 : blunt.length / side.length
}

/** Chance that the loop is dull now, by what it ran since it was sharpened and how long it has lasted before. */
function chanceDull(state: LoopState): number {
  if (has(state, 'rounded', 'dirtDulled')) return SEEN
  const { mean } = learnSharpness(state.spells)
  const part = (state.wearTanksSinceSharpened * MEAN_OF_SCALE) / Math.max(0.1, mean)
  // A sharpening fails now and then.
  return Math.max(0.03, 1 - Math.exp(-(part ** DULLS)))
}

/** Chances of a wrong shape or of soft steel, by what it was last sharpened with. */
const SHAPES = {
  file: { hook: 0.06, backSlope: 0.05, blued: 0.01 },
  wheel: { hook: 0.03, backSlope: 0.02, blued: 0.12 },
  heavyWheel: { hook: 0.03, backSlope: 0.02, blued: 0.35 },
} as const

function shapeBy({ lastSharpened }: LoopState): keyof typeof SHAPES {
  if (lastSharpened?.population !== 'grind') return 'file'
  return lastSharpened.tookUm >= HEAVY_UM ? 'heavyWheel' : 'wheel'
}

/** Chance that it met something that nobody saw, or what nobody has looked into. */
function chanceStruck({ openStrikes, cutters, tanksSinceSharpened }: LoopState): number {
  if (openStrikes.length > 0) return 0.9
  const hurt = cutters.some(({ damage }) => damage.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'depth'))
  return hurt ? 0.85 : Math.min(0.2, 0.02 + 0.02 * tanksSinceSharpened)
}

function edgePriors(state: LoopState): Partial<Record<Cause, number>> {
  const { tanksSinceSharpened, wearTanksSinceSharpened, spec } = state
  const dirty = tanksSinceSharpened > 0 && wearTanksSinceSharpened / tanksSinceSharpened > 1.2
  const shape = SHAPES[shapeBy(state)]
  return {
    dull: chanceDull(state),
    hook: has(state, 'hook') ? SEEN : shape.hook,
    backSlope: has(state, 'backSlope') ? SEEN : shape.backSlope,
    blued: has(state, 'blued') ? SEEN : shape.blued,
    struck: chanceStruck(state),
    dirt: dirty ? (spec.cutterType === 'fullChisel' ? 0.5 : 0.25) : 0.04,
    anglesDiffer: has(state, 'wrongAngle') || state.parts.some(({ kind }) => kind === 'anglesDiffer') ? SEEN : 0.06,
  }
}

/** How the gauges stand on average, against what this loop wants at its wear. */
function gaugePriors({ state, rules }: Scene): Partial<Record<Cause, number>> {
  const { cutters, settings, spec } = state
  const meanUm = cutters.reduce((sum, { length }) => sum + length.um, 0) / cutters.length
  const { mean, variance } = sumOf(settings.tied, () => 1 / cutters.length)
  const offUm = mean - targetSetting(spec, meanUm, gaugeRuleOf(state, rules))
  const sd = Math.max(1, Math.sqrt(variance))
  const low = normalBelow((offUm - rules.gaugeLowUm) / sd)
  const high = normalBelow((-offUm - rules.gaugeHighUm) / sd)
  // Without a plate they come out too low as often as not.
  const byEye = state.gaugesByEye ? 0.35 : 0.03
  return {
    gaugesHigh: has(state, 'gaugeHigh') ? SEEN : Math.max(0.02, high),
    gaugesLow: has(state, 'gaugeLow') ? SEEN : Math.max(low, byEye),
    gaugesUneven: has(state, 'gaugeFlat') ? 0.8 : state.gaugesByEye ? 0.3 : 0.06,
  }
}

/** Which side is longer by what is known, and which is sharper. */
function sidePriors({ state, rules }: Scene): Partial<Record<Cause, number>> {
  const known = sideDifference(state.lengths)
  const limit = TELLS * rules.sideDifferenceUm
  const sd = known === null ? 1 : Math.max(1, Math.sqrt(known.variance))
  const least = state.lastMeasuredAt === null ? UNREAD_LONGER : READ_LONGER
  const beyond = (meanUm: number): number => Math.max(least, normalBelow((meanUm - limit) / sd))
  const { strokes } = state.lastSharpened ?? { strokes: null }
  const most = strokes === null ? 0 : Math.max(strokes.left, strokes.right)
  const lean = strokes === null || most === 0 ? 0 : (strokes.left - strokes.right) / most
  const blunter = bluntPart(state, 'right') - bluntPart(state, 'left')
  const sharper = (hand: Hand): number => {
    if (state.waitingSide !== null) return state.waitingSide === hand ? 0.01 : SEEN
    const sign = hand === 'left' ? 1 : -1
    return Math.min(SEEN, Math.max(0.02, 0.12 + 0.4 * sign * lean + 0.8 * sign * blunter))
  }
  return {
    leftLonger: known === null ? 0.02 : beyond(known.mean),
    rightLonger: known === null ? 0.02 : beyond(-known.mean),
    leftSharper: sharper('left'),
    rightSharper: sharper('right'),
  }
}

/** What is due on a saw, as a chance that it tells. */
const DUE_TELLS: Partial<Record<SawDue, readonly [Cause, number]>> = {
  flipAtChange: ['bar', 0.4],
  flipByHours: ['bar', 0.4],
  burrs: ['bar', 0.5],
  grooveWorn: ['groove', 0.85],
  sprocketSoon: ['sprocket', 0.25],
  sprocketNow: ['sprocket', 0.6],
}

/** A bar that stayed as it was for so many changes wears on one rail: each makes it likelier. Starting value. */
const unturnedTells = (changes = 0): number => (changes < 2 ? 0 : Math.min(0.85, 0.4 + 0.15 * changes))

/** Of a chain that nobody looked at the tension of, that stayed, or that had to be tightened. */
const slackBy = (tension: SawState['tension']): number => (tension === null ? 0.2 : tension.stayed ? 0.06 : 0.3)

/** A part that nobody read off the saw may not agree; one that was read agrees, or is seen not to. Starting value. */
const MISMATCH_UNREAD = 0.05
const mismatch = <T>(takes: T | null, loop: T, agrees: number): number =>
  takes === null ? MISMATCH_UNREAD : takes === loop ? agrees : SEEN

/** The saw: what is due on it, and what was looked to. */
function sawPriors({ state, saw }: Scene): Partial<Record<Cause, number>> {
  const fit = saw?.fit ?? state.spec
  const priors: Partial<Record<Cause, number>> = {
    bar: Math.max(0.1, unturnedTells(saw?.unturned)),
    groove: 0.05,
    sprocket: 0.05,
    gaugeMismatch: mismatch(fit.gaugeUm, state.spec.gaugeUm, 0.01),
    pitchMismatch: mismatch(fit.pitchClass, state.spec.pitchClass, 0.005),
    tangs: state.parts.some(({ kind }) => kind === 'driveLinkBent') ? 0.8 : 0.03,
    tooTight: 0.06,
    slack: slackBy(saw?.tension ?? null),
    noOil: 0.06,
  }
  for (const due of saw?.due ?? []) {
    const [cause, chance] = DUE_TELLS[due] ?? ['bar', 0]
    priors[cause] = Math.max(priors[cause] ?? 0, chance)
  }
  return priors
}

const HARD_ON_DUST: Readonly<Record<NonNullable<Day['wood']>, number>> = {
  ordinary: 0.02,
  hard: 0.4,
  dry: 0.9,
  frozen: 0.9,
  rotten: 0.9,
}

/** What the wood explains by itself. */
function dayPriors({ state: { spec } }: Scene, { wood, along }: Day): Partial<Record<Cause, number>> {
  const usual = spec.cutterType === 'ripping' ? 0.85 : 0.03
  return {
    wood: wood === null ? 0.08 : HARD_ON_DUST[wood],
    grain: along === null ? usual : along ? 0.97 : 0.01,
    greedy: wood === 'hard' ? 0.12 : 0.05,
  }
}

/**
 * How likely each cause is before the saw told anything, by what is known of this loop, its saw and the day. Chances
 * that rest on nothing but the trade are starting values.
 */
export function priorsOf(scene: Scene, day: Day): Readonly<Record<Cause, number>> {
  const found = new Set(scene.state.standing)
  const priors = {
    ...edgePriors(scene.state),
    ...gaugePriors(scene),
    ...sidePriors(scene),
    ...sawPriors(scene),
    ...dayPriors(scene, day),
  } as Record<Cause, number>
  for (const cause of found) priors[cause] = 0.97
  return priors
}
