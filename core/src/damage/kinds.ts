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

export type DamageKind = CutterDamageKind | PartDamageKind

/** What a kind of damage means for the loop. */
export type DamageEffect =
  /** Gone with any sharpening. */
  | 'dullness'
  /** The edge has to be taken back behind it; how far matters. */
  | 'depth'
  /** Shape to be put right at the bench; no length of its own. */
  | 'shape'
  /** Ends the loop at once, whatever else is true. */
  | 'ends'
  /** Not fit for use as it is; only a trained person can say whether it can be put right. */
  | 'unfit'
  /** To be put right, or watched, before the loop runs; does not end it by itself. */
  | 'attention'

export interface DamageFacts<K extends DamageKind = DamageKind> {
  readonly kind: K
  /** What it is called, in the middle of a sentence. */
  readonly name: string
  readonly effect: DamageEffect
  /** Whether a hand file still bites on it. Steel hardened by heat skates a file. */
  readonly fileBites: boolean
}

const facts = <K extends DamageKind>(
  kind: K,
  name: string,
  effect: DamageEffect,
  fileBites = true,
): DamageFacts<K> => ({ kind, name, effect, fileBites })

/** What each kind of cutter damage means. Common practice. */
export const CUTTER_DAMAGE: Readonly<{ [K in CutterDamageKind]: DamageFacts<K> }> = {
  rounded: facts('rounded', 'rounded edge', 'dullness'),
  dirtDulled: facts('dirtDulled', 'dulled by dirt', 'dullness'),
  chipped: facts('chipped', 'chipped corner', 'depth'),
  folded: facts('folded', 'folded or dented top plate', 'depth'),
  cornerGone: facts('cornerGone', 'corner gone', 'depth'),
  stone: facts('stone', 'stone strike', 'depth'),
  metal: facts('metal', 'metal strike', 'depth'),
  blued: facts('blued', 'blued steel', 'depth', false),
  cracked: facts('cracked', 'cracked cutter', 'ends'),
  missing: facts('missing', 'broken or missing cutter', 'unfit'),
  hook: facts('hook', 'hook', 'shape'),
  backSlope: facts('backSlope', 'back slope', 'shape'),
  wrongAngle: facts('wrongAngle', 'wrong angle', 'shape'),
  gulletRidge: facts('gulletRidge', 'gullet ridge', 'shape'),
  gaugeFlat: facts('gaugeFlat', 'flat-fronted depth gauge', 'shape'),
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
}

export const CUTTER_DAMAGE_KINDS = Object.keys(CUTTER_DAMAGE) as CutterDamageKind[]
export const PART_DAMAGE_KINDS = Object.keys(PART_DAMAGE) as PartDamageKind[]
