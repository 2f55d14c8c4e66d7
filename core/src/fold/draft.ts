import {
  keepTied,
  lengthOf,
  lengthsOfUsed,
  meanOf,
  newLengths,
  newSettings,
  settingOf,
  type Bite,
  type LengthBelief,
  type Normal,
} from '../belief'
import type { CutterState, Estimate, HeldReading, Known, LoopState, Population, Stint } from '../state'
import type { CutterDamage, PartDamage } from '../damage'
import { layoutLoop, type CutterPlace, type Hand } from '../loop'
import type { Conditions, EntryOf, FileAge, Instant, KnownBite, KnownHand, SharpenMethod, UsedBefore } from '../log'
import { LENGTH_SD_UM, OVER_ASSUMED_ALLOWED } from '../measure'
import { isEntered, PITCH_PROFILES, pitchUmOf, usableLengthUm, type LoopSpec } from '../profile'
import type { NormalBelief } from '../stats'
import type { Um } from '../units'

/** A cutter while the log is being folded; how long it is stands in the belief about all of them. */
export interface DraftCutter extends Omit<CutterState, 'length' | 'setting' | 'damage' | 'angleDeg'> {
  lengthKnown: Known
  settingKnown: Known
  damage: readonly CutterDamage[]
  angleDeg: number | null
}

/** Sharpenings of one kind. */
export interface SharpeningsDone {
  readonly sharpenings: number
  /** Strokes that each cutter of a side got in all of them; null once nobody counted. */
  readonly strokes: Readonly<Record<Hand, number>> | null
}

/** What was done between two readings of lengths, to learn what a sharpening takes off. */
export interface Span {
  /** What was known of the mean of a side at its last reading; null before the first. */
  readonly from: Record<Hand, Normal | null>
  /** What was done since then. */
  readonly done: Map<Population, SharpeningsDone>
  /** Whether one of those was a repair, which says nothing of a usual sharpening. */
  repaired: boolean
  /** Who sharpened since then; undefined when nobody did, null when several or nobody named. */
  by: string | null | undefined
  method: SharpenMethod | null | undefined
  fileAge: FileAge | null | undefined
  fileBite: number | null | undefined
  /** Place among what was spent of its only sharpening; null where it had several, or nothing of the kit was named. */
  spent: number | null
}

/** A span in which nothing was done yet. */
export const newSpan = (from: Span['from']): Span => ({
  from,
  done: new Map(),
  repaired: false,
  by: undefined,
  method: undefined,
  fileAge: undefined,
  fileBite: undefined,
  spent: null,
})

/** Whether nobody ever read the length of one of its cutters. */
export const neverRead = ({ span: { from } }: Pick<Draft, 'span'>): boolean => from.left === null && from.right === null

type Writable<T> = { -readonly [K in keyof T]: T[K] }

/** A loop while its log is being folded; only appliers change it. */
export interface Draft extends Omit<
  Writable<LoopState>,
  | 'sawId'
  | 'sharpenedBy'
  | 'stints'
  | 'cutters'
  | 'held'
  | 'parts'
  | 'openStrikes'
  | 'explained'
  | 'removals'
  | 'timed'
  | 'spent'
  | 'life'
  | 'doubts'
  | 'questions'
  | 'spells'
  | 'signs'
  | 'traced'
  | 'lastEntryAt'
> {
  cutters: DraftCutter[]
  sharpenedBy: Record<Population, number>
  parts: readonly PartDamage[]
  openStrikes: LoopState['openStrikes'][number][]
  explained: LoopState['explained'][number][]
  removals: LoopState['removals'][number][]
  timed: LoopState['timed'][number][]
  spent: LoopState['spent'][number][]
  life: LoopState['life'][number][]
  doubts: LoopState['doubts'][number][]
  questions: LoopState['questions'][number][]
  spells: LoopState['spells'][number][]
  signs: LoopState['signs'][number][]
  traced: LoopState['traced'][number][]
  lastEntryAt: Instant
  /** How it came onto a saw last; null where it never did. */
  fitting: EntryOf<'fitted'> | null
  /** Times on saws, each with the shortest cutter when it began. */
  stints: (Writable<Omit<Stint, 'worn'>> & { shortestUm: Um })[]
  held: Map<number, HeldReading>
  /** What is known of whose hands since before it came. */
  readonly hands: ReadonlyMap<string, KnownHand>
  span: Span
  /** Who read the length of a cutter that has not been sharpened since. */
  readBy: Map<number, string | null>
  /** Length and setting read together since the gauges were last lowered. */
  readTogether: Map<number, { readonly lengthUm: Um; readonly settingUm: Um }>
  /** What the plate left that the gauges were filed to, by cutter, until the next sharpening. */
  plateUm: readonly (Um | null)[] | null
  /** What would explain that a cutter is shorter than was thought, until it is read: by its number. */
  mayBeShorter: Map<number, 'struck' | 'shop'>
  /** Cutters that one reading has far shorter than was thought, and no other since, by their number. */
  onOneReading: Set<number>
  /** Cutters that were read in the round that is under way, in however many entries, and when it began. */
  round: { cutters: Set<number>; at: Instant } | null
  /** The latest sharpening, while the loop has not run since. */
  sharpenedLast: EntryOf<'sharpened'> | null
  /** Tanks of this spell that teach nothing, since it goes on beyond what any edge lasts. */
  untaughtTanks: number
  /** Tanks since sharpened, by what the work was. */
  spellTanks: Record<Conditions, number>
}

/** How far the fall of single loops strays from the profile's, as a tangent. Starting value. */
const SLOPE_SD = 0.03

/** Fall of the top plate of this loop as it is known by now, in degrees. */
export const slopeDegOf = ({ slope }: { readonly slope: NormalBelief }): number =>
  (Math.atan(slope.mean) * 180) / Math.PI

/** What is known of what comes off, as its registration says it. */
const bitesOf = (known: KnownBite | undefined): Bite | undefined =>
  known === undefined
    ? undefined
    : {
        stroke: { mean: known.strokeUm, variance: known.strokeSdUm ** 2 },
        uncounted: { mean: known.uncounted, variance: known.uncountedSd ** 2 },
      }

/** Whose hands are known, and from where. */
const handsOf = (known: KnownBite | undefined): Pick<Draft, 'hands' | 'beganWith'> => ({
  hands: new Map(known?.people.map((hand) => [hand.personId, hand])),
  beganWith: known === undefined ? 'commonPractice' : 'crew',
})

/** What the cutters of a loop that comes used have: what somebody judged by eye, or anything down to the mark. */
const usedUm = ({ newLengthUm, markLengthUm }: LoopSpec, { aboutUm, withinUm }: UsedBefore): Normal =>
  aboutUm === undefined
    ? { mean: (newLengthUm + markLengthUm) / 2, variance: (newLengthUm - markLengthUm) ** 2 / 12 }
    : {
        mean: aboutUm,
        variance: (withinUm === undefined ? LENGTH_SD_UM.eye : Math.max(LENGTH_SD_UM.ruler, withinUm)) ** 2,
      }

const startsWith = (spec: LoopSpec, used: UsedBefore | undefined): Um =>
  used === undefined ? spec.newLengthUm : Math.round(usedUm(spec, used).mean)

/** What is known of lengths when a loop comes. */
function lengthsAtFirst(
  hands: readonly Hand[],
  spec: LoopSpec,
  { knownBite, used }: EntryOf<'registered'>,
): LengthBelief {
  const lengths = newLengths(hands, spec.newLengthUm, !isEntered(spec, 'newLengthUm'), bitesOf(knownBite))
  if (used !== undefined) lengthsOfUsed(lengths, usedUm(spec, used))
  return lengths
}

/** A saw that has told nothing yet. */
const nothingTold = (): Pick<Draft, 'gaugesByEye' | 'signs' | 'standing' | 'traced'> => ({
  gaugesByEye: false,
  signs: [],
  standing: [],
  traced: [],
})

/** How far edges sink for what comes off, before anything was read. */
const slopeAtFirst = ({ pitchClass }: LoopSpec): Draft['slope'] => ({
  mean: Math.tan((PITCH_PROFILES[pitchClass].topPlateSlopeDeg.value * Math.PI) / 180),
  sd: SLOPE_SD,
  own: 0,
})

/** A loop that nothing was done with. */
const nothingCounted = (): Pick<
  Draft,
  | 'sharpenings'
  | 'sharpenedBy'
  | 'sharpeningsSinceGauges'
  | 'tanks'
  | 'taughtTanks'
  | 'untaughtTanks'
  | 'tanksSinceSharpened'
  | 'wearTanksSinceSharpened'
  | 'wearTanks'
  | 'spellTanks'
> => ({
  sharpenings: 0,
  sharpenedBy: { touchUp: 0, routine: 0, grind: 0 },
  sharpeningsSinceGauges: 0,
  tanks: 0,
  taughtTanks: 0,
  untaughtTanks: 0,
  tanksSinceSharpened: 0,
  wearTanksSinceSharpened: 0,
  wearTanks: 0,
  spellTanks: { clean: 0, gritty: 0, soil: 0 },
})

/** A cutter of which nothing was written down. Each property by name: it is much faster than to spread one. */
const cutterAtFirst = ({ number, hand, positionUm }: CutterPlace, known: Known): DraftCutter => ({
  number,
  hand,
  positionUm,
  lengthKnown: known,
  settingKnown: known,
  damage: [],
  angleDeg: null,
})

/** A loop as it was registered, by the spec that holds for it: every cutter new, or as much as is left of it. */
export function openDraft(entry: EntryOf<'registered'>, spec: LoopSpec): Draft {
  const layout = layoutLoop({ ...spec, pitchUm: pitchUmOf(spec) })
  const hands = layout.cutters.map(({ hand }) => hand)
  const { used } = entry
  const known = used === undefined ? 'new' : 'estimated'
  return {
    loopId: entry.loopId,
    tag: entry.tag,
    spec,
    registeredAt: entry.happenedAt,
    retired: null,
    place: { at: 'bench' },
    stints: [],
    overtaken: null,
    fitting: null,
    shopCostMinor: 0,
    cutters: layout.cutters.map((cutter) => cutterAtFirst(cutter, known)),
    lengths: lengthsAtFirst(hands, spec, entry),
    ...handsOf(entry.knownBite),
    settings: newSettings(hands, spec.settingUm, used !== undefined),
    held: new Map(),
    parts: [],
    openStrikes: [],
    waitingSide: null,
    begun: null,
    explained: [],
    woodStep: null,
    mayBeShorter: new Map(),
    onOneReading: new Set(),
    round: null,
    ...nothingCounted(),
    lastSharpened: null,
    ...nothingTold(),
    lastMeasuredAt: null,
    lastInspectedAt: null,
    removals: [],
    timed: [],
    spent: [],
    life: [{ at: entry.happenedAt, sharpenings: 0, shortestUm: startsWith(spec, used), known }],
    doubts: [],
    questions: [],
    sharpenedLast: null,
    duty: 'clean',
    decision: null,
    spells: [],
    slope: slopeAtFirst(spec),
    entriesCounted: 1,
    lastEntryAt: entry.happenedAt,
    span: newSpan({ left: null, right: null }),
    readBy: new Map(),
    readTogether: new Map(),
    plateUm: null,
    spellOver: false,
  }
}

/** The shortest cutter as it is worked out. */
function shortestOf(draft: Draft): { readonly um: number; readonly known: Known } {
  let shortest = 0
  let leastUm = Infinity
  for (let i = 0; i < draft.cutters.length; i += 1) {
    const um = meanOf(draft.lengths.tied, i)
    if (um < leastUm) [shortest, leastUm] = [i, um]
  }
  return { um: leastUm, known: draft.cutters[shortest]?.lengthKnown ?? 'new' }
}

/**
 * Notes the shortest cutter as a point of the loop's life.
 *
 * @returns its length as it is worked out: below nothing where more came off than there was
 */
export function noteLifePoint(draft: Draft, at: Instant): number {
  const { um, known } = shortestOf(draft)
  draft.life.push({ at, sharpenings: draft.sharpenings, shortestUm: Math.max(0, Math.round(um)), known })
  return um
}

/** Length of the shortest cutter as far as it is known: nothing has changed it since it was noted. */
export const shortestUmOf = ({ life }: Draft): Um => life.at(-1)?.shortestUm ?? 0

const estimateOf = ({ mean, variance }: Normal, known: Known): Estimate => ({
  um: Math.round(mean) + 0, // never −0
  known,
  sdUm: Math.max(1, Math.round(Math.sqrt(variance))),
})

/** The state as everybody else may see it. */
export function closeDraft(draft: Draft): LoopState {
  const {
    span: _span,
    hands: _hands,
    fitting: _fitting,
    held,
    cutters,
    readBy: _readBy,
    readTogether: _readTogether,
    plateUm: _plate,
    mayBeShorter: _mayBeShorter,
    onOneReading: _onOneReading,
    round: _round,
    sharpenedLast: _sharpenedLast,
    untaughtTanks: _untaught,
    spellTanks: _spellTanks,
    stints,
    ...state
  } = draft
  const usable = usableLengthUm(draft.spec)
  // A little longer than the box has it, a new cutter may be; what common practice has gives way to what is read.
  const longest = draft.spec.newLengthUm * (isEntered(draft.spec, 'newLengthUm') ? 1.05 : OVER_ASSUMED_ALLOWED)
  const lastUm = shortestUmOf(draft)
  return {
    ...state,
    lengths: { ...draft.lengths, tied: keepTied(draft.lengths.tied) },
    settings: { ...draft.settings, tied: keepTied(draft.settings.tied) },
    held: [...held.values()],
    cutters: cutters.map(({ number, hand, positionUm, damage, angleDeg, lengthKnown, settingKnown }, i) => {
      const { mean, variance } = lengthOf(draft.lengths, i)
      return {
        number,
        hand,
        positionUm,
        damage,
        angleDeg,
        length: estimateOf({ mean: Math.min(longest, Math.max(0, mean)), variance }, lengthKnown),
        setting: estimateOf(settingOf(draft.settings, i), settingKnown),
      }
    }),
    sawId: draft.place.at === 'saw' ? draft.place.sawId : null,
    stints: stints.map(({ sawId, from, to, tanks, flipped, shortestUm }, i) => {
      const worn = (shortestUm - (stints[i + 1]?.shortestUm ?? lastUm)) / usable
      return { sawId, from, to, tanks, flipped, worn: Math.round(Math.min(1, Math.max(0, worn)) * 1000) / 1000 }
    }),
  }
}
