import type { Instant } from '../log'
import type { PitchClass } from '../profile'
import type { Um } from '../units'

/** What a saw's bar, its nose and its sprocket take; null where nobody has read it off yet. */
export interface SawFit {
  /** Pitch of the sprocket. */
  readonly pitchClass: PitchClass | null
  /** Groove width of the bar. */
  readonly gaugeUm: Um | null
  readonly driveLinks: number | null
  /** Pitch of the nose sprocket; null for a solid nose, or where nobody has looked. */
  readonly nosePitchClass?: PitchClass | null
  /** What is stamped on the bar, as the crew reads it. */
  readonly barStamp?: string
}

/** Parts of a saw that decide what goes on it, in the order in which one reads them off. */
export const FIT_FIELDS = ['pitchClass', 'gaugeUm', 'driveLinks'] as const
export type FitField = (typeof FIT_FIELDS)[number]

/** What nobody has read off a saw yet. `unreadOf({ ...saw, gaugeUm: null }) // ['gaugeUm']` */
export const unreadOf = (saw: Pick<SawFit, FitField>): FitField[] => FIT_FIELDS.filter((field) => saw[field] === null)

/** What every entry in a saw's log says. */
export interface SawEntryBase {
  readonly id: string
  readonly sawId: string
  readonly happenedAt: Instant
  /** What the device said of when it happened, where the server did not believe its clock. */
  readonly saidAt?: Instant
  readonly writtenAt: Instant
  readonly personId: string | null
  readonly writtenBy: string | null
  readonly note?: string
}

/** Why a saw is not here. */
export const SAW_GONE = ['lent', 'retired'] as const
export type SawGone = (typeof SAW_GONE)[number]

/** What is looked to when a loop goes back on a saw, in its order. */
export const PUT_BACK = ['barTurned', 'groove', 'oilHole', 'direction', 'tension', 'nuts', 'oil', 'ranIn'] as const
export type PutBack = (typeof PUT_BACK)[number]

/** What each kind of entry in a saw's log carries. */
export interface SawEntryBodies {
  /** A bar with a groove, a length and a nose of its own. */
  barFitted: {
    readonly gaugeUm: Um
    readonly driveLinks: number
    readonly nosePitchClass: PitchClass | null
    readonly barStamp?: string
  }
  /** Read off a bar and a sprocket that are the same as before; what is left out stays as it is. */
  fitRead: {
    readonly pitchClass?: PitchClass
    readonly gaugeUm?: Um
    readonly driveLinks?: number
    readonly nosePitchClass?: PitchClass | null
    readonly barStamp?: string
  }
  barFlipped: object
  /** What is left out was not looked at. */
  barChecked: { readonly grooveWidthUm?: Um; readonly grooveDepthUm?: Um; readonly burrs?: boolean }
  /** Rails filed flat and square, burrs off. */
  railsDressed: object
  /** A loop is back on after the bench, and this was looked to. */
  putBack: { readonly done: readonly PutBack[] }
  /** The chain was pulled at the middle of the bar: it stayed as it was, or was tightened again. */
  tensionLooked: { readonly stayed: boolean }
  /** Oil was filled, and seen to come. */
  oilFilled: object
  /** So many tanks came to so many hours of work. */
  hoursSaid: { readonly tanks: number; readonly hours: number }
  sprocketRenewed: { readonly pitchClass: PitchClass }
  /** The crew calls it otherwise from now on; the names before and after, so that it can be struck out. */
  sawRenamed: { readonly from: string; readonly to: string }
  /** It is not here to be worked with: somebody else has it, or it is done with. */
  sawGone: { readonly how: SawGone; readonly to?: string }
  sawBack: object
  sawCorrected: { readonly strikes: string }
}

export type SawEntryKind = keyof SawEntryBodies
/** Every kind there is: one that is not named here does not compile. */
const EVERY_SAW_KIND: Readonly<Record<SawEntryKind, true>> = {
  barFitted: true,
  fitRead: true,
  barFlipped: true,
  barChecked: true,
  railsDressed: true,
  putBack: true,
  tensionLooked: true,
  oilFilled: true,
  hoursSaid: true,
  sprocketRenewed: true,
  sawRenamed: true,
  sawGone: true,
  sawBack: true,
  sawCorrected: true,
}

export const SAW_ENTRY_KINDS = Object.keys(EVERY_SAW_KIND) as readonly SawEntryKind[]

export type SawEntryOf<K extends SawEntryKind> = SawEntryBase & { readonly kind: K } & SawEntryBodies[K]
export type SawEntry = { [K in SawEntryKind]: SawEntryOf<K> }[SawEntryKind]

type WithoutWritten<T> = T extends SawEntry ? Omit<T, 'writtenAt' | 'writtenBy' | 'saidAt'> : never
/** An entry in a saw's log as a device sends it. */
export type NewSawEntry = WithoutWritten<SawEntry>
