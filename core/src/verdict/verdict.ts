import type { Decision, DoubtKind, Known } from '../state'
import type { DamageKind } from '../damage'
import type { UnevenSchool } from '../house'
import type { Action, Cause } from '../log'
import type { Hand } from '../loop'
import type { MinutesRange } from '../sharpen'
import type { Um } from '../units'
import type { CountRange } from '../wear'

/** The rules a verdict may rest on. */
export type Rule =
  | 'alreadyRetired'
  | 'endsLoop'
  | 'unfitDamage'
  | 'needsAttention'
  /** A sharpening ended after one side: the other one waits. */
  | 'sideWaits'
  /** A sharpening was begun and has not ended: a part of one side is sharp. */
  | 'begunNotEnded'
  | 'atMark'
  | 'noLengthBehindDamage'
  | 'perhapsAtMark'
  | 'longUnmeasured'
  | 'usedUnmeasured'
  | 'gaugesTooLow'
  | 'struckUnseen'
  | 'ranSinceStruck'
  | 'depthUnknown'
  | 'sharpenedTwice'
  | 'shopWorkUnsaid'
  | 'moreThanThere'
  | 'plateUnheardOf'
  | 'sharpeningMissing'
  | 'fileSkates'
  | 'tooDeepToFile'
  | 'damageToClean'
  | 'shapeToPutRight'
  | 'uneven'
  | 'sidesDiffer'
  | 'gaugesHigh'
  | 'gaugeToPutRight'
  | 'dull'
  /** What the saw told makes it likely. */
  | 'signsSay'
  | 'signsOfLowGauges'
  | 'signsToLookInto'
  | 'benchDue'
  | 'touchUpDue'
  | 'nothingDue'
  | 'contradiction'
  | 'tooLittleLeft'
  | 'notNeeded'
  | 'cheapestPerHour'
  | 'cheaperToReplace'
  | 'noWayWithinLimits'
  | 'measureBeforeRetiring'
  | 'keptForDirt'
  | 'dirtyNotAllowed'
  | 'dirtyAlready'
  | 'notFitForAnything'
  | 'tooFewCut'
  | 'noGrinder'
  | 'noShop'
  | 'fileForRoutine'
  | 'wheelAtBench'
  | 'sharpenedAtBench'
  | 'fileMisfits'
  | 'notEnough'

/** A figure with its unit. Lengths are micrometres. */
export interface Quantity {
  readonly unit: 'um' | 'tanks' | 'cutters' | 'strikes' | 'minorPerHour'
  readonly amount: number
}

/** One reason as data: what rule, about what, which figure against which limit. */
export interface Reason {
  readonly rule: Rule
  readonly cutter?: number
  readonly hand?: Hand
  readonly damage?: DamageKind
  readonly doubt?: DoubtKind
  /** What is behind what the saw told. */
  readonly cause?: Cause
  readonly value?: Quantity
  readonly limit?: Quantity
  /** What it would take to put it right. */
  readonly takes?: Quantity
  /** What it was weighed against. */
  readonly against?: Action
  /** Who set the limit: the crew's house rules, the loop's own spec, or the trade. */
  readonly limitFrom?: 'house' | 'spec' | 'trade'
  /** How many cutters it is so of, where it may be of some alone. */
  readonly cutters?: number
  /** Chance that it is so, 0 to 1, where it is not certain. */
  readonly chance?: number
  /** How the value is known. An estimate never reads as a measurement. */
  readonly known?: Known
}

/** A figure that is not known exactly. */
export interface Range {
  readonly low: number
  readonly likely: number
  readonly high: number
}

/** What an option costs, in whole minor units of the crew's money. */
export interface Money {
  readonly labourMinor: number
  /** Files, or wheel and power. */
  readonly consumablesMinor: number
  readonly shopMinor: number
  /** Cutter length spent, at the price of a new loop ÷ its usable length. */
  readonly metalMinor: number
  /** The share of a new loop that its first spell takes. */
  readonly newLoopMinor: number
  /** What sharpening that new loop costs for each of its spells. */
  readonly upkeepMinor: number
  /** Work in that upkeep: a part of it, and of no other sum. */
  readonly upkeepLabourMinor: number
  readonly totalMinor: number
}

/** What an option leaves to be borne. */
export type Risk =
  /** Cutters stay damaged until the next sharpenings have caught up. */
  | 'cuttersLeftDull'
  /** Cutters differ until the loop is next ground. */
  | 'unevenUntilGround'
  /** Deep work under the wheel: heat takes the temper. */
  | 'heat'
  /** It is away for some days. */
  | 'away'
  /** A file strays more the more it takes. */
  | 'strays'

/** How a filing is spread over this sharpening and the next ones. */
export interface InStages {
  /** Sharpenings, with this one, until all cutters are sound and even; null where nobody plans so far. */
  readonly sharpenings: number | null
  /** Hours of sharp running that blunt cutters cost until then. */
  readonly lostHours: number
  /** What those hours come to at this option's price of an hour, in minor units. */
  readonly lostMinor: number
}

/** One thing that could be done, worked out cutter by cutter on the real loop. */
export interface Option {
  readonly action: Action
  readonly feasible: boolean
  /** What speaks against it. */
  readonly reasons: readonly Reason[]
  /** What each cutter is brought to, in order from the start mark. */
  readonly afterUm: readonly Um[]
  /** Most that comes off any cutter. */
  readonly deepestUm: Um
  /** Mean that comes off a cutter. */
  readonly meanUm: Um
  /** What the worst cutter has left then, to the mark. */
  readonly leftUm: Um
  /** Strokes that the cutter with most gets; null where no file is used. */
  readonly strokes: {
    readonly each: number
    readonly most: number
    readonly total: number
    /** For a sound cutter of each side. */
    readonly bySide: Readonly<Record<Hand, number>>
  } | null
  /** How it is done where cutters differ or are hurt; null where no file is used at the bench. */
  readonly way: UnevenSchool | null
  /** What it leaves to the next sharpenings; null where it is done in one go. */
  readonly stages: InStages | null
  /** Shortest to longest afterwards. */
  readonly spreadUm: Um
  /** Mean left less mean right afterwards. */
  readonly sideDifferenceUm: Um
  /** Cutters that are still damaged afterwards. */
  readonly damagedLeft: number
  /** The gauges come down in the same go. */
  readonly gauges: boolean
  /** Mean depth-gauge setting afterwards. */
  readonly settingUm: Um
  /** Sharpenings left; of a filing in stages, with every cutter sound. */
  readonly sharpeningsLeft: CountRange
  readonly minutes: MinutesRange
  readonly money: Money
  /** Hours of sharp running that it gives until the next one. */
  readonly sharpHours: Range
  /** Cost of an hour of sharp running, in minor units; null where it gives none. */
  readonly perHourMinor: Range | null
  readonly risks: readonly Risk[]
  readonly daysAway: number
}

/** What would happen between the least and the most that is not known. */
export interface Bounds {
  readonly least: { readonly depthUm: Um; readonly action: Action; readonly sharpeningsLeft: CountRange }
  readonly most: { readonly depthUm: Um; readonly action: Action; readonly sharpeningsLeft: CountRange }
}

/** What came second, and by how much. */
export interface RunnerUp {
  readonly action: Action
  /** How much dearer an hour of sharp running is, in minor units. */
  readonly byMinor: number
}

/** What to do with a loop, why, how long it takes, and what else could be done. */
export interface Verdict {
  readonly action: Action
  /** To be done in the same go. */
  readonly also: readonly Action[]
  /** False when the loop must not cut as it is. */
  readonly fitForUse: boolean
  /** The deciding one first. */
  readonly reasons: readonly Reason[]
  readonly minutes: MinutesRange
  readonly options: readonly Option[]
  readonly runnerUp: RunnerUp | null
  /** What the loop comes to at the least and the most, while something about it is not known. */
  readonly bounds: Bounds | null
  readonly sharpeningsLeft: CountRange
  /** House rules it was made under. */
  readonly rulesVersion: number
  /** What the model would do; differs from `action` where a lead overruled it. */
  readonly advised: Action
  /** What a person settled on for the loop as it stands; null when nobody has. */
  readonly decision: Decision | null
}
