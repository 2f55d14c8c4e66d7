import {
  DEFAULT_RULES,
  decide,
  fold,
  knownBite,
  specFromProfile,
  type Action,
  type Chosen,
  type CutterReading,
  type Entry,
  type EntryBodies,
  type EntryKind,
  type HouseRules,
  type LoopSpec,
  type LoopState,
  type Option,
  type RemovalSample,
  type Verdict,
} from '@undercliff/core'
import type { Random } from '@undercliff/demo'
import { happens, normal } from './chance'
import type { Person, Scenario } from './scenario'
import { TrueLoop, type Strokes } from './truth'

const START = Date.UTC(2026, 0, 5, 8)
const HOUR_MS = 3_600_000
/** Minutes that work takes: a cutter read, looked at, its gauge lowered; a stroke; setting up. Common practice. */
const MINUTES = {
  read: 5 / 60,
  look: 2 / 60,
  gauge: 7 / 60,
  stroke: 1.2 / 60,
  move: 2.5 / 60,
  bench: 5.5,
  field: 1,
} as const
const GRIND_MINUTES = { touch: 8 / 60, touchUm: 400, setUp: 6.5 } as const
const SHOP_MINUTES = 10
const NEW_LOOP_MINUTES = 3.5
const HOURS_A_TANK = 0.75

/** What a loop's life came to. Money in minor units, lengths in micrometres. */
export interface Tally {
  minor: number
  minutes: number
  sharpHours: number
  tanks: number
  /** Length that was left above the mark when a loop was given up, and how many were. */
  wastedUm: number
  retired: number
  /** Tanks cut past the mark, with gauges far too low or after a strike that nobody looked into. */
  unsafe: number
  /** Tanks cut more than 0.3 mm past a limit under a verdict that said *fit*. */
  unsafeThoughFit: number
  sharpenings: number
}

const nothing = (): Tally => ({
  minor: 0,
  minutes: 0,
  sharpHours: 0,
  tanks: 0,
  wastedUm: 0,
  retired: 0,
  unsafe: 0,
  unsafeThoughFit: 0,
  sharpenings: 0,
})

/** One crew of the kind that a scenario tells of: no two file alike, or buy loops that are new alike. */
export function oneCrew(scenario: Scenario, random: Random): Scenario {
  const { people, loop, crews } = scenario
  const bite = Math.exp(normal(random, 0, crews.bite))
  const lean = normal(random, 0, crews.side)
  const newLengthUm = loop.newLengthUm + normal(random, 0, crews.newLengthUm)
  return {
    ...scenario,
    people: people.map((one) => ({ ...one, biteUm: one.biteUm * bite, rightMore: one.rightMore + lean })),
    loop: { ...loop, newLengthUm },
  }
}

/** A crew with one place on one saw: a loop, and when that is done with, the next. */
export class Crew {
  readonly tally = nothing()
  readonly rules: HouseRules
  truth: TrueLoop
  log: Entry[] = []
  private readonly spec: LoopSpec
  /** What the loops before the one at hand have shown. */
  private readonly removals: RemovalSample[] = []
  private hours = 0
  private said: { readonly entries: number; readonly verdict: Verdict } | null = null
  private fileStrokes = 0
  person: Person

  constructor(
    readonly scenario: Scenario,
    readonly random: Random,
  ) {
    const { pitchClass, gaugeUm, driveLinks, cutterType, boxRead, newLengthUm } = scenario.loop
    const spec = specFromProfile({ pitchClass, gaugeUm, driveLinks, cutterType })
    this.spec = boxRead ? { ...spec, newLengthUm, origins: { newLengthUm: 'box' } } : spec
    this.rules = {
      ...DEFAULT_RULES,
      grinderOwned: scenario.grinderOwned,
      shopUsed: scenario.shopUsed,
      dirtyDuty: false,
      ...(scenario.habits?.twoInOne === true ? { guide: 'twoInOne' as const } : {}),
      when: 'onSigns',
    }
    this.truth = this.newLoop()
    this.person = this.whoever()
  }

  private whoever(): Person {
    return this.scenario.people[this.random.whole(0, this.scenario.people.length - 1)] ?? this.person
  }

  private newLoop(): TrueLoop {
    if (this.log.length > 0) this.removals.push(...this.state().removals)
    this.log = []
    this.said = null
    const known = knownBite(this.removals)
    this.write('registered', { tag: 'P1', spec: this.spec, ...(known === undefined ? {} : { knownBite: known }) })
    return new TrueLoop(this.scenario, this.spec, this.random)
  }

  write<K extends EntryKind>(kind: K, body: EntryBodies[K]): void {
    this.hours += 1
    const at = new Date(START + this.hours * HOUR_MS).toISOString()
    this.log.push({
      id: `entry${String(this.hours).padStart(6, '0')}`,
      loopId: 'proving',
      happenedAt: at,
      writtenAt: at,
      personId: String(this.scenario.people.indexOf(this.person)),
      writtenBy: null,
      kind,
      ...body,
    } as unknown as Entry)
  }

  state(): LoopState {
    const state = fold(this.log)
    if (state === null) throw new Error('a loop of a crew is registered')
    return state
  }

  verdict(): Verdict {
    if (this.said?.entries !== this.log.length)
      this.said = { entries: this.log.length, verdict: decide(this.state(), this.rules) }
    return this.said.verdict
  }

  spend(minutes: number, minor = 0): void {
    this.tally.minutes += minutes
    this.tally.minor += minor + (minutes / 60) * this.rules.labourPerHourMinor
  }

  /** Cuts for a tank. */
  work(fit: boolean): void {
    const { scenario, truth, tally, random } = this
    const gritty = happens(random, scenario.dulling.gritty)
    tally.sharpHours += truth.run(gritty ? 2 : 1) * HOURS_A_TANK
    tally.tanks += 1
    if (this.isUnsafe(0, 0)) tally.unsafe += 1
    if (fit && this.isUnsafe(300, 300)) tally.unsafeThoughFit += 1
    this.write('ran', { tanks: 1, conditions: gritty ? 'gritty' : 'clean' })
    if (happens(random, scenario.strikes.aTank)) {
      truth.strike()
      this.write('struck', { against: 'stone' })
    }
  }

  private isUnsafe(pastUm: number, lowUm: number): boolean {
    const tooLow = this.spec.settingUm + this.rules.gaugeLowUm + 100 + lowUm
    return (
      this.truth.worstUm < this.spec.markLengthUm - pastUm ||
      this.truth.cutters.some(({ settingUm }) => settingUm > tooLow) ||
      (pastUm === 0 && this.truth.struckUnseen)
    )
  }

  /** Somebody at the saw feels that it is dull, mostly. */
  feelsDull(): boolean {
    return this.truth.dull && happens(this.random, 0.9)
  }

  saysDull(): void {
    this.write('measured', { readings: [{ cutter: 1, damage: [{ kind: 'rounded', depthUm: null }] }] })
  }

  /** What was struck is read the day after, round the whole loop, before anything else: some crews do. */
  readsStrike(): void {
    if (this.scenario.habits?.readsStrikes !== true || !this.truth.struckUnseen) return
    this.spend(1 + this.all.length * MINUTES.read)
    this.truth.struckUnseen = false
    const readings = this.all.map((i) => ({ cutter: i + 1, lengthUm: this.truth.read(i), damage: this.seenOn(i) }))
    this.write('measured', { readings, chosen: 'all' })
  }

  /** What somebody sees and measures that is wrong with a cutter. */
  private seenOn(i: number): NonNullable<CutterReading['damage']> {
    const { damageUm = 0 } = this.truth.cutters[i] ?? {}
    return damageUm > 60
      ? [{ kind: 'stone', depthUm: Math.max(50, Math.round(normal(this.random, damageUm, 60))) }]
      : []
  }

  /** Reads lengths. */
  measure(cutters: readonly number[], chosen: Chosen = cutters.length === this.all.length ? 'all' : 'some'): void {
    this.spend(1 + cutters.length * MINUTES.read)
    this.write('measured', { readings: cutters.map((i) => ({ cutter: i + 1, lengthUm: this.truth.read(i) })), chosen })
  }

  /** Looks the loop over and measures what is hurt. */
  inspect(): void {
    const { cutters } = this.truth
    this.spend(1 + cutters.length * MINUTES.look)
    const readings: CutterReading[] = this.all.flatMap((i) => {
      const damage = this.seenOn(i)
      return damage.length === 0 ? [] : [{ cutter: i + 1, damage }]
    })
    this.truth.struckUnseen = false
    this.write('inspected', { readings, parts: [] })
  }

  get all(): number[] {
    return this.truth.cutters.map((_, i) => i)
  }

  private fileBite(): number {
    const { halfAt, renewedAt } = this.scenario.file
    if (this.fileStrokes > renewedAt) this.fileStrokes = 0
    return 1 / (1 + this.fileStrokes / halfAt)
  }

  /** Files, by strokes that are the same for all of a side or down to what each was to come to. */
  file(how: Strokes, where: 'field' | 'bench', gauges: boolean, clears: boolean): void {
    this.person = this.whoever()
    const given = this.truth.file(this.person, this.fileBite(), how)
    this.fileStrokes += given
    this.spend(
      MINUTES[where] + given * MINUTES.stroke + this.truth.cutters.length * MINUTES.move,
      (given / 2000) * this.rules.filePriceMinor,
    )
    this.tally.sharpenings += 1
    const onTheWay = this.scenario.habits?.twoInOne === true
    const counted = 'each' in how && happens(this.random, this.person.counts)
    this.logSharpening({
      method: where === 'field' ? 'fileField' : 'fileBench',
      ...(counted ? { strokes: how.each } : {}),
      ...('each' in how ? {} : { evened: true }),
      ...(clears ? { damageCleared: true } : {}),
      ...(onTheWay ? { tool: 'twoInOne' } : {}),
      gaugesLowered: gauges && !onTheWay,
    })
    // Its own plate takes the gauge down in every stroke, in no time of its own.
    if (onTheWay) this.truth.lowerGauges(this.spec.settingUm, 20)
    else if (gauges) this.gauges()
  }

  grind(by: 'grinder' | 'shop', gauges: boolean): void {
    const { overshootUm = 0, stopRead = 0 } = this.scenario.habits ?? {}
    const ends = this.truth.cutters.map(({ lengthUm, damageUm }) => lengthUm - damageUm)
    const worst = ends.indexOf(Math.min(...ends))
    const deep = this.truth.grind()
    const touches = Math.max(1, Math.ceil(deep / GRIND_MINUTES.touchUm))
    if (by === 'shop') this.spend(SHOP_MINUTES, this.rules.shopFeeMinor)
    else
      this.spend(
        GRIND_MINUTES.setUp + this.truth.cutters.length * GRIND_MINUTES.touch * touches,
        this.rules.wheelPerLoopMinor,
      )
    this.tally.sharpenings += 1
    const stopChecked = by === 'grinder' && this.scenario.wheel.checked
    const read = by === 'grinder' && overshootUm > 0 && happens(this.random, stopRead)
    this.logSharpening({
      method: by,
      damageCleared: true,
      ...(stopChecked ? { stopChecked } : {}),
      ...(read ? { stopUm: this.truth.read(worst), stopRead: true } : {}),
      gaugesLowered: gauges,
    })
    if (gauges) this.gauges()
  }

  private logSharpening(body: EntryBodies['sharpened']): void {
    if (!happens(this.random, this.scenario.forgets)) this.write('sharpened', body)
  }

  private gauges(): void {
    this.spend(2 + this.truth.cutters.length * MINUTES.gauge)
    this.truth.lowerGauges(this.spec.settingUm, 20)
  }

  lowerGauges(): void {
    // With a two-in-one there is no pass of its own: two strokes bring them to where its plate has them.
    if (this.scenario.habits?.twoInOne === true) {
      this.file({ each: { left: 2, right: 2 } }, 'bench', false, false)
      return
    }
    this.gauges()
    if (!happens(this.random, this.scenario.forgets)) this.write('gaugesLowered', {})
  }

  /** The loop goes for good and a new one takes its place. */
  replace(): void {
    const { driveLinks, pitchClass } = this.spec
    this.tally.wastedUm += Math.max(0, this.truth.worstUm - this.spec.markLengthUm)
    this.tally.retired += 1
    this.spend(NEW_LOOP_MINUTES, driveLinks * this.rules.linkPriceMinor[pitchClass])
    this.truth = this.newLoop()
  }

  /** Does what was decided, the way the option was worked out. @returns whether metal came off */
  carryOut(action: Action, option: Option | undefined): boolean {
    const gauges = option?.gauges ?? false
    const jobs: Readonly<Record<Action, () => void>> = {
      touchUp: () => {
        this.file({ each: { left: 5, right: 5 } }, 'field', gauges, false)
      },
      file: () => {
        this.file(this.filingOf(option), 'bench', gauges, true)
      },
      regrind: () => {
        this.grind('grinder', gauges)
      },
      shop: () => {
        this.grind('shop', gauges)
      },
      lowerGauges: () => {
        this.lowerGauges()
      },
      retire: () => {
        this.replace()
      },
      dirtyDuty: () => {
        this.replace()
      },
      inspect: () => {
        this.inspect()
      },
      measure: () => {
        this.measure(this.all)
      },
      // What stops a loop and is not put right by sharpening: it goes.
      stop: () => {
        this.replace()
      },
      runOn: () => undefined,
    }
    jobs[action]()
    return ['touchUp', 'file', 'regrind', 'shop'].includes(action)
  }

  /** Even loops get the same strokes for all; others are brought down to the shortest. */
  private filingOf(option: Option | undefined): Strokes {
    const strokes = option?.strokes
    if (option === undefined || strokes == null) return { each: { left: 10, right: 10 } }
    return strokes.most - strokes.each <= 4
      ? { each: { left: strokes.most, right: strokes.most } }
      : { downTo: option.afterUm }
  }

  /** The price of a new loop by what of its length is gone: so lives that end at different points compare. */
  wornMinor(): number {
    const { newLengthUm, markLengthUm, driveLinks, pitchClass } = this.spec
    const worn = 1 - Math.max(0, this.truth.worstUm - markLengthUm) / (newLengthUm - markLengthUm)
    return Math.min(1, Math.max(0, worn)) * driveLinks * this.rules.linkPriceMinor[pitchClass]
  }
}
