import {
  checkCutter,
  DEFAULT_RULES,
  fold,
  oddReading,
  parcelOf,
  planSharpening,
  specFromProfile,
  walkOf,
  type CutterJob,
  type Entry,
  type EntryBodies,
  type EntryKind,
  type LoopState,
  type SharpeningPlan,
  type WalkEvent,
} from '@undercliff/core'
import type { Random } from '@undercliff/demo'
import type { Person, Scenario } from './scenario'
import { TrueLoop } from './truth'

/** How the same hands sharpen the same loop: the same strokes all round and a short form, or step by step. */
export type Way = 'shortForm' | 'stepByStep'

/** What that came to. Lengths in micrometres. */
export interface Outcome {
  /** Mean left less mean right of the true lengths. */
  readonly sideDifferenceUm: number
  /** What came off a cutter on average, in all. */
  readonly takenUm: number
}

const START = Date.UTC(2026, 0, 5, 8)
const HOUR_MS = 3_600_000
/** Strokes of a touch-up where nobody reckons: common practice, two to five. */
const SHORT_FORM_STROKES = 5
/** One cutter in so many is measured on the way; one of the second side always is. */
const READ_EVERY = 6
/** How a file bites that is neither new nor worn, as a part of a new one's. */
const USED_FILE = 0.8
const RULES = { ...DEFAULT_RULES, unevenSchool: 'sameStrokes' } as const

/** A loop's log, and the truth behind it. */
class Bench {
  readonly truth: TrueLoop
  private readonly log: Entry[] = []
  private hours = 0

  constructor(
    scenario: Scenario,
    private readonly person: Person,
    random: Random,
  ) {
    const { pitchClass, gaugeUm, driveLinks, cutterType } = scenario.loop
    const spec = specFromProfile({ pitchClass, gaugeUm, driveLinks, cutterType })
    this.truth = new TrueLoop(scenario, spec, random)
    this.write('registered', { tag: 'P1', spec })
  }

  private write<K extends EntryKind>(kind: K, body: EntryBodies[K]): void {
    this.hours += 1
    const at = new Date(START + this.hours * HOUR_MS).toISOString()
    const base = { id: `entry${this.hours}`, loopId: 'proving', happenedAt: at, writtenAt: at, writtenBy: null }
    this.log.push({ ...base, personId: 'one', kind, ...body } as unknown as Entry)
  }

  state(): LoopState {
    const state = fold(this.log)
    if (state === null) throw new Error('it is registered')
    return state
  }

  /** The same strokes all round, and two taps that say so. */
  byShortForm(): void {
    const strokes = { left: SHORT_FORM_STROKES, right: SHORT_FORM_STROKES }
    this.truth.file(this.person, USED_FILE, { each: strokes })
    this.write('sharpened', { method: 'fileField', gaugesLowered: false, strokes })
  }

  /** As the plan and its walk say, cutter by cutter. */
  byStep(): void {
    const plan = planSharpening(this.state(), RULES, { action: 'touchUp', tool: 'plateGuide', personId: 'one' })
    const events = this.walk(plan)
    const entries = parcelOf(plan, events, {
      loopId: 'proving',
      personId: 'one',
      newId: () => {
        this.hours += 1
        return `entry${this.hours}`
      },
      endedMs: START + (this.hours + 1) * HOUR_MS,
      gaugesTo: null,
      minutes: null,
    })
    for (const entry of entries) this.log.push({ ...entry, writtenAt: entry.happenedAt, writtenBy: null })
    this.hours += 2
  }

  /** Reads a cutter after its strokes; what is asked about is read again. */
  private read(job: CutterJob): number {
    const um = this.truth.read(job.number - 1)
    return oddReading(job, um, true) === null ? um : this.truth.read(job.number - 1)
  }

  private walk(plan: SharpeningPlan): WalkEvent[] {
    const at = new Date(START).toISOString()
    const give = this.truth.fileByCutter(this.person, USED_FILE)
    const events: WalkEvent[] = []
    const checked = checkCutter(plan)?.number
    for (let walk = walkOf(plan, events); walk.step !== null; walk = walkOf(plan, events)) {
      const { step, cutter, place } = walk
      if (cutter === null) {
        events.push({ at, kind: 'done' })
        continue
      }
      // The cutter of the check has had its strokes already.
      const again = step.id === 'secondSide' && cutter.number === checked
      if (!again) give(cutter.number - 1, cutter.count)
      const read = { at, kind: 'read', cutter: cutter.number, um: this.read(cutter) } as const
      if (step.id === 'recheck') events.push(read, { at, kind: 'done', count: cutter.count })
      else if (again) events.push({ at, kind: 'done' })
      else {
        events.push({ at, kind: 'done', count: cutter.count })
        if (place % READ_EVERY === 1) events.push(read)
      }
    }
    return events
  }
}

/** So many touch-ups of one new loop in one pair of hands. */
export function sharpenSome(scenario: Scenario, person: Person, random: Random, way: Way, times: number): Outcome {
  const bench = new Bench(scenario, person, random)
  const mean = (): number =>
    bench.truth.cutters.reduce((sum, { lengthUm }) => sum + lengthUm, 0) / bench.truth.cutters.length
  const before = mean()
  for (let i = 0; i < times; i += 1)
    if (way === 'shortForm') bench.byShortForm()
    else bench.byStep()
  return { sideDifferenceUm: bench.truth.sideDifferenceUm, takenUm: before - mean() }
}
