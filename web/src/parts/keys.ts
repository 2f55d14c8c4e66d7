import { CUTTER_DAMAGE, type CutterDamageKind } from '@undercliff/core'

/** A single key for each kind of damage that a person sees on a cutter. */
export const DAMAGE_KEYS: readonly { readonly key: string; readonly kind: CutterDamageKind; readonly name: string }[] =
  (
    [
      ['c', 'chipped'],
      ['n', 'cornerGone'],
      ['t', 'stone'],
      ['m', 'metal'],
      ['f', 'folded'],
      ['l', 'blued'],
      ['r', 'rounded'],
      ['d', 'dirtDulled'],
      ['h', 'hook'],
      ['p', 'backSlope'],
      ['a', 'wrongAngle'],
      ['k', 'cracked'],
      ['x', 'missing'],
      ['i', 'gulletRidge'],
      ['v', 'gaugeFlat'],
    ] as const
  ).map(([key, kind]) => ({ key, kind, name: CUTTER_DAMAGE[kind].name }))

/** How many of them are seen every week; the rest are one tap away where there is little room. Common practice. */
export const COMMONEST_DAMAGE = 5

/** The other keys of the walk. They count while the field is empty. */
export const WALK_KEYS: readonly { readonly key: string; readonly label: string; readonly does: string }[] = [
  { key: 'number, Enter', label: 'length', does: 'length of this cutter, and on to the next' },
  { key: 's', label: 'skip', does: 'skip this cutter' },
  { key: 'b', label: 'back', does: 'back to the one before' },
  { key: 'o', label: 'other side', does: 'over to the other side' },
  { key: 'g', label: 'gauge setting', does: 'gauge setting of this cutter' },
  { key: 'z', label: 'angle', does: 'top plate angle of this cutter, in degrees' },
  { key: 'w', label: 'wipe damage', does: 'this cutter is sound: wipe its damage' },
  { key: 'y', label: 'all like this', does: 'mark the damage of this cutter on every other' },
  { key: 'u', label: 'undo', does: 'undo the last step' },
  { key: 'e', label: 'end and save', does: 'end here and save' },
]
