import type { Entry, EntryBodies, EntryKind, Instant } from '../log'
import { specFromProfile, type LoopSpec } from '../profile'

/** A 3/8" semi-chisel loop of 36 cutters, 8 mm new. */
export const SPEC: LoopSpec = specFromProfile({
  pitchClass: 'threeEighths',
  gaugeUm: 1500,
  driveLinks: 72,
  cutterType: 'semiChisel',
})

const START = Date.UTC(2026, 0, 5, 8)
const HOUR_MS = 3_600_000

/** The instant so many hours into the log. */
export const hour = (hours: number): Instant => new Date(START + hours * HOUR_MS).toISOString()

/** Writes a log one entry after another, an hour apart unless told otherwise. */
export class Log {
  readonly entries: Entry[] = []

  constructor(spec: LoopSpec = SPEC) {
    this.add('registered', { tag: 'T1', spec })
  }

  add<K extends EntryKind>(kind: K, body: EntryBodies[K], base: Partial<Entry> = {}): this {
    const at = hour(this.entries.length)
    this.entries.push({
      id: `entry${String(this.entries.length).padStart(4, '0')}`,
      loopId: 'loop-under-test',
      happenedAt: at,
      writtenAt: at,
      personId: null,
      kind,
      ...body,
      ...base,
    } as unknown as Entry)
    return this
  }

  /** Reads every cutter; the length may depend on its number. */
  measureAll(lengthUm: number | ((cutter: number) => number), count = 36): this {
    const readings = Array.from({ length: count }, (_, i) => ({
      cutter: i + 1,
      lengthUm: typeof lengthUm === 'number' ? lengthUm : lengthUm(i + 1),
      damage: [],
    }))
    return this.add('measured', { readings })
  }

  file(more: Partial<EntryBodies['sharpened']> = {}): this {
    return this.add('sharpened', { method: 'fileBench', gaugesLowered: false, ...more })
  }
}
