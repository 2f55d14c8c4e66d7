import {
  FILE_AGES,
  layoutLoop,
  pitchUmOf,
  type CutterDamage,
  type CutterReading,
  type EntryBodies,
  type EntryKind,
  type FileAge,
  type Hand,
  type LoopSpec,
  type NewEntry,
  type SharpenMethod,
  type Shelf,
  type Um,
} from '@undercliff/core'
import type { Random } from './random'

/** A demo person and how much more they take off a side than they mean to. */
export interface DemoPerson {
  readonly id: string
  readonly name: string
  readonly extra: Readonly<Record<Hand, Um>>
  readonly role: 'lead' | 'sawyer'
}

interface TrueCutter {
  readonly number: number
  readonly hand: Hand
  lengthUm: Um
  damage: CutterDamage[]
}

const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS
const MINUTE_MS = 60_000

/** How much each method takes off in truth. */
const TAKES_UM: Record<SharpenMethod, number> = { fileField: 100, fileBench: 200, grinder: 250, shop: 300 }

/** How a file bites while it is fresh, and when it begins to skate. */
const BITE: Record<FileAge, number> = { fresh: 1.15, used: 1, worn: 0.8 }

/** Whether a stretch in gritty bark leaves an edge dull: full chisel nearly always, others mostly after two tanks. */
const dullsInGrit = (cutterType: LoopSpec['cutterType'], tanks: number, round: number): boolean =>
  cutterType === 'fullChisel'
    ? tanks >= 1.5 || round % 2 === 0
    : (tanks >= 2 && round % 4 !== 0) || (tanks >= 1.5 && round % 3 === 0)

/** What is told of a sharpening besides who did it and how. */
interface Sharpening {
  readonly gauges?: boolean
  readonly strokes?: number
  /** Cutters measured before and after. */
  readonly pairs?: number
  readonly cleared?: boolean
  readonly dull?: boolean
  readonly fileAge?: FileAge
  readonly note?: string
}

/**
 * Lives one loop through the season: keeps what is true of its cutters and writes down what the
 * crew would have.
 */
export class Diary {
  readonly entries: NewEntry[] = []
  readonly loopId: string
  readonly cutters: TrueCutter[]
  private atMs: number
  private step = MINUTE_MS

  constructor(
    readonly random: Random,
    readonly tag: string,
    readonly spec: LoopSpec,
    private readonly lastMs: number,
    firstDay: number,
    /** What was gone from it already when the crew began to keep its log. */
    foundWornUm: Um = 0,
    /** The saw that it cuts on through the season. */
    private readonly homeSawId: string | null = null,
  ) {
    this.loopId = random.id()
    this.atMs = lastMs - firstDay * DAY_MS
    this.cutters = layoutLoop({ ...spec, pitchUm: pitchUmOf(spec) }).cutters.map(({ number, hand }) => ({
      number,
      hand,
      lengthUm: Math.round(random.normal(spec.newLengthUm - 40 - foundWornUm, 25)),
      damage: [],
    }))
    this.write('registered', null, { tag, spec })
  }

  /** Days from now until the moment that the diary has come to. */
  get daysAgo(): number {
    return (this.lastMs - this.atMs) / DAY_MS
  }

  /** Moves on by some days, a little uneven, never past the end of the season. */
  pass(days: number): this {
    const wanted = this.atMs + days * DAY_MS * this.random.between(0.8, 1.2)
    this.atMs = Math.round(Math.min(wanted, this.lastMs - HOUR_MS))
    return this
  }

  private write<K extends EntryKind>(kind: K, person: DemoPerson | null, body: EntryBodies[K], note?: string): void {
    this.atMs += this.step
    const happenedAt = new Date(Math.min(this.atMs, this.lastMs)).toISOString()
    this.entries.push({
      id: this.random.id(),
      loopId: this.loopId,
      happenedAt,
      personId: person?.id ?? null,
      kind,
      ...(note === undefined ? {} : { note }),
      ...body,
    } as NewEntry)
  }

  fit(sawId: string, person: DemoPerson): this {
    this.write('fitted', person, { sawId, barFlipped: true, tensionChecked: true })
    return this
  }

  takeOff(person: DemoPerson): this {
    this.write('takenOff', person, {})
    return this
  }

  /** Lies somewhere at the end of the season. */
  put(to: Shelf, person: DemoPerson): this {
    this.write('moved', person, { to })
    return this
  }

  /** Is away at a shop since the end of the season, due back some days after it. */
  sendOut(shop: string, days: number, person: DemoPerson): this {
    this.write('sentOut', person, { shop, dueBackAt: new Date(this.lastMs + days * DAY_MS).toISOString() })
    return this
  }

  run(person: DemoPerson, tanks: number, conditions: EntryBodies['ran']['conditions'] = 'clean'): this {
    this.write('ran', person, { tanks, conditions })
    return this
  }

  sharpen(person: DemoPerson, method: SharpenMethod, more: Sharpening = {}): this {
    const { gauges = false, pairs = 0, cleared, dull, fileAge, note } = more
    const filed = method === 'fileField' || method === 'fileBench'
    const before = this.fileOff(person, method, filed && fileAge !== undefined ? BITE[fileAge] : 1)
    const paired = this.cutters.slice(0, pairs).map(({ number, lengthUm }) => ({
      cutter: number,
      beforeUm: before[number - 1] ?? lengthUm,
      afterUm: lengthUm,
    }))
    const count = more.strokes ?? (method === 'fileField' ? 4 : 10)
    const byFile = filed
      ? { strokes: { left: count, right: count }, ...(fileAge === undefined ? {} : { fileAge }) }
      : {}
    this.write(
      'sharpened',
      person,
      {
        method,
        gaugesLowered: gauges,
        ...byFile,
        ...(paired.length > 0 ? { pairs: paired } : {}),
        ...(cleared === undefined ? {} : { damageCleared: cleared }),
        ...(dull === undefined ? {} : { wasDull: dull }),
      },
      note,
    )
    return this
  }

  /** Takes steel off every cutter, and says how long they were before. */
  private fileOff(person: DemoPerson, method: SharpenMethod, bite: number): Um[] {
    const before = this.cutters.map(({ lengthUm }) => lengthUm)
    for (const cutter of this.cutters) {
      const off = this.random.normal(TAKES_UM[method], TAKES_UM[method] / 8) * bite + person.extra[cutter.hand]
      cutter.lengthUm = Math.max(0, Math.round(cutter.lengthUm - Math.max(20, off)))
    }
    return before
  }

  /** Marks damage on cutters, to be written down at the next measuring or inspection. */
  damage(numbers: readonly number[], kind: CutterDamage['kind'], depthUm: (number: number) => Um | null): this {
    for (const number of numbers) {
      const cutter = this.cutters[number - 1]
      cutter?.damage.push({ kind, depthUm: depthUm(number) })
    }
    return this
  }

  private readings(every: number, settingUm?: Um): CutterReading[] {
    return this.cutters
      .filter(({ number, damage }) => (number - 1) % (every * 2) < 2 || damage.length > 0)
      .map(({ number, lengthUm, damage }) => ({
        cutter: number,
        lengthUm: Math.max(0, Math.round(this.random.normal(lengthUm, 25) / 10) * 10),
        damage,
        ...(settingUm === undefined ? {} : { settingUm: Math.round(this.random.normal(settingUm, 12)) }),
      }))
  }

  /** Walks round with the caliper; `every` 2 reads every second pair. */
  measure(person: DemoPerson, every = 1, settingUm?: Um, note?: string): this {
    this.write('measured', person, { readings: this.readings(every, settingUm) }, note)
    return this
  }

  /** Writes readings down that belong to another loop. */
  measureWrongly(person: DemoPerson, other: Diary, note?: string): this {
    this.write('measured', person, { readings: other.readings(1).slice(0, this.cutters.length) }, note)
    return this
  }

  inspect(person: DemoPerson, parts: EntryBodies['inspected']['parts'] = [], note?: string): this {
    const readings = this.cutters
      .filter(({ damage }) => damage.length > 0)
      .map(({ number, damage }) => ({ cutter: number, damage }))
    this.write('inspected', person, { readings, parts }, note)
    return this
  }

  strike(person: DemoPerson, against: EntryBodies['struck']['against'], cutters: number[] = [], note?: string): this {
    this.write('struck', person, cutters.length > 0 ? { against, cutters } : { against }, note)
    return this
  }

  lowerGauges(person: DemoPerson): this {
    this.write('gaugesLowered', person, {})
    return this
  }

  retire(person: DemoPerson, reason: EntryBodies['retired']['reason'], note?: string): this {
    this.write('retired', person, { reason }, note)
    return this
  }

  /** A day on its saw, written down in one go in the evening: on, run, off. */
  private day(person: DemoPerson, tanks: number, conditions: EntryBodies['ran']['conditions']): void {
    if (this.homeSawId !== null) this.fit(this.homeSawId, person)
    this.step = this.homeSawId === null ? MINUTE_MS : 1
    this.run(person, tanks, conditions)
    if (this.homeSawId !== null) this.takeOff(person)
    this.step = MINUTE_MS
  }

  /**
   * A usual stretch of the season: cut, touch up, now and then the bench, gauges every fourth
   * bench filing, a measuring at the end.
   */
  season(people: readonly [DemoPerson, ...DemoPerson[]], rounds: number, days: number, gauges = true): this {
    for (let round = 1; round <= rounds; round += 1) {
      const person = this.random.pick(people)
      const step = days / rounds
      const tanks = this.random.pick([1, 1.5, 2, 2])
      const conditions = this.random.pick(['clean', 'clean', 'gritty'] as const)
      this.pass(step / 2).day(person, tanks, conditions)
      // Long in gritty bark it comes back dull, full chisel sooner; most are touched up before.
      const dull = conditions === 'gritty' ? dullsInGrit(this.spec.cutterType, tanks, round) : round % 9 === 0
      const fileAge = FILE_AGES[Math.floor(round / 2) % FILE_AGES.length] ?? 'used'
      if (round % 3 === 0) {
        this.pass(step / 2).sharpen(person, 'fileBench', {
          gauges: gauges && round % 12 === 0,
          pairs: round % 6 === 0 ? 4 : 0,
          dull,
          fileAge,
        })
      } else this.pass(step / 2).sharpen(person, 'fileField', { dull, fileAge, pairs: round % 2 === 1 ? 4 : 0 })
    }
    return this
  }
}
