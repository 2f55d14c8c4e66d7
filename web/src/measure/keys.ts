import { CUTTER_DAMAGE, type CutterDamageKind } from '@undercliff/core'

/** A single key for each kind of damage that a person sees on a cutter. */
export const DAMAGE_KEYS: readonly { readonly key: string; readonly kind: CutterDamageKind; readonly name: string }[] = (
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
  ] as const
).map(([key, kind]) => ({ key, kind, name: CUTTER_DAMAGE[kind].name }))

/** The other keys of the walk. They count while the field is empty. */
export const WALK_KEYS: readonly (readonly [string, string])[] = [
  ['number, Enter', 'length of this cutter, and on to the next'],
  ['s', 'skip this cutter'],
  ['b', 'back to the one before'],
  ['o', 'over to the other side'],
  ['g', 'gauge setting of this cutter'],
  ['w', 'wipe its damage'],
  ['u', 'undo the last step'],
  ['e', 'end here and save'],
]
