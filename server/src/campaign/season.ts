import type { NewEntry } from '@undercliff/core'
import { SPEC } from '../fixtures/harness'

let made = 0

/** A loop with a season behind it. */
export function season(loopId: string): NewEntry[] {
  const at = (hours: number): string =>
    new Date(Date.parse('2026-01-10T09:00:00.000Z') + hours * 3_600_000).toISOString()
  let hour = 0
  const entry = (body: object): NewEntry => {
    hour += 6
    made += 1
    return {
      id: `waits-${String(made).padStart(8, '0')}`,
      loopId,
      happenedAt: at(hour),
      personId: null,
      ...body,
    } as NewEntry
  }
  const log = [entry({ kind: 'registered', tag: `W${loopId.slice(-5)}`, spec: SPEC })]
  for (let turn = 0; turn < 4; turn += 1) {
    const readings = [1, 2, 9, 18].map((cutter) => ({ cutter, lengthUm: 7600 - turn * 260 - cutter, damage: [] }))
    log.push(entry({ kind: 'ran', tanks: 3, conditions: 'clean' }), entry({ kind: 'measured', readings }))
    log.push(
      entry({ kind: 'sharpened', method: 'fileBench', gaugesLowered: turn === 2, strokes: { left: 4, right: 4 } }),
    )
  }
  return log
}
