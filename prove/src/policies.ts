import { sideBalance, forecast, type Verdict } from '@undercliff/core'
import { happens, normal } from './chance'
import type { Crew } from './crew'
import type { Sides } from './figures'

/** Which cutters are read before each sharpening at the bench. */
export const READING_HABITS = ['all', 'fourASide', 'worstOnly', 'none'] as const
export type ReadingHabit = (typeof READING_HABITS)[number]

/** How a crew settles what to do, tank after tank. */
export interface Policy {
  readonly name: string
  /** Whether what is known is held against the truth now and then. */
  readonly looks?: boolean
  /** Before each tank: whatever has to be done. @returns whether the loop was said to be fit for use */
  readonly before: (crew: Crew, sides: Sides) => boolean
}

/** More than so many jobs before one tank, and the crew gives the loop up. */
const MOST_JOBS = 8

/** What is read before the bench. */
function readAsUsual(crew: Crew, habit: ReadingHabit): void {
  const { random, all } = crew
  const some = (hand: 0 | 1): number[] => {
    const side = all.filter((i) => i % 2 === hand)
    const first = random.whole(0, side.length - 1)
    return [0, 1, 2, 3].map((k) => side[(first + k * Math.floor(side.length / 4)) % side.length] ?? 0)
  }
  if (habit === 'all') crew.measure(all)
  if (habit === 'fourASide') crew.measure([...new Set([...some(0), ...some(1)])].sort((a, b) => a - b))
  if (habit === 'worstOnly') {
    // The one that looks shortest: by eye, to a tenth of a millimetre or so.
    const looks = crew.truth.cutters.map(({ lengthUm }) => normal(random, lengthUm, 100))
    crew.measure([looks.indexOf(Math.min(...looks))], 'shortest')
  }
}

const isBench = ({ action }: Verdict): boolean => action === 'file' || action === 'regrind' || action === 'shop'

/** Follows what Undercliff says. */
export const followsVerdict = (habit: ReadingHabit): Policy => ({
  name:
    habit === 'all'
      ? 'verdict, all read'
      : habit === 'none'
        ? 'verdict, nothing read'
        : habit === 'worstOnly'
          ? 'verdict, worst read'
          : 'verdict, four a side',
  looks: true,
  before: (crew, sides) => {
    crew.readsStrike()
    if (crew.feelsDull()) crew.saysDull()
    for (let job = 0; job < MOST_JOBS; job += 1) {
      let verdict = crew.verdict()
      if (isBench(verdict) && habit !== 'none') {
        readAsUsual(crew, habit)
        verdict = crew.verdict()
        const state = crew.state()
        sides.note(crew.truth, sideBalance(state, crew.rules, forecast(state, crew.rules)))
      } else if (isBench(verdict)) {
        sides.note(crew.truth, null)
      }
      if (verdict.action === 'runOn') return verdict.fitForUse
      const option = verdict.options.find(({ action }) => action === verdict.action)
      if (crew.carryOut(verdict.action, option)) return crew.verdict().fitForUse
    }
    crew.replace()
    return true
  },
})

/** Has the same options, and knows the truth: every figure is exact, and costs nothing. */
export const oracle: Policy = {
  name: 'oracle',
  before: (crew) => {
    if (crew.feelsDull()) crew.saysDull()
    for (let job = 0; job < MOST_JOBS; job += 1) {
      tellTheTruth(crew)
      const verdict = crew.verdict()
      if (verdict.action === 'runOn') return true
      const option = verdict.options.find(({ action }) => action === verdict.action)
      if (crew.carryOut(verdict.action, option)) return true
    }
    crew.replace()
    return true
  },
}

/** Writes down what is true, as often as it takes to be believed. */
function tellTheTruth(crew: Crew): void {
  const readings = crew.truth.cutters.map(({ lengthUm, settingUm, damageUm }, i) => ({
    cutter: i + 1,
    lengthUm: Math.max(0, Math.round(lengthUm)),
    settingUm: Math.max(0, Math.round(settingUm)),
    ...(damageUm > 20 ? { damage: [{ kind: 'stone' as const, depthUm: Math.round(damageUm) }] } : {}),
  }))
  // What was true before is of no use now.
  crew.log = crew.log.filter(({ kind }) => kind !== 'inspected')
  crew.write('inspected', { readings, parts: [] })
  // What nobody would have expected is read twice.
  if (crew.state().held.length > 0) crew.write('inspected', { readings, parts: [] })
  crew.truth.struckUnseen = false
  if (crew.truth.dull) crew.saysDull()
}

/** Files at every second tank until it looks short; gauges by eye now and then; nobody measures. */
export const filesUntilShort: Policy = {
  name: 'habit: file every second tank',
  before: (crew) => {
    const { random, truth, tally } = crew
    if (truth.struckUnseen && happens(random, 0.7)) truth.struckUnseen = false
    if (looksShort(crew)) crew.replace()
    else if (tally.tanks % 2 === 0 || crew.feelsDull()) {
      const gauges = tally.sharpenings % 5 === 4
      crew.file({ each: { left: 6, right: 6 } }, tally.tanks % 6 === 0 ? 'bench' : 'field', false, false)
      if (gauges) gaugesByEye(crew)
    }
    return false
  },
}

/** Touches up when it has to be pushed; every fifth sharpening is the shop's. */
const shopAtEveryFifth: Policy = {
  name: 'habit: shop at every fifth',
  before: (crew) => {
    const { random, truth, tally } = crew
    if (truth.struckUnseen && happens(random, 0.7)) truth.struckUnseen = false
    if (looksShort(crew)) crew.replace()
    else if (crew.feelsDull() || tally.tanks % 3 === 0) {
      if (tally.sharpenings % 5 === 4) crew.grind('shop', true)
      else crew.file({ each: { left: 5, right: 5 } }, 'field', false, false)
    }
    return false
  },
}

/** Files at the bench every four tanks; the wheel where a stone has left its mark. */
const benchBySchool: Policy = {
  name: 'habit: bench every fourth tank',
  before: (crew) => {
    const { random, truth, tally } = crew
    if (truth.struckUnseen && happens(random, 0.8)) truth.struckUnseen = false
    const hurt = truth.cutters.some(({ damageUm }) => damageUm > 300)
    if (looksShort(crew)) crew.replace()
    else if (hurt || tally.tanks % 4 === 0) {
      if (hurt && crew.rules.grinderOwned) crew.grind('grinder', true)
      else crew.file({ each: { left: 10, right: 10 } }, 'bench', tally.sharpenings % 4 === 3, false)
    }
    return false
  },
}

/** By eye a loop looks short somewhere about a sixth of its length, and nobody agrees where. */
function looksShort({ truth, random }: Crew): boolean {
  return truth.worstUm < normal(random, 1100, 350)
}

function gaugesByEye(crew: Crew): void {
  crew.spend(4)
  crew.truth.lowerGauges(700, 80)
}

export const HABITS = [filesUntilShort, shopAtEveryFifth, benchBySchool] as const
