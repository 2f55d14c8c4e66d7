import { layoutLoop, PITCH_PROFILES, pitchUmOf, type Hand, type LoopSpec } from '@undercliff/core'
import type { Random } from '@undercliff/demo'
import { factor, happens, heavy, normal, weibull } from './chance'
import type { Person, Scenario } from './scenario'

interface TrueCutter {
  readonly hand: Hand
  lengthUm: number
  settingUm: number
  /** How far back damage reaches. */
  damageUm: number
}

/** How far dulling rounds an edge: what has to come off for it to cut again. */
const ROUNDED_UM = 50
/** Fall of the top plate, as a tangent: not what the core begins with. */
const FALL = 0.112

/** How a filing is done: the same strokes for all of a side, or each cutter down to a length. */
export type Strokes = { readonly each: Readonly<Record<Hand, number>> } | { readonly downTo: readonly number[] }

/** How much of what is hurt breaks off, for a crew whose strikes break cutters. */
const BROKEN_OFF = 0.6

/** How a file bites that is neither new nor worn, as a part of a new one's bite. */
const USED_FILE = 0.8

/** A loop as it really is. Nobody in the crew knows it, nor does the core. */
export class TrueLoop {
  readonly cutters: TrueCutter[]
  /** Tanks of clean work until it is dull. */
  private sharpFor: number
  private worked = 0
  struckUnseen = false

  constructor(
    private readonly scenario: Scenario,
    private readonly spec: LoopSpec,
    private readonly random: Random,
  ) {
    const { newLengthUm, newLengthSdUm } = scenario.loop
    const base = normal(random, newLengthUm, newLengthSdUm)
    this.cutters = layoutLoop({ ...spec, pitchUm: pitchUmOf(spec) }).cutters.map(({ hand }) => ({
      hand,
      lengthUm: base + normal(random, 0, 30),
      settingUm: normal(random, PITCH_PROFILES[spec.pitchClass].settingUm.value, 25),
      damageUm: 0,
    }))
    this.sharpFor = this.spell()
  }

  private spell(): number {
    const { tanks, shape } = this.scenario.dulling
    return weibull(this.random, tanks, shape)
  }

  /** Cuts for a tank. @returns part of it for which the loop was sharp */
  run(dirt: number): number {
    const before = this.worked
    this.worked += dirt
    const sharp = Math.min(1, Math.max(0, (this.sharpFor - before) / dirt))
    const bites = this.cutters.reduce(
      (sum, { damageUm, settingUm }) => sum + (damageUm > 0 ? 0 : this.biteAt(settingUm)),
      0,
    )
    return (sharp * bites) / this.cutters.length
  }

  /** A gauge that stands high lets a cutter bite less: half of it at a third of the setting. */
  private biteAt(settingUm: number): number {
    const { settingUm: newUm } = this.spec
    return Math.min(1, Math.max(0.2, 1 - 0.75 * Math.max(0, (newUm - 80 - settingUm) / newUm)))
  }

  get dull(): boolean {
    return this.worked >= this.sharpFor
  }

  get worstUm(): number {
    return Math.min(...this.cutters.map(({ lengthUm }) => lengthUm))
  }

  get sideDifferenceUm(): number {
    const mean = (hand: Hand): number => {
      const side = this.cutters.filter((cutter) => cutter.hand === hand)
      return side.reduce((sum, { lengthUm }) => sum + lengthUm, 0) / side.length
    }
    return mean('left') - mean('right')
  }

  /** A stone or a nail: a run of cutters is hurt, deepest in the middle. */
  strike(): void {
    const { depthUm, run } = this.scenario.strikes
    const first = this.random.whole(0, this.cutters.length - 1)
    const count = this.random.whole(1, run)
    const deepest = depthUm * -Math.log(1 - this.random.next())
    for (let i = 0; i < count; i += 1) {
      const cutter = this.cutters[(first + i) % this.cutters.length]
      const off = Math.abs(i - (count - 1) / 2) / Math.max(1, count / 2)
      if (cutter === undefined) continue
      cutter.damageUm = Math.max(cutter.damageUm, deepest * (1 - off * this.random.between(0.3, 0.9)))
      if (this.scenario.habits?.readsStrikes === true) {
        const broken = cutter.damageUm * BROKEN_OFF
        cutter.lengthUm -= broken
        cutter.damageUm -= broken
      }
    }
    this.struckUnseen = true
  }

  private takeOff(cutter: TrueCutter, um: number): void {
    const off = Math.max(0, um)
    cutter.lengthUm -= off
    cutter.settingUm -= off * FALL
    cutter.damageUm = Math.max(0, cutter.damageUm - off)
  }

  private sharpen(): void {
    this.worked = 0
    this.sharpFor = this.spell()
  }

  /** What a stroke takes off a cutter today: this hand, this file, the day's shift of both sides and of each. */
  private strokesToday({ biteUm, rightMore, tires }: Person, fileBite: number): (cutter: number) => number {
    const day = factor(this.random, 0.13)
    const sides = {
      left: factor(this.random, 0.07),
      right: (1 + rightMore) * factor(this.random, 0.07),
    }
    return (i) => {
      const tired = 1 - (tires * i) / this.cutters.length
      return biteUm * fileBite * day * sides[this.cutters[i]?.hand ?? 'left'] * tired
    }
  }

  /**
   * Somebody files it cutter by cutter.
   *
   * @returns what gives a cutter, by its place from 0, so many strokes
   */
  fileByCutter(person: Person, fileBite: number): (cutter: number, strokes: number) => void {
    const strokeOf = this.strokesToday(person, fileBite)
    this.sharpen()
    return (i, strokes) => {
      const cutter = this.cutters[i]
      if (cutter !== undefined && strokes > 0)
        this.takeOff(cutter, strokes * strokeOf(i) * factor(this.random, person.strays))
    }
  }

  /**
   * Somebody files it.
   *
   * @param bite what a stroke takes with the file as it is, before person and side
   * @returns strokes that were given
   */
  file(person: Person, fileBite: number, how: Strokes): number {
    const { biteUm, strays } = person
    const strokeOf = this.strokesToday(person, fileBite)
    let given = 0
    let least = Infinity
    for (const [i, cutter] of this.cutters.entries()) {
      const strokes =
        'each' in how
          ? how.each[cutter.hand]
          : Math.max(2, Math.ceil((cutter.lengthUm - (how.downTo[i] ?? 0)) / (biteUm * fileBite)))
      // Down to a length goes by the caliper: what a stroke takes matters less.
      const aimed =
        'each' in how
          ? strokes * strokeOf(i)
          : Math.max(0, cutter.lengthUm - (how.downTo[i] ?? 0)) + normal(this.random, 0, 45)
      const off = strokes <= 0 ? 0 : aimed * factor(this.random, strays)
      this.takeOff(cutter, off)
      given += strokes
      if (strokes > 0 && off < least) least = off
    }
    if (least >= ROUNDED_UM * 0.6) this.sharpen()
    return given
  }

  /** It is ground to a stop on its worst cutter; the second side is done after the clamp was turned. */
  grind(): number {
    const { depthUm, depthSdUm, turnUm, turnSdUm } = this.scenario.wheel
    const { overshootUm = 0 } = this.scenario.habits ?? {}
    const usual = Math.max(60, heavy(this.random, depthUm, depthSdUm))
    const beyond = overshootUm === 0 ? 0 : Math.abs(normal(this.random, 0, overshootUm))
    const wanted = this.cutters.map(
      ({ lengthUm, damageUm }) => lengthUm - Math.max(usual, damageUm > 0 ? damageUm + 80 : 0),
    )
    const stop = Math.min(...wanted) - beyond
    const right = Math.min(0, normal(this.random, turnUm, turnSdUm))
    const left = Math.min(0, -normal(this.random, turnUm, turnSdUm))
    const before = this.worstUm
    for (const cutter of this.cutters) {
      const level = stop + (cutter.hand === 'left' ? left : right) + normal(this.random, 0, 20)
      this.takeOff(cutter, cutter.lengthUm - level)
      cutter.damageUm = 0
    }
    this.sharpen()
    return Math.max(0, before - this.worstUm)
  }

  /** Gauges come down to the plate, as well as a hand does it. */
  lowerGauges(targetUm: number, sdUm: number): void {
    for (const cutter of this.cutters)
      cutter.settingUm = Math.max(cutter.settingUm, normal(this.random, targetUm, sdUm))
  }

  /** What a caliper shows of a cutter: now and then the neighbour, or a slip. */
  read(cutter: number): number {
    const { sdUm, wrongCutter, slips } = this.scenario.reading
    const of = happens(this.random, wrongCutter) ? cutter + 2 : cutter
    const length = this.cutters[of % this.cutters.length]?.lengthUm ?? 0
    const slipped = happens(this.random, slips) ? this.random.pick([-1000, 1000]) : 0
    return Math.max(0, Math.round(normal(this.random, length, sdUm) + slipped))
  }

  /**
   * How many sharpenings it has in it until its worst cutter is down to a length: tried on a copy.
   *
   * @param parts how many of them are of each kind
   */
  sharpeningsLeft(
    floorUm: number,
    people: readonly Person[],
    random: Random,
    parts: { readonly touchUp: number; readonly grind: number },
  ): number {
    const copy = this.copy(random)
    for (let sharpenings = 0; sharpenings < 400; sharpenings += 1) {
      const person = people[random.whole(0, people.length - 1)]
      const [touchUp, grind] = [happens(random, parts.touchUp), happens(random, parts.grind / (1 - parts.touchUp))]
      const strokes = touchUp ? 5 : 10
      if (grind && !touchUp) copy.grind()
      else if (person !== undefined) copy.file(person, USED_FILE, { each: { left: strokes, right: strokes } })
      if (copy.worstUm < floorUm) return sharpenings
    }
    return 400
  }

  private copy(random: Random): TrueLoop {
    const copy = new TrueLoop(this.scenario, this.spec, random)
    for (const [i, cutter] of this.cutters.entries()) copy.cutters[i] = { ...cutter }
    return copy
  }
}
