import { PITCH_CLASSES, PITCH_PROFILES, specFromProfile, type NewEntry } from '@undercliff/core'

const at = (day: number): string => `2026-01-${String(day).padStart(2, '0')}T09:00:00.000Z`

/** Loops enough for a bench, with a little history each. */
export function entriesFor(loop: number): NewEntry[] {
  const base = { loopId: `bench-loop-${String(loop).padStart(4, '0')}`, personId: null }
  const pitchClass = PITCH_CLASSES[loop % PITCH_CLASSES.length] ?? 'threeEighths'
  const driveLinks = 72 + 2 * (Math.floor(loop / PITCH_CLASSES.length) % 4)
  const spec = specFromProfile({
    pitchClass,
    gaugeUm: PITCH_PROFILES[pitchClass].gaugesUm.value[0] ?? 1300,
    driveLinks,
    cutterType: 'semiChisel',
  })
  return [
    { ...base, id: `${base.loopId}-a`, happenedAt: at(1), kind: 'registered', tag: `N${loop}`, spec },
    {
      ...base,
      id: `${base.loopId}-b`,
      happenedAt: at(2),
      kind: 'measured',
      readings: Array.from({ length: 36 }, (_, i) => ({
        cutter: i + 1,
        lengthUm: spec.newLengthUm - 200 - (loop % 50) * 80,
        damage: [],
      })),
    },
    { ...base, id: `${base.loopId}-c`, happenedAt: at(3), kind: 'ran', tanks: 1 + (loop % 7), conditions: 'gritty' },
  ]
}

/** Saws that take them: one for each pitch and number of links. */
export const benchSaws = (): {
  id: string
  nickname: string
  pitchClass: (typeof PITCH_CLASSES)[number]
  gaugeUm: number
  driveLinks: number
}[] =>
  PITCH_CLASSES.flatMap((pitchClass) =>
    [72, 74, 76, 78].map((driveLinks) => ({
      id: `bench-saw-${pitchClass}-${driveLinks}`,
      nickname: `${pitchClass} ${driveLinks}`,
      pitchClass,
      gaugeUm: PITCH_PROFILES[pitchClass].gaugesUm.value[0] ?? 1300,
      driveLinks,
    })),
  )
