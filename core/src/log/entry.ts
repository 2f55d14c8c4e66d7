import type { CutterDamage, PartDamage } from '../damage'
import type { WoodStep } from '../geometry'
import type { Hand } from '../loop'
import type { Origin, LoopSpec, SpecValues } from '../profile'
import type { Um } from '../units'
import type { Cause, Look, Sign, Wood } from './signs'

/** A UTC instant as `YYYY-MM-DDTHH:mm:ss.sssZ`, so that text order is time order. */
export type Instant = string

/** What every entry says, whatever its kind. An entry is never edited once written. */
export interface EntryBase {
  /** Made on the device that wrote it, so that sending it twice does no harm. */
  readonly id: string
  readonly loopId: string
  /** When it happened in the shed or the wood. */
  readonly happenedAt: Instant
  /** What the device said of when it happened, where the server did not believe its clock. */
  readonly saidAt?: Instant
  /** When the server accepted it. */
  readonly writtenAt: Instant
  /** Who did the work. */
  readonly personId: string | null
  /** Who wrote it down; null for entries from before people signed in. */
  readonly writtenBy: string | null
  readonly note?: string
}

/** What was read at one cutter. What is left out was not looked at. */
export interface CutterReading {
  /** Counted from the start mark, from 1. */
  readonly cutter: number
  readonly lengthUm?: Um
  /** Everything that is wrong with it; empty says somebody looked and it is sound. */
  readonly damage?: readonly CutterDamage[]
  /** Depth-gauge setting: working corner above gauge tip. */
  readonly settingUm?: Um
  /** Top plate angle as it was found, degrees. */
  readonly angleDeg?: number
  /** The length was read again, or said to be right when it was asked about. */
  readonly confirmed?: boolean
}

/**
 * The plate that gauges were filed to. A progressive one is named by its step, never by what is stamped on it: the
 * setting that it leaves follows from the wear.
 */
export interface PlateUsed {
  readonly rests: 'constant' | 'progressive'
  /** Step of a progressive plate; the plain one where it is left out. */
  readonly step?: WoodStep
  /** What is stamped on it: the setting that it leaves on a new cutter. As the loop was new where it is left out. */
  readonly stampedUm?: Um
}

/** A cutter measured just before and just after a sharpening. */
export interface BeforeAfter {
  readonly cutter: number
  readonly beforeUm: Um
  readonly afterUm: Um
}

/** What whoever moves a loop knows of where it was. */
export interface MovedFrom {
  /** The saw that it was on as far as they knew; null where it was on none. Left out, they say nothing of it. */
  readonly from?: string | null
}

export const SHARPEN_METHODS = ['fileField', 'fileBench', 'grinder', 'shop'] as const
export type SharpenMethod = (typeof SHARPEN_METHODS)[number]

/** What a loop is sharpened with. */
export const SHARPENING_TOOLS = [
  'freehand',
  'plateGuide',
  'rollerGuide',
  'twoInOne',
  'jig',
  'benchGrinder',
  'smallGrinder',
  'handGrinder',
  'squareFile',
] as const
export type SharpeningTool = (typeof SHARPENING_TOOLS)[number]

/** How used a file is, as the person who holds it says. */
export const FILE_AGES = ['fresh', 'used', 'worn'] as const
export type FileAge = (typeof FILE_AGES)[number]

export const STRIKE_OBJECTS = ['stone', 'metal', 'soil', 'unknown'] as const
export type StrikeObject = (typeof STRIKE_OBJECTS)[number]

/** How hard on an edge the work was. */
export const CONDITIONS = ['clean', 'gritty', 'soil'] as const
export type Conditions = (typeof CONDITIONS)[number]

/** Which cutters were read: all, some as they came, or those that looked shortest. */
export const CHOSEN = ['all', 'some', 'shortest'] as const
export type Chosen = (typeof CHOSEN)[number]

/** What lengths were read with; a caliper unless somebody says otherwise. */
export const READ_WITH = ['caliper', 'ruler', 'eye'] as const
export type ReadWith = (typeof READ_WITH)[number]

export const RETIRE_REASONS = ['worn', 'damaged', 'lost', 'mistake', 'other'] as const
export type RetireReason = (typeof RETIRE_REASONS)[number]

/** What a loop is kept for. */
export const DUTIES = ['clean', 'dirty'] as const
export type Duty = (typeof DUTIES)[number]

/** What to do with a loop, the gravest first. */
export const ACTIONS = [
  'retire',
  'stop',
  'inspect',
  'measure',
  'shop',
  'regrind',
  'file',
  'lowerGauges',
  'touchUp',
  'dirtyDuty',
  'runOn',
] as const

export type Action = (typeof ACTIONS)[number]

/** Where a loop that is on no saw lies. */
export const SHELVES = ['truck', 'sharpRack', 'dullBox', 'bench'] as const
export type Shelf = (typeof SHELVES)[number]

/** What the file of one person was known to do when a loop came. */
export interface KnownHand {
  readonly personId: string
  /** So many times what the crew's files take, and how far that may be off. */
  readonly factor: number
  readonly factorSd: number
  /** Half of what a stroke of theirs takes on the left beyond the right, micrometres, and how far that may be off. */
  readonly leanUm: number
  readonly leanSdUm: number
}

/** What the crew's files were known to take off when a loop came, by the loops that came before it. */
export interface KnownBite {
  /** What a stroke takes off, as the mean of both sides, micrometres, and how far that may be off. */
  readonly strokeUm: number
  readonly strokeSdUm: number
  /** What more comes off where nobody counts, as a part of what is usual, and how far that may be off. */
  readonly uncounted: number
  readonly uncountedSd: number
  readonly people: readonly KnownHand[]
}

/** What is said of a loop that comes used. */
export interface UsedBefore {
  /** What its cutters have on average, judged by eye, as a reading would say it. Missing where nobody looked. */
  readonly aboutUm?: Um
  /** Half the width of what was said, where a range was or a part. */
  readonly withinUm?: Um
}

/** What each kind of entry carries beyond {@link EntryBase}. A new kind is a new line here. */
export interface EntryBodies {
  /** The loop becomes known. Always the first entry that counts. */
  registered: {
    readonly tag: string
    readonly spec: LoopSpec
    /** Common practice where it is left out. */
    readonly knownBite?: KnownBite
    /** It was used before it came; new where it is left out. */
    readonly used?: UsedBefore
  }
  /** A correction or completion of the spec; it holds for the loop's whole life. */
  specChanged: { readonly changes: Partial<SpecValues>; readonly origin: Origin }
  /** Another tag; entries before it keep theirs. */
  retagged: { readonly tag: string }
  fitted: MovedFrom & {
    readonly sawId: string
    readonly barFlipped?: boolean
    readonly tensionChecked?: boolean
    /** Why it went on although it does not fit in every part. */
    readonly overruled?: string
  }
  /** It came off; onto the bench unless told otherwise. */
  takenOff: MovedFrom & { readonly to?: Shelf }
  moved: MovedFrom & { readonly to: Shelf }
  sentOut: MovedFrom & { readonly shop: string; readonly dueBackAt?: Instant }
  cameBack: {
    readonly to: Shelf
    /** What the shop took, in whole minor units of the crew's money. */
    readonly costMinor?: number
  }
  ran: { readonly tanks: number; readonly conditions: Conditions }
  struck: {
    readonly against: StrikeObject
    readonly cutters?: readonly number[]
    /** The deepest place, where somebody looked: the rest of the run is worked out from it. */
    readonly deepest?: { readonly cutter: number; readonly depthUm: Um }
  }
  measured: {
    readonly readings: readonly CutterReading[]
    /** Why these cutters were read. Those that looked shortest say little of the others. */
    readonly chosen?: Chosen
    /** What the lengths were read with: it says how far to trust them. Judged by eye, they stay estimates. */
    readonly readWith?: ReadWith
  }
  sharpened: {
    readonly method: SharpenMethod
    /** Strokes given to each cutter of a side, where a file was used and somebody counted. */
    readonly strokes?: { readonly left: number; readonly right: number }
    readonly gaugesLowered: boolean
    /** They were lowered without a plate. */
    readonly gaugesByEye?: boolean
    /** Setting left by the gauge plate, where gauges were lowered and it was read. */
    readonly settingUm?: Um
    /** The plate that they were lowered to, where the setting was not read. */
    readonly plate?: PlateUsed
    /** Whether everything that was known to be damaged is clean now. */
    readonly damageCleared?: boolean
    /** Whether a file brought every cutter down to the shortest, rather than giving all the same strokes. */
    readonly evened?: boolean
    /** Whether the stop was checked after the clamp was turned, so that both sides come out alike. */
    readonly stopChecked?: boolean
    readonly pairs?: readonly BeforeAfter[]
    /** Whether it was dull when it was sharpened, or still cut. */
    readonly wasDull?: boolean
    /** How the file was that did it. */
    readonly fileAge?: FileAge
    /** What a stroke of that file was known to take off against a usual one: its age says nothing beside that. */
    readonly fileBite?: number
    /** The side that was done, where it ended before the other one was. */
    readonly onlySide?: Hand
    readonly tool?: SharpeningTool
    /** Things of the crew's that were used up by it: the file, the wheel. */
    readonly used?: readonly string[]
    /** From the first step to the last, without what lay between them. */
    readonly minutes?: number
    /** Where a stop ended every cutter. */
    readonly stopUm?: Um
    /** Whether that was read on a cutter; else it is where the stop was meant to be. */
    readonly stopRead?: boolean
    /** Whether readings on the way set the counts of the sides: they say the same of the hand, and not twice. */
    readonly countsRead?: boolean
    /** Top plate angle that it was sharpened at, degrees, where somebody read it off the tool. */
    readonly angleDeg?: number
    /** Cutters that got other than their side did. */
    readonly apart?: readonly { readonly cutter: number; readonly strokes: number }[]
  }
  gaugesLowered: { readonly settingUm?: Um; readonly plate?: PlateUsed; readonly gaugesByEye?: boolean }
  /** The first cutter of a sharpening was done: until both sides are, one side is sharp and the other is not. */
  begun: { readonly side: Hand; readonly tool?: SharpeningTool }
  /** What the saw told while it cut. */
  noticed: {
    readonly signs: readonly Sign[]
    /** The side that it pulls to. */
    readonly toward?: Hand
    /** What it cut, and whether along the grain, where somebody said so. */
    readonly wood?: Wood
    readonly along?: boolean
  }
  /** Somebody looked for what is behind it; nothing found says that none of what this look shows is there. */
  looked: { readonly into: string; readonly look: Look; readonly found: readonly Cause[] }
  /** What it was; null where nobody found anything. */
  traced: { readonly into: string; readonly cause: Cause | null }
  inspected: {
    readonly readings: readonly CutterReading[]
    /** Straps, drive links, rivets; replaces what was known of them. */
    readonly parts: readonly PartDamage[]
  }
  retired: { readonly reason: RetireReason }
  /** Clean work, or kept for stumps and soil-covered wood. */
  dutyChanged: { readonly duty: Duty }
  /** What a person settled on, against or with the verdict they saw. */
  decided: {
    readonly action: Action
    /** The verdict that was on screen. */
    readonly advised: Action
    /** House rules that it was made under. */
    readonly rulesVersion: number
    /** Why, where it goes against the verdict. */
    readonly overruled?: string
  }
  /** Strikes out an earlier entry of the same loop. */
  corrected: { readonly strikes: string; readonly reason?: string }
}

export type EntryKind = keyof EntryBodies

/** Every kind there is: one that is not named here does not compile. */
const EVERY_KIND: Readonly<Record<EntryKind, true>> = {
  registered: true,
  specChanged: true,
  retagged: true,
  fitted: true,
  takenOff: true,
  moved: true,
  sentOut: true,
  cameBack: true,
  ran: true,
  struck: true,
  measured: true,
  sharpened: true,
  gaugesLowered: true,
  begun: true,
  noticed: true,
  looked: true,
  traced: true,
  inspected: true,
  retired: true,
  dutyChanged: true,
  decided: true,
  corrected: true,
}

export const ENTRY_KINDS = Object.keys(EVERY_KIND) as readonly EntryKind[]

/** One entry of one kind. */
export type EntryOf<K extends EntryKind> = EntryBase & { readonly kind: K } & EntryBodies[K]

/** Any entry in a loop's log. */
export type Entry = { [K in EntryKind]: EntryOf<K> }[EntryKind]

type WithoutWritten<T> = T extends Entry ? Omit<T, 'writtenAt' | 'writtenBy' | 'saidAt'> : never

/** An entry as a device sends it, before the server says when it was written and by whom. */
export type NewEntry = WithoutWritten<Entry>
