import { CAUSES, LOOKS, type Cause, type Look } from '../log'
import type { LookDone, OpenSign } from '../state'
import { LEAKS, LOOK_FACTS, type Told } from './likelihoods'
import { showsBy, toldBy, type SignCounts } from './learned'
import { noisyOr, type Fault, type Posterior } from './noisyOr'
import { priorsOf, type Scene } from './priors'

/** What the saw told, under which circumstances, and what was looked at since. */
export type Noticed = Pick<OpenSign, 'signs' | 'toward' | 'wood' | 'along' | 'looks'>

/** A cause, and how likely it is there. */
export interface Likely {
  readonly cause: Cause
  readonly chance: number
}

/** A look, and what it is worth. */
export interface LookWorth {
  readonly look: Look
  /** By how many bits it is expected to narrow what may be there. */
  readonly bits: number
  readonly minutes: number
}

/** What is thought of a sign. */
export interface Diagnosis {
  /** Causes that could show themselves so, the likeliest behind it first. */
  readonly causes: readonly Likely[]
  /** The look that tells most for its minutes; null where none is needed any more, or none is left. */
  readonly look: LookWorth | null
  /** What to act on, once it is sure enough or the looks are done; null before, or where nothing was found. */
  readonly actOn: Cause | null
  /** Whether that is all but sure, and not only likelier than the rest. */
  readonly isSure: boolean
  /** Whether there is nothing more to look for, whatever was found. */
  readonly settled: boolean
  /** Whether the saw must rest until somebody has looked: gauges may be too low. */
  readonly rests: boolean
}

/** Looks after which something is done, or the bench sees to it. */
const MOST_LOOKS = 3
/** Chance from which a cause is acted on without another look. Starting value. */
const SURE = 0.92
/** Chance above which a cause stands in the way of laying it to the wood. Starting value. */
const DOUBTFUL = 0.4
/** Chance below which, when all looks are done, nothing is said to be behind it. Starting value. */
const TOO_FAINT = 0.25
/** Chance of gauges too low from which the saw rests. Starting value. */
const RESTS = 0.3
/** Narrowing below which a look is not worth its while, bits. Starting value. */
const LEAST_BITS = 0.02
/** Minutes that any look takes besides: engine off, gloves, glasses. Starting value. */
const GETTING_TO_IT = 0.5
/** What is right as it is, and explains a sign away. */
const OF_THE_DAY: ReadonlySet<Cause> = new Set(['wood', 'grain'])

const entropy = (chance: number): number =>
  chance <= 0 || chance >= 1 ? 0 : -chance * Math.log2(chance) - (1 - chance) * Math.log2(1 - chance)

const chanceOf = (chances: readonly number[], cause: Cause): number => chances[CAUSES.indexOf(cause)] ?? 0

/** Every cause with what was seen of it, as the network of causes and signs has it. */
function faultsOf(scene: Scene, noticed: Noticed, told: readonly Told[], counts: SignCounts): readonly Fault[] {
  const priors = priorsOf(scene, noticed)
  const ripping = scene.state.spec.cutterType === 'ripping'
  const faults = CAUSES.map((cause): Fault => {
    const shows = told.map((one) => showsBy(one, cause, counts, ripping))
    return { there: priors[cause], absent: 1 - priors[cause], shows }
  })
  return noticed.looks.reduce<readonly Fault[]>(afterLook, faults)
}

/** The same once a look showed some of its causes, and not the others. */
function afterLook(faults: readonly Fault[], { look, found }: LookDone): readonly Fault[] {
  const { shows, finds, passes } = LOOK_FACTS[look]
  return faults.map((fault, i) => {
    const cause = CAUSES[i] as Cause
    if (!shows.includes(cause)) return fault
    const [there, absent] = found.includes(cause) ? [finds, 1 - passes] : [1 - finds, passes]
    return { ...fault, there: fault.there * there, absent: fault.absent * absent }
  })
}

/**
 * Every cause with its chance of being there, the one first that is likeliest behind what was told: there, and showing
 * itself so.
 */
function likeliestBehind(faults: readonly Fault[], { chances }: Posterior): Likely[] {
  const behind = (i: number): number => (chances[i] ?? 0) * Math.max(0, ...(faults[i]?.shows ?? []))
  return CAUSES.map((cause, i) => ({ cause, chance: chances[i] ?? 0, behind: behind(i) }))
    .sort((a, b) => b.behind - a.behind)
    .map(({ cause, chance }) => ({ cause, chance }))
}

/** Every way in which a look can come out, as the causes that it shows. */
const outcomes = (shows: readonly Cause[]): Cause[][] =>
  shows.reduce<Cause[][]>((ways, cause) => [...ways, ...ways.map((way) => [...way, cause])], [[]])

/** Bits of what is not known, over the causes that count. */
const openBits = ({ chances }: Posterior, counted: readonly boolean[]): number =>
  chances.reduce((sum, chance, i) => sum + (counted[i] === true ? entropy(chance) : 0), 0)

/** What a look is expected to narrow. */
function worthOf(
  look: Look,
  faults: readonly Fault[],
  leaks: readonly number[],
  counted: readonly boolean[],
  now: Posterior,
): LookWorth {
  const { shows, minutes } = LOOK_FACTS[look]
  let left = 0
  for (const found of outcomes(shows)) {
    const then = noisyOr(afterLook(faults, { look, found }), leaks)
    if (then.evidence > 0) left += (then.evidence / now.evidence) * openBits(then, counted)
  }
  return { look, bits: Math.max(0, openBits(now, counted) - left), minutes }
}

/** What to act on: the likeliest thing that can be put right, or the wood where nothing else stands in its way. */
function sureCause(causes: readonly Likely[], looked: boolean): Cause | null {
  const [first] = causes.filter(({ cause }) => !OF_THE_DAY.has(cause))
  if (first !== undefined && first.chance >= SURE) return first.cause
  if (first !== undefined && first.chance >= DOUBTFUL) return null
  // That dry wood explains it nobody is sure of who has not looked: a dull edge makes dust in it too.
  const mayBe = (cause: Cause): boolean => OF_THE_DAY.has(cause) && (looked || cause !== 'wood')
  return causes.find(({ cause, chance }) => mayBe(cause) && chance >= SURE)?.cause ?? null
}

/**
 * What may be behind what a saw told: chances of all causes together, from what is known of this loop and saw, from
 * the signs and from what was looked at since; what the wood explains raises no other cause. With it the one look
 * that narrows most for its minutes, and what to act on after at most three.
 *
 * @param counts what the crew found behind signs before
 */
export function diagnose(scene: Scene, noticed: Noticed, counts: SignCounts = {}): Diagnosis {
  const told = [...new Set(noticed.signs.flatMap((sign) => toldBy(sign, noticed.toward) ?? []))]
  const leaks = told.map((one) => LEAKS[one])
  const faults = faultsOf(scene, noticed, told, counts)
  const now = noisyOr(faults, leaks)
  const counted = faults.map(({ shows }) => shows.some((chance) => chance > 0))
  const causes = likeliestBehind(faults, now).filter(({ cause }) => counted[CAUSES.indexOf(cause)])
  const sure = sureCause(causes, noticed.looks.length > 0)
  const rests = chanceOf(now.chances, 'gaugesLow') >= RESTS && counted[CAUSES.indexOf('gaugesLow')] === true
  const done = new Set(noticed.looks.map(({ look }) => look))
  if (sure !== null || done.size >= MOST_LOOKS) return { causes, look: null, ...settledOn(sure, causes), rests }
  const look = bestLook(faults, leaks, counted, now, done)
  return look === null
    ? { causes, look, ...settledOn(null, causes), rests }
    : { causes, look, actOn: null, isSure: false, settled: false, rests }
}

/**
 * What may be behind everything that the saw told and nobody traced, taken together; of the day and of the side it
 * is what was said last.
 */
export function diagnoseAll(scene: Scene, counts: SignCounts = {}): Diagnosis {
  const open = scene.state.signs
  return diagnose(
    scene,
    {
      signs: [...new Set(open.flatMap(({ signs }) => signs))],
      toward: open.findLast(({ toward }) => toward !== null)?.toward ?? null,
      wood: open.findLast(({ wood }) => wood !== null)?.wood ?? null,
      along: open.findLast(({ along }) => along !== null)?.along ?? null,
      looks: open.flatMap(({ looks }) => looks),
    },
    counts,
  )
}

/** What is acted on once there is nothing more to look for. */
function settledOn(sure: Cause | null, causes: readonly Likely[]): Pick<Diagnosis, 'actOn' | 'isSure' | 'settled'> {
  const [likeliest] = causes
  const best = likeliest !== undefined && likeliest.chance >= TOO_FAINT ? likeliest.cause : null
  return { actOn: sure ?? best, isSure: sure !== null, settled: true }
}

/** The look that narrows most for its minutes, of those that were not taken. */
function bestLook(
  faults: readonly Fault[],
  leaks: readonly number[],
  counted: readonly boolean[],
  now: Posterior,
  done: ReadonlySet<Look>,
): LookWorth | null {
  let best: LookWorth | null = null
  const rate = ({ bits, minutes }: LookWorth): number => bits / (minutes + GETTING_TO_IT)
  for (const look of LOOKS) {
    if (done.has(look) || !LOOK_FACTS[look].shows.some((cause) => counted[CAUSES.indexOf(cause)])) continue
    const worth = worthOf(look, faults, leaks, counted, now)
    if (worth.bits >= LEAST_BITS && (best === null || rate(worth) > rate(best))) best = worth
  }
  return best
}
