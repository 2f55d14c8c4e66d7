import { PART_DAMAGE, type PartDamage, type PartDamageKind } from '@undercliff/core'

/** A place of the chassis that an inspection looks at, with what can be wrong there. */
export interface ChassisPlace {
  readonly name: string
  readonly look: string
  readonly kinds: readonly PartDamageKind[]
}

/** In the order in which a hand goes over them. Common practice. */
export const CHASSIS: readonly ChassisPlace[] = [
  {
    name: 'Tie straps',
    look: 'cuts from the wheel or a nail, cracks at the rivets',
    kinds: ['strapCut', 'strapCracked'],
  },
  { name: 'Drive links', look: 'burrs and bends at the tangs, cracks', kinds: ['driveLinkBent', 'driveLinkCracked'] },
  { name: 'Rivets', look: 'each joint turns freely and none wobbles', kinds: ['rivetLoose', 'rivetSeized'] },
  { name: 'Length', look: 'the tensioner still has way to go', kinds: ['stretched'] },
  { name: 'Angles', look: 'left and right lie alike', kinds: ['anglesDiffer'] },
]

/** What was found at a place: sound, something, or nothing said; then what was known stays. */
export type Looked = 'sound' | PartDamageKind | null

/**
 * The damage of the chassis after a look: of each place that was looked at what was found, of the others what was
 * known.
 *
 * @param near the cutter next to something new; null where nobody says
 */
export function partsAfter(
  known: readonly PartDamage[],
  looked: ReadonlyMap<string, Looked>,
  near: number | null,
): PartDamage[] {
  return CHASSIS.flatMap(({ name, kinds }) => {
    const answer = looked.get(name) ?? null
    const before = known.filter(({ kind }) => kinds.includes(kind))
    if (answer === null) return before
    if (answer === 'sound') return []
    return [before.find(({ kind }) => kind === answer) ?? { kind: answer, nearCutter: near }]
  })
}

/** The choices at a place, sound first. */
export const choicesAt = ({
  kinds,
}: ChassisPlace): readonly { readonly value: 'sound' | PartDamageKind; readonly label: string }[] => [
  { value: 'sound', label: 'sound' },
  ...kinds.map((value) => ({ value, label: PART_DAMAGE[value].name })),
]
