import type { CutterDamage, PartDamage } from '../damage'
import type { WoodStep } from '../geometry'
import type { Hand } from '../loop'
import type { LengthBelief, SettingBelief } from '../belief'
import type {
  Action,
  Cause,
  Conditions,
  Duty,
  Instant,
  Look,
  RetireReason,
  SharpeningTool,
  Shelf,
  Sign,
  StrikeObject,
  Wood,
} from '../log'
import type { NormalBelief } from '../stats'
import type { LoopSpec } from '../profile'
import type { Um } from '../units'
import type { Population, RemovalSample } from './removalSample'

/** How a figure of a cutter is known. */
export type Known =
  /** As the loop came; nobody has measured it since. */
  | 'new'
  | 'measured'
  /** Worked out from measurements and what was taken off since. */
  | 'estimated'

/** A figure, how it is known and how far off it may be. */
export interface Estimate {
  readonly um: Um
  readonly known: Known
  /** Standard deviation of what the true figure may be. */
  readonly sdUm: number
}

export interface CutterState {
  readonly number: number
  readonly hand: Hand
  readonly positionUm: Um
  readonly length: Estimate
  readonly setting: Estimate
  readonly damage: readonly CutterDamage[]
  /** Top plate angle as it was last read or filed, degrees; null where nobody has said. */
  readonly angleDeg: number | null
}

/** The loop's length at one moment of its life, for the life chart. */
export interface LifePoint {
  readonly at: Instant
  /** Sharpenings up to then. */
  readonly sharpenings: number
  /** Shortest cutter. */
  readonly shortestUm: Um
  /** Measured when every cutter that counts for it was. */
  readonly known: Known
}

/** What contradicts what. */
export type DoubtKind =
  /** Read longer than anything before allows. */
  | 'grew'
  /** Read shorter than it was measured, and no sharpening in between. */
  | 'shrank'
  /** Two people measured it, no sharpening in between, and their readings differ. */
  | 'disagree'
  /** Longer after a sharpening than before it. */
  | 'pairGrew'
  /** A setting finer than the plate that the gauges were just filed to. */
  | 'belowPlate'

/** Whether a loop was registered as one that had been used before: nothing but an estimate was known of it. */
export const cameUsed = ({ life }: { readonly life: readonly LifePoint[] }): boolean => life[0]?.known === 'estimated'

/** A contradiction in the log: kept, and shown to be asked about. */
export interface Doubt {
  readonly kind: DoubtKind
  readonly entryId: string
  readonly cutter: number
  /** By how much the two figures differ beyond nothing. */
  readonly byUm: Um
}

export const QUESTION_KINDS = [
  /** Two people wrote a sharpening down within minutes: the same work twice? */
  'sharpenedTwice',
  /** It came back from a shop, and nobody said what was done there. */
  'shopWorkUnsaid',
  /** More came off than cutters had left, by what was known. */
  'moreThanThere',
  /** Gauges were lowered to a setting that no plate has. */
  'plateUnheardOf',
] as const
export type QuestionKind = (typeof QUESTION_KINDS)[number]

/** Something about the log itself that only a person can answer. */
export interface LogQuestion {
  readonly kind: QuestionKind
  /** The entry that raised it. */
  readonly entryId: string
}

/**
 * A length that contradicts what is known so far that one of the two is wrong. It is kept and asked
 * about, and stays out of what is known until a second reading says which it was.
 */
export interface HeldReading {
  readonly cutter: number
  readonly entryId: string
  /** What the cutter would be by it now: as read, less what sharpenings took since. */
  readonly um: Um
  readonly sdUm: number
  /** What the cutter's length is once it is taken after all. */
  readonly known: Known
}

/** How long a sharpening took, and how long it would by the starting times. Minutes. */
export interface TimedWork {
  readonly at: Instant
  readonly personId: string | null
  readonly tool: SharpeningTool
  readonly population: Population
  readonly cutters: number
  readonly minutes: number
  readonly startingMinutes: number
}

/** Things of the crew's kit that a sharpening used up. */
export interface SpentOn {
  readonly at: Instant
  readonly used: readonly string[]
  /** Of all cutters together; null where nobody counted. */
  readonly strokes: number | null
  /** What a stroke took against what is usual, where readings told of it. */
  readonly bite: number | null
}

/** A run of work between two sharpenings. */
export interface SharpSpell {
  readonly tanks: number
  /** Tanks weighted by how hard the work was on this cutter type. */
  readonly wearTanks: number
  /** Whether it ended dull; otherwise it was sharpened, or struck, while it still cut. */
  readonly dulled: boolean
  /** What most of it was. */
  readonly conditions: Conditions
}

/** What a person settled on for a loop as it stands. */
export interface Decision {
  readonly entryId: string
  readonly at: Instant
  readonly personId: string | null
  readonly action: Action
  readonly advised: Action
  /** Why, where it goes against the verdict; null when it goes with it. */
  readonly overruled: string | null
  readonly rulesVersion: number
}

/** A strike that nobody has looked into since. */
export interface OpenStrike {
  readonly at: Instant
  readonly against: StrikeObject
  readonly cutters: readonly number[]
  /** What it has run since all the same. */
  readonly tanksSince: number
  /** Cutters that somebody has looked at since, in however many entries. */
  readonly looked: readonly number[]
}

/** A sharpening that was begun and not ended: one side is sharp, or a part of it, and the other is not. */
export interface BegunSharpening {
  readonly entryId: string
  readonly at: Instant
  readonly personId: string | null
  /** The side that was begun with; the other one waits. */
  readonly side: Hand
}

/** What a shorter reading is put down to. */
export const PUT_DOWN_TO = ['struck', 'shop', 'unlogged', 'round', 'confirmed'] as const
export type PutDownTo = (typeof PUT_DOWN_TO)[number]

/** A reading that nobody would have expected, and was taken since something explains it. */
export interface ExplainedReading {
  readonly cutter: number
  readonly entryId: string
  /** How much shorter it is than was thought; below nothing it is longer. */
  readonly byUm: Um
  readonly to: PutDownTo
}

/** What a look showed: the causes that are there of those that it can show. */
export interface LookDone {
  readonly look: Look
  readonly found: readonly Cause[]
}

/** What a saw told, until somebody says what it was or the work that it called for was done. */
export interface OpenSign {
  readonly entryId: string
  readonly at: Instant
  readonly personId: string | null
  readonly signs: readonly Sign[]
  readonly toward: Hand | null
  readonly wood: Wood | null
  /** Whether it was cut along the grain; null where nobody said so. */
  readonly along: boolean | null
  readonly looks: readonly LookDone[]
}

/** Signs that somebody traced to their cause: what they are learned from. */
export interface TracedSign {
  readonly signs: readonly Sign[]
  readonly toward: Hand | null
  readonly cause: Cause
}

/** The latest sharpening, and what it gave. */
export interface LastSharpening {
  readonly at: Instant
  readonly personId: string | null
  readonly population: Population
  /** Strokes for each cutter of a side; null where nobody counted. */
  readonly strokes: Readonly<Record<Hand, number>> | null
  /** What it took off a cutter on average, by what is known. */
  readonly tookUm: number
}

/** Where a loop is; always exactly one place. */
export type Place =
  | { readonly at: 'saw'; readonly sawId: string }
  | { readonly at: Shelf }
  | { readonly at: 'shop'; readonly shop: string; readonly sentAt: Instant; readonly dueBackAt: Instant | null }
  | { readonly at: 'retired' }

/** A fitting that is set aside: the later word stands, and which of the two is right only the tag tells. */
export interface OvertakenFitting {
  readonly entryId: string
  readonly sawId: string
  readonly at: Instant
  readonly personId: string | null
  /** Who moved it later without knowing of that. */
  readonly by: string | null
}

/** A time that a loop spent on a saw. */
export interface Stint {
  readonly sawId: string
  readonly from: Instant
  /** Null while it is still on. */
  readonly to: Instant | null
  readonly tanks: number
  /** Whether the bar was flipped when it went on. */
  readonly flipped: boolean
  /** Part of the loop's usable length that went from this fitting to the next. */
  readonly worn: number
}

/** Everything known of a loop at one moment: a pure fold of its log. */
export interface LoopState {
  readonly loopId: string
  readonly tag: string
  readonly spec: LoopSpec
  readonly registeredAt: Instant
  readonly retired: { readonly at: Instant; readonly reason: RetireReason } | null
  readonly place: Place
  /** The saw it is on. */
  readonly sawId: string | null
  readonly stints: readonly Stint[]
  /** Somebody put it on another saw, and whoever moved it later did not know of that; null for nobody. */
  readonly overtaken: OvertakenFitting | null
  /** What shops have taken for it, in whole minor units. */
  readonly shopCostMinor: number
  readonly cutters: readonly CutterState[]
  /** What is known of the lengths of all cutters together; `cutters` says the same one by one. */
  readonly lengths: LengthBelief
  /** Where what comes off it was known from when it came. */
  readonly beganWith: 'crew' | 'commonPractice'
  /** What is known of the settings of all depth gauges together. */
  readonly settings: SettingBelief
  /** Lengths that nobody can make sense of yet. */
  readonly held: readonly HeldReading[]
  readonly parts: readonly PartDamage[]
  readonly openStrikes: readonly OpenStrike[]
  /** A sharpening ended after one side, and this one waits: until it follows the loop would pull. Null for none. */
  readonly waitingSide: Hand | null
  /** A sharpening that was begun and has not ended; null for none. */
  readonly begun: BegunSharpening | null
  /** Readings that were taken although nobody expected them, the last ones, and what they are put down to. */
  readonly explained: readonly ExplainedReading[]
  /** Step of the progressive plate that its gauges were last lowered with; null where nobody said. */
  readonly woodStep: WoodStep | null
  readonly sharpenings: number
  /** How many of them were of each kind. */
  readonly sharpenedBy: Readonly<Record<Population, number>>
  readonly sharpeningsSinceGauges: number
  readonly tanks: number
  /** Those of spells that teach how long an edge is used: no edge lasts as long as the others. */
  readonly taughtTanks: number
  readonly tanksSinceSharpened: number
  /** Tanks since sharpened, each weighted by how hard the work was on this cutter type. */
  readonly wearTanksSinceSharpened: number
  /** Tanks weighted by how hard the work was, over its whole life. */
  readonly wearTanks: number
  readonly lastSharpened: LastSharpening | null
  /** Gauges were last lowered without a plate, and nobody has read one since. */
  readonly gaugesByEye: boolean
  /** What the saw told and nobody has traced yet. */
  readonly signs: readonly OpenSign[]
  /** What was found behind signs and has not been put right. */
  readonly standing: readonly Cause[]
  readonly traced: readonly TracedSign[]
  /** When lengths were last measured; what an eye said of them is no measurement. */
  readonly lastMeasuredAt: Instant | null
  readonly lastInspectedAt: Instant | null
  /** What sharpenings took off, as far as it was measured. */
  readonly removals: readonly RemovalSample[]
  /** Sharpenings of which somebody said how long they took. */
  readonly timed: readonly TimedWork[]
  readonly spent: readonly SpentOn[]
  readonly life: readonly LifePoint[]
  readonly questions: readonly LogQuestion[]
  readonly doubts: readonly Doubt[]
  readonly duty: Duty
  /** Holds until something happens to the loop. */
  readonly decision: Decision | null
  /** Since it was last sharpened it was seen dull, or struck something: that spell is over. */
  readonly spellOver: boolean
  /** How long it stayed sharp, spell by spell. */
  readonly spells: readonly SharpSpell[]
  /** Tangent of the fall of the top plate, learned from settings measured between lowerings. */
  readonly slope: NormalBelief & { readonly own: number }
  readonly entriesCounted: number
  readonly lastEntryAt: Instant
}
