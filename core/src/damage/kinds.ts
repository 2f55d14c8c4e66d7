import type { Um } from '../units'

/** What can be wrong with one cutter. */
export type CutterDamageKind =
  | 'rounded'
  | 'dirtDulled'
  | 'chipped'
  | 'folded'
  | 'cornerGone'
  | 'stone'
  | 'metal'
  | 'blued'
  | 'cracked'
  | 'missing'
  | 'hook'
  | 'backSlope'
  | 'wrongAngle'
  | 'gulletRidge'
  | 'gaugeHigh'
  | 'gaugeLow'
  | 'gaugeFlat'
  | 'bumperFiled'

/** What can be wrong with the rest of the loop. */
export type PartDamageKind =
  | 'strapCut'
  | 'strapCracked'
  | 'driveLinkBent'
  | 'driveLinkCracked'
  | 'rivetLoose'
  | 'rivetSeized'
  | 'stretched'
  | 'anglesDiffer'

export type DamageKind = CutterDamageKind | PartDamageKind

/** What a kind of damage means for the loop. */
export type DamageEffect =
  /** Gone with any sharpening. */
  | 'dullness'
  /** The edge has to be taken back behind it; how far matters. */
  | 'depth'
  /** Shape to be put right at the bench; no length of its own. */
  | 'shape'
  /** For the plate and the flat file; no length of the cutter goes. */
  | 'gauge'
  /** Ends the loop at once, whatever else is true. */
  | 'ends'
  /** Not fit for use as it is; only a trained person can say whether it can be put right. */
  | 'unfit'
  /** To be put right, or watched, before the loop runs; does not end it by itself. */
  | 'attention'

/** How soon something has to be done about a kind of damage. */
export type DamageUrgency =
  /** Before the loop cuts again. */
  | 'beforeUse'
  /** At the next sharpening, which it brings forward. */
  | 'soon'
  /** With the next sharpening that is due anyway. */
  | 'whenDue'

export interface DamageFacts<K extends DamageKind = DamageKind> {
  readonly kind: K
  /** What it is called, in the middle of a sentence. */
  readonly name: string
  readonly effect: DamageEffect
  /** Whether a hand file still bites on it. Steel hardened by heat skates a file. */
  readonly fileBites: boolean
  /** Least and most that it reaches back while nobody has measured it. Starting values. */
  readonly boundsUm: readonly [Um, Um] | null
  /** Length that a shape takes to be put right. Starting value. */
  readonly takesUm: Um
  readonly urgency: DamageUrgency
}

interface More {
  readonly boundsUm?: readonly [Um, Um]
  readonly takesUm?: Um
  readonly fileBites?: boolean
}

const URGENCY: Readonly<Record<DamageEffect, DamageUrgency>> = {
  ends: 'beforeUse',
  unfit: 'beforeUse',
  attention: 'beforeUse',
  depth: 'soon',
  shape: 'soon',
  gauge: 'whenDue',
  dullness: 'whenDue',
}

const facts = <K extends DamageKind>(kind: K, name: string, effect: DamageEffect, more: More = {}): DamageFacts<K> => ({
  kind,
  name,
  effect,
  fileBites: more.fileBites ?? true,
  boundsUm: more.boundsUm ?? null,
  takesUm: more.takesUm ?? 0,
  urgency: URGENCY[effect],
})

/** What each kind of cutter damage means. Common practice; bounds and lengths are starting values. */
export const CUTTER_DAMAGE: Readonly<{ [K in CutterDamageKind]: DamageFacts<K> }> = {
  rounded: facts('rounded', 'rounded edge', 'dullness'),
  dirtDulled: facts('dirtDulled', 'dulled by dirt', 'dullness'),
  chipped: facts('chipped', 'chipped corner', 'depth', { boundsUm: [100, 1000] }),
  folded: facts('folded', 'folded or dented top plate', 'depth', { boundsUm: [200, 2000] }),
  cornerGone: facts('cornerGone', 'corner gone', 'depth', { boundsUm: [500, 2500] }),
  stone: facts('stone', 'stone strike', 'depth', { boundsUm: [200, 3000] }),
  metal: facts('metal', 'metal strike', 'depth', { boundsUm: [200, 3000] }),
  blued: facts('blued', 'blued steel', 'depth', { boundsUm: [100, 1500], fileBites: false }),
  cracked: facts('cracked', 'cracked cutter', 'ends'),
  missing: facts('missing', 'broken or missing cutter', 'unfit'),
  hook: facts('hook', 'hook', 'shape', { takesUm: 200 }),
  backSlope: facts('backSlope', 'back slope', 'shape', { takesUm: 300 }),
  wrongAngle: facts('wrongAngle', 'wrong angle', 'shape', { takesUm: 400 }),
  gulletRidge: facts('gulletRidge', 'gullet ridge', 'shape'),
  gaugeHigh: facts('gaugeHigh', 'depth gauge that looks high', 'gauge'),
  gaugeLow: facts('gaugeLow', 'depth gauge that looks too low', 'unfit'),
  gaugeFlat: facts('gaugeFlat', 'flat-fronted depth gauge', 'gauge'),
  bumperFiled: facts('bumperFiled', 'bumper filed off', 'unfit'),
}

/** What each kind of damage to straps, drive links and rivets means. Common practice. */
export const PART_DAMAGE: Readonly<{ [K in PartDamageKind]: DamageFacts<K> }> = {
  strapCut: facts('strapCut', 'tie strap cut into', 'attention'),
  strapCracked: facts('strapCracked', 'cracked or broken tie strap', 'ends'),
  driveLinkBent: facts('driveLinkBent', 'burred or bent drive link', 'attention'),
  driveLinkCracked: facts('driveLinkCracked', 'cracked or broken drive link', 'ends'),
  rivetLoose: facts('rivetLoose', 'loose rivet', 'ends'),
  rivetSeized: facts('rivetSeized', 'seized rivet', 'attention'),
  stretched: facts('stretched', 'stretched past the tensioner', 'ends'),
  anglesDiffer: facts('anglesDiffer', 'left and right angles differ', 'shape'),
}

export const CUTTER_DAMAGE_KINDS = Object.keys(CUTTER_DAMAGE) as CutterDamageKind[]
export const PART_DAMAGE_KINDS = Object.keys(PART_DAMAGE) as PartDamageKind[]
