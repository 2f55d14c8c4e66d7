import { readFileSync } from 'node:fs'
import {
  asWritten,
  decide,
  DEFAULT_RULES,
  fold,
  forecast,
  sensitivity,
  usingUp,
  type Action,
  type HouseRules,
  type Option,
} from '@undercliff/core'
import { describe, expect, test } from 'vitest'
import { scenario } from './scenario'

// docs/bench/verdict.md carries one loop of the demo through by hand. Everything here is worked out from
// the figures it begins with, by plain arithmetic, and compared with the page and the program.
const PAGE = readFileSync(new URL('../../docs/bench/verdict.md', import.meta.url), 'utf8')
/** What the page says a step comes to. */
function says(step: string): string {
  const row = PAGE.split('\n').find((line) => line.startsWith(`| ${step}`))
  const cells = row?.split('|') ?? []
  return (cells[3] ?? `the page has no step "${step}"`).trim()
}
const money = (minor: number): string => (Math.round(minor) / 100).toFixed(2)
const mm = (um: number, decimals = 2): string => `${(um / 1000).toFixed(decimals)} mm`

const log = scenario(new Date('2026-03-20T09:00:00.000Z')).entries
const tagOf = new Map(log.flatMap((entry) => (entry.kind === 'registered' ? [[entry.loopId, entry.tag] as const] : [])))
const folded = fold(log.filter(({ loopId }) => tagOf.get(loopId) === 'K3').map((entry) => asWritten(entry)))
if (folded === null) throw new Error('K3 should be registered')
const state = folded
const verdict = decide(state, DEFAULT_RULES)
const optionOf = (action: Action): Option => {
  const option = verdict.options.find((one) => one.action === action)
  if (option === undefined) throw new Error(`there is no option ${action}`)
  return option
}
const ahead = forecast(state, DEFAULT_RULES)
const lengths = state.cutters.map(({ length }) => length.um)
const cutter14 = state.cutters[13]
const worstUm = cutter14?.length.um ?? 0
const depthUm = cutter14?.damage[0]?.depthUm ?? 0
const stopUm = worstUm - depthUm - 100
const off = lengths.map((um) => um - stopUm)
const meanOff = off.reduce((sum, um) => sum + um, 0) / off.length
const shortestUm = Math.min(...lengths)

// One of its ten tanks was in gritty wood, which wears a rounded corner a third more.
const worn = 9 + 4 / 3
const tanks = (4 * 4 + worn) / 4
const hours = (tanks * (1 - Math.exp(-6 / tanks)) * 0.75) / (worn / 10)
const perMm = (72 * 42) / 7.8
const metal = ((shortestUm - stopUm) / 1000) * perMm

describe('what it needs', () => {
  test('the worst cutter, what is left and how many sharpenings', () => {
    expect(state.cutters.filter(({ damage }) => damage.length > 0).map(({ number }) => number)).toEqual([
      11, 12, 13, 14, 15, 16, 17,
    ])
    expect(state.cutters.every(({ length }) => length.known === 'measured')).toBe(true)
    expect(says('worst cutter after its damage')).toBe(mm(worstUm - depthUm))
    expect(says('may still be filed')).toBe(mm(worstUm - depthUm - 200))
    expect(ahead.usableUm).toBe(worstUm - depthUm - 200)
    expect(says('clean steel on cutter 14')).toBe(mm(stopUm))
  })

  test('removal: what a stroke takes, times those of a routine filing', () => {
    const [left = 0, right = 0, habit = 0] = state.lengths.tied.shared
    const stroke = (left + right) / 2
    const counted = state.removals.filter(({ sides }) => sides?.left?.strokes !== undefined)
    expect(counted.reduce((sum, { sharpenings }) => sum + sharpenings, 0)).toBe(6)
    expect(says('a stroke takes, left and right')).toBe(`${stroke.toFixed(1)} µm`)
    expect(PAGE).toContain(`${left.toFixed(1)} and ${right.toFixed(1)} µm, their mean`)
    // Nobody ever filed it without counting.
    expect(habit).toBeCloseTo(0, 9)
    expect(says('a routine filing takes')).toBe(mm(10 * stroke, 3))
    expect(says('a touch-up takes')).toBe(mm(5 * stroke, 3))
    expect(state.sharpenedBy).toEqual({ touchUp: 4, routine: 2, grind: 0 })
    const mix = 0.4 * 5 * stroke + 0.6 * 10 * stroke
    expect(ahead.removal.meanUm).toBeCloseTo(mix, 8)
    expect(says('a sharpening takes, in its mix')).toBe(mm(mix, 3))
    const { likely } = ahead.sharpeningsLeft
    const lower = (sharpenings: number) =>
      usingUp(state.lengths, ahead.summary.shortest.number - 1, ahead.removal).lowerBy(sharpenings)
    // A guide strays by 8 µm and nine parts in a hundred of what comes off: the shortest of 36 is worse off.
    expect(lower(likely)).toBeGreaterThan(Math.hypot(8, 0.09 * mix) * Math.sqrt(likely))
    expect(says('the shortest will lie lower by then')).toBe(mm(lower(likely)))
    expect(likely * mix + lower(likely)).toBeLessThanOrEqual(worstUm - depthUm - 200)
    expect((likely + 1) * mix + lower(likely + 1)).toBeGreaterThan(worstUm - depthUm - 200)
    expect(says('sharpenings left as it stands')).toBe(String(likely))
  })
})

/** Looking it over and putting it back on, in minutes: in every sharpening at the bench. */
const AROUND = (0.3 + 1) / 2 + (1 + 3) / 2

describe('the regrind', () => {
  const drop = meanOff * Math.tan((7 * Math.PI) / 180)
  const touches = off.reduce((sum, um) => sum + Math.max(1, um / 400), 0)

  test('metal and gauges', () => {
    expect(says('most taken off')).toBe(mm(Math.max(...off)))
    expect(says('taken off a cutter on average')).toBe(mm(meanOff, 3))
    expect(says('touches of the wheel')).toBe(touches.toFixed(1))
    expect(says('edges sink')).toBe(mm(drop, 3))
    expect(says('gauge setting then')).toBe(mm(ahead.settingUm - drop, 3))
    expect(says('gauges stand high by')).toBe(mm(650 - (ahead.settingUm - drop), 3))
    expect(optionOf('regrind')).toMatchObject({
      deepestUm: Math.max(...off),
      leftUm: stopUm,
      gauges: true,
      feasible: true,
    })
    expect(verdict).toMatchObject({ action: 'regrind', also: ['lowerGauges'] })
  })

  test('minutes', () => {
    // Set-up, touches, the stop, the turn, the re-check, looking over, putting back, gauges.
    const least = 3 + (touches * 6) / 60 + 0.4 + 0.7 + 0.2 + 0.3 + 1 + (1 + (36 * 5) / 60)
    const most = 8 + (touches * 10) / 60 + 1 + 1.3 + 0.5 + 1 + 3 + (3 + (36 * 9) / 60)
    expect(says('minutes, least')).toBe(least.toFixed(1))
    expect(says('minutes, most')).toBe(most.toFixed(1))
    expect(optionOf('regrind').minutes.low).toBeCloseTo(least, 8)
    expect(optionOf('regrind').minutes.high).toBeCloseTo(most, 8)
  })

  test('money, hours and what an hour costs', () => {
    const likely = (3 + 8) / 2 + (touches * 8) / 60 + 0.7 + 1 + 0.35 + AROUND + (4 + 8.4) / 2
    const work = (likely / 60) * 3000
    expect(says('work, at 30.00 an hour')).toBe(money(work))
    expect(says('price of a millimetre of cutter')).toBe((perMm / 100).toFixed(3))
    expect(says('cutter spent')).toBe(money(metal))
    const all = Math.round(work) + 60 + Math.round(metal)
    expect(says('in all')).toBe(money(all))
    expect(optionOf('regrind').money).toMatchObject({
      labourMinor: Math.round(work),
      consumablesMinor: 60,
      metalMinor: Math.round(metal),
      totalMinor: all,
    })
    expect(says('tanks that it stays sharp')).toBe(tanks.toFixed(1))
    expect(says('but the bench is due')).toBe((tanks * (1 - Math.exp(-6 / tanks))).toFixed(3))
    expect(says('hours, 0.75 a tank')).toBe(`${hours.toFixed(2)} h`)
    expect(says('a sharp hour costs')).toBe(money(all / hours))
    expect(optionOf('regrind').sharpHours.likely).toBeCloseTo(hours, 8)
    expect(optionOf('regrind').perHourMinor?.likely).toBeCloseTo(all / hours, 0)
  })
})

describe('the others', () => {
  const hourOf = (action: Action): string => money(optionOf(action).perHourMinor?.likely ?? 0)
  /** The page says "a sharp hour" once for each of the others, in its order. */
  const hoursSaid = PAGE.split('\n')
    .filter((line) => line.startsWith('| a sharp hour |'))
    .map((line) => line.split('|')[3]?.trim())

  test('shop', () => {
    const all = Math.round(((16.7 + AROUND) / 60) * 3000 + 1e-6) + 1600 + Math.round(metal)
    expect(says('shop: work')).toBe(money(all))
    expect(optionOf('shop').money.totalMinor).toBe(all)
    expect(hoursSaid[0]).toBe(hourOf('shop'))
    expect(optionOf('shop').perHourMinor?.likely).toBeCloseTo(all / hours, 0)
    expect(PAGE).toContain(`Second comes the shop, ${money(verdict.runnerUp?.byMinor ?? 0)} a sharp hour dearer`)
  })

  test('file', () => {
    const stroke = ahead.perStroke.meanUm
    const strokes = off.reduce((sum, um, i) => {
      // A sound cutter ends at the stroke that comes nearest; out of a damaged one all of it has to come.
      const over = (state.cutters[i]?.damage.length ?? 0) > 0 ? 0 : stroke / 2
      return sum + Math.ceil(400 / stroke + (2 * (um - over - 400)) / stroke)
    }, 0)
    const seconds = strokes * 1.2 + 36 * 2.5
    const minutes = (3 + 8) / 2 + seconds / 60 + 0.5 + 0.35 + AROUND + (4 + 8.4) / 2
    const all = Math.round((minutes / 60) * 3000) + Math.round((strokes / 2000) * 250) + Math.round(metal)
    expect(says('file: strokes')).toBe(strokes.toLocaleString('en'))
    expect(says('file: minutes')).toBe(minutes.toFixed(1))
    expect(says('file: work')).toBe(money(all))
    expect(optionOf('file')).toMatchObject({ feasible: true, strokes: { total: strokes }, money: { totalMinor: all } })
    expect(hoursSaid[1]).toBe(money(all / hours))
  })

  test('a new loop', () => {
    const spells = 1 + Math.floor(7800 / (10 * ahead.perStroke.meanUm))
    const seconds = 36 * 10 * 1.2 + 36 * 2.5
    const minutes = (3 + 8) / 2 + seconds / 60 + 0.5 + 0.35 + 0.35 + AROUND
    const routine = (minutes / 60) * 3000 + (360 / 2000) * 250
    const given = ((shortestUm - 200) / 1000) * perMm
    const parts = [(3.5 / 60) * 3000, given, 3024 / spells, (routine * (spells - 1)) / spells].map(Math.round)
    const all = parts.reduce((sum, part) => sum + part, 0)
    expect(says('new loop: what is left')).toBe(money(given))
    expect(says(`new loop: its share for one of its ${spells} spells`)).toBe(money(3024 / spells))
    expect(says('new loop: its own sharpenings')).toBe(money(parts[3] ?? 0))
    expect(says('new loop: with the work')).toBe(money(all))
    expect(optionOf('retire').money.totalMinor).toBe(all)
    expect(hoursSaid[2]).toBe(money(all / hours))
  })

  test('what would change it', () => {
    const turn = sensitivity(state, DEFAULT_RULES, verdict).find(({ by }) => by === 'loopPrice')
    if (turn?.by !== 'loopPrice') throw new Error('a price should turn it')
    expect(turn.turnsTo).toBe('dirtyDuty')
    expect(PAGE).toContain(`more than ${money(turn.atMinor)}; then, keep it for dirt`)
  })
})

test.each<[string, Partial<HouseRules>, Action]>([
  ['same strokes for all', { unevenSchool: 'sameStrokes' }, 'touchUp'],
  ['no grinder', { grinderOwned: false }, 'shop'],
  ['no grinder, no shop, no dirty duty', { grinderOwned: false, shopUsed: false, dirtyDuty: false }, 'retire'],
])('another house: %s', (name, rules, action) => {
  expect(PAGE).toContain(`| ${name} |`)
  expect(decide(state, { ...DEFAULT_RULES, ...rules }).action).toBe(action)
})
