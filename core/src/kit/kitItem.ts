import type { Instant, SharpeningTool } from '../log'
import type { PitchClass } from '../profile'
import type { Um } from '../units'

/** Kinds of things that a crew sharpens and measures with. */
export const KIT_KINDS = ['file', 'stock', 'wheel', 'grinder', 'guide', 'plate', 'caliper', 'vise'] as const
export type KitKind = (typeof KIT_KINDS)[number]

/** Why a thing is there no more. A file or a wheel that is used up teaches how long such a thing lasts. */
export const KIT_GONE = ['usedUp', 'broken', 'lost'] as const
export type KitGone = (typeof KIT_GONE)[number]

/** What a grinder is set to now, as whoever set it last left it. */
export interface GrinderSet {
  readonly angleDeg: number
  readonly downDeg: number
  readonly wheelId?: string
}

/** What each kind of thing says of itself. What is left out nobody has said. */
export interface KitBodies {
  file: { readonly fileUm: Um; readonly openedAt: Instant }
  /** Unopened files of one diameter. */
  stock: { readonly fileUm: Um; readonly left: number; readonly lowAt: number }
  wheel: {
    readonly widthUm: Um
    readonly diameterUm?: Um
    /** Greatest speed marked on it, turns a minute. */
    readonly markedRpm?: number
    readonly rungAt?: Instant
    readonly dressedAt?: Instant
    /** Its grains are closed with steel: it burns until it is dressed. */
    readonly glazed?: boolean
  }
  grinder: {
    readonly tool: Extract<SharpeningTool, 'benchGrinder' | 'smallGrinder' | 'handGrinder'>
    /** Speed of its spindle, turns a minute. */
    readonly spindleRpm?: number
    /** Top plate angles that its clamp has; any where it is left out. */
    readonly anglesDeg?: readonly number[]
    readonly set?: GrinderSet
  }
  guide: {
    readonly tool: Exclude<SharpeningTool, 'benchGrinder' | 'smallGrinder' | 'handGrinder' | 'freehand'>
    /** Chains that it serves; all where it is empty. */
    readonly serves: readonly PitchClass[]
    /** Angle lines that are marked on it, degrees; those that such guides usually have where it is left out. */
    readonly linesDeg?: readonly number[]
  }
  plate: {
    /** One setting for life, or one that grows as the cutter wears. */
    readonly rests: 'constant' | 'progressive'
    /** Setting of each of its steps. */
    readonly stepsUm: readonly Um[]
  }
  caliper: { readonly readsUm: Um; readonly sends: 'nothing' | 'typed' | 'serial' }
  vise: { readonly where: 'bench' | 'stump' }
}

interface KitBase {
  readonly id: string
  readonly name: string
  /** Raised with every change, so that nobody overwrites another's. */
  readonly version: number
  readonly gone?: KitGone
}

/** One thing of one kind. */
export type KitItemOf<K extends KitKind> = KitBase & { readonly kind: K } & KitBodies[K]
/** A thing that a crew sharpens or measures with. */
export type KitItem = { [K in KitKind]: KitItemOf<K> }[KitKind]

/** The things of one kind that are there. */
export const kitOf = <K extends KitKind>(kit: readonly KitItem[], kind: K): Extract<KitItem, { kind: K }>[] =>
  kit.filter((item) => item.kind === kind && item.gone === undefined) as Extract<KitItem, { kind: K }>[]
