import { expect, test } from 'vitest'
import type { CutterDamageKind } from '../damage'
import { hour, Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import { specFromProfile } from '../profile'
import { sayReason } from '../words'
import { decide } from './decide'
import { sensitivity } from './sensitivity'
import type { Reason, Rule } from './verdict'

const sound = (lengthUm = 7000): Log => new Log().measureAll(lengthUm)
const dull = (tanks: number, log = sound()): Log => log.add('ran', { tanks, conditions: 'clean' })
const seen = (kind: CutterDamageKind, depthUm: number | null = null, log = sound()): Log =>
  log.add('measured', { readings: [{ cutter: 3, damage: [{ kind, depthUm }] }] })
const gauges = (settingUm: number): Log => sound().add('measured', { readings: [{ cutter: 3, settingUm }] })
const allGauges = (settingUm: number): Log =>
  new Log().add('measured', {
    readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, lengthUm: 7000, settingUm, damage: [] })),
  })
const sides = (): Log => new Log().measureAll((n) => (n % 2 === 1 ? 6400 : 6000) + (n % 5) * 10)
const deep = (log: Log): Log =>
  log.add('measured', {
    readings: [8, 9, 10, 11, 12, 13].map((cutter) => ({ cutter, damage: [{ kind: 'stone', depthUm: 2600 }] })),
  })
const blunted = (cutters: number): Log =>
  sound().add('inspected', {
    readings: Array.from({ length: cutters }, (_, i) => ({
      cutter: i + 1,
      damage: [{ kind: 'rounded', depthUm: null }],
    })),
    parts: [],
  })
const twice = (minutes: number): Log => {
  const at = (after: number): string => new Date(Date.parse(hour(5)) + after * 60_000).toISOString()
  return sound()
    .add('sharpened', { method: 'fileBench', gaugesLowered: false }, { happenedAt: at(0), personId: 'one' })
    .add('sharpened', { method: 'fileBench', gaugesLowered: false }, { happenedAt: at(minutes), personId: 'two' })
}
const BY_HAND = { grinderOwned: false, shopUsed: false }

interface Case {
  readonly log: Log
  readonly rules?: Partial<HouseRules>
  /** What the reason says beside its rule. */
  readonly says: Partial<Reason>
  /** Whether it decides, stands beside what decides, or speaks against an option. */
  readonly where: 'first' | 'beside' | 'option'
}

// Every rule that a verdict may rest on, in a case that raises it. A new rule does not compile without.
const CASES: Record<Rule, Case> = {
  alreadyRetired: { log: sound().add('retired', { reason: 'worn' }), says: {}, where: 'first' },
  endsLoop: { log: seen('cracked'), says: { damage: 'cracked', cutter: 3, limitFrom: 'trade' }, where: 'first' },
  unfitDamage: { log: seen('missing'), says: { damage: 'missing', cutter: 3, hand: 'left' }, where: 'first' },
  needsAttention: {
    log: sound().add('inspected', { readings: [], parts: [{ kind: 'strapCut', nearCutter: 7 }] }),
    says: { damage: 'strapCut', cutter: 7 },
    where: 'first',
  },
  sideWaits: {
    log: sound().add('sharpened', { method: 'fileBench', gaugesLowered: false, onlySide: 'left' }),
    says: { hand: 'right', limitFrom: 'trade' },
    where: 'first',
  },
  begunNotEnded: {
    log: sound().add('begun', { side: 'left' }),
    says: { hand: 'right', limitFrom: 'trade' },
    where: 'first',
  },
  atMark: {
    log: sound(0),
    says: { value: { unit: 'um', amount: 0 }, limit: { unit: 'um', amount: 0 }, limitFrom: 'spec', known: 'measured' },
    where: 'first',
  },
  noLengthBehindDamage: {
    log: seen('stone', 900, sound(1000)),
    says: { cutter: 3, value: { unit: 'um', amount: 100 }, limit: { unit: 'um', amount: 200 }, limitFrom: 'house' },
    where: 'first',
  },
  perhapsAtMark: { log: sound(300).file(), says: { limitFrom: 'house', known: 'estimated' }, where: 'first' },
  longUnmeasured: {
    log: Array.from({ length: 21 }).reduce<Log>((log) => log.file(), new Log()),
    says: { limit: { unit: 'um', amount: 4000 }, limitFrom: 'trade', known: 'estimated' },
    where: 'first',
  },
  usedUnmeasured: {
    log: new Log(SPEC, { used: { aboutUm: 5000 } }),
    says: { value: { unit: 'um', amount: 5000 }, known: 'estimated' },
    where: 'first',
  },
  gaugesTooLow: {
    log: gauges(950),
    says: { cutter: 3, value: { unit: 'um', amount: 300 }, limit: { unit: 'um', amount: 150 }, known: 'measured' },
    where: 'first',
  },
  struckUnseen: {
    log: sound().add('struck', { against: 'metal' }),
    says: { value: { unit: 'strikes', amount: 1 } },
    where: 'first',
  },
  ranSinceStruck: {
    log: sound().add('struck', { against: 'metal' }).add('ran', { tanks: 2, conditions: 'clean' }),
    says: { value: { unit: 'tanks', amount: 2 } },
    where: 'beside',
  },
  sharpenedTwice: { log: twice(10), says: {}, where: 'first' },
  moreThanThere: {
    log: sound(900).file({ strokes: { left: 90, right: 90 } }),
    says: {},
    where: 'first',
  },
  plateUnheardOf: { log: sound().add('gaugesLowered', { settingUm: 1900 }), says: {}, where: 'first' },
  shopWorkUnsaid: {
    log: sound().add('sentOut', { shop: 'The shop' }).add('cameBack', { to: 'bench' }),
    says: {},
    where: 'first',
  },
  sharpeningMissing: { log: dull(26), says: { value: { unit: 'tanks', amount: 26 } }, where: 'beside' },
  depthUnknown: { log: seen('chipped'), says: { damage: 'chipped', cutter: 3 }, where: 'first' },
  fileSkates: { log: seen('blued', 300), says: { damage: 'blued', limitFrom: 'trade' }, where: 'first' },
  tooDeepToFile: {
    log: seen('stone', 3200),
    says: { value: { unit: 'um', amount: 3200 }, limit: { unit: 'um', amount: 3000 }, limitFrom: 'house' },
    where: 'beside',
  },
  damageToClean: {
    log: seen('chipped', 400),
    says: { value: { unit: 'um', amount: 400 }, takes: { unit: 'um', amount: 500 }, known: 'measured' },
    where: 'first',
  },
  shapeToPutRight: { log: seen('hook'), says: { damage: 'hook', cutter: 3 }, where: 'first' },
  uneven: {
    log: new Log().measureAll((n) => (n === 4 ? 6000 : 7000)),
    says: { cutter: 4, value: { unit: 'um', amount: 998 }, limit: { unit: 'um', amount: 500 }, limitFrom: 'house' },
    where: 'first',
  },
  sidesDiffer: {
    log: sides(),
    says: { hand: 'left', limit: { unit: 'um', amount: 250 }, known: 'measured' },
    where: 'first',
  },
  gaugesHigh: {
    log: allGauges(450),
    says: { value: { unit: 'um', amount: 200 }, limit: { unit: 'um', amount: 100 }, known: 'measured' },
    where: 'first',
  },
  gaugeToPutRight: { log: seen('gaugeFlat'), says: { damage: 'gaugeFlat', cutter: 3 }, where: 'first' },
  dull: { log: seen('rounded'), says: { damage: 'rounded', value: { unit: 'cutters', amount: 1 } }, where: 'first' },
  signsSay: {
    log: dull(1)
      .add('noticed', { signs: ['dust', 'push'], wood: 'ordinary', along: false })
      .add('looked', {
        into: 'entry0003',
        look: 'edge',
        found: ['dull'],
      }),
    says: { cause: 'dull', known: 'estimated' },
    where: 'first',
  },
  signsOfLowGauges: {
    log: sound()
      .add('gaugesLowered', { gaugesByEye: true })
      .add('noticed', { signs: ['snatches'] }),
    says: { cause: 'gaugesLow', known: 'estimated' },
    where: 'first',
  },
  signsToLookInto: {
    log: sound()
      .add('noticed', { signs: ['cornerBright', 'push'] })
      .add('looked', {
        into: 'entry0002',
        look: 'edge',
        found: ['struck'],
      }),
    says: { cause: 'struck', known: 'estimated' },
    where: 'first',
  },
  benchDue: { log: dull(6), says: { limit: { unit: 'tanks', amount: 6 }, limitFrom: 'house' }, where: 'first' },
  touchUpDue: { log: dull(2), says: { value: { unit: 'tanks', amount: 2 }, known: 'estimated' }, where: 'first' },
  nothingDue: {
    log: sound().add('ran', { tanks: 1, conditions: 'clean' }),
    // One tank of clean wood, of the two after which the house touches up.
    says: { value: { unit: 'tanks', amount: 1 } },
    where: 'first',
  },
  contradiction: {
    log: sound(5000).measureAll(7000),
    says: { value: { unit: 'um', amount: 2000 } },
    where: 'first',
  },
  tooLittleLeft: {
    log: dull(7, sound(350)),
    says: { limit: { unit: 'um', amount: 200 }, limitFrom: 'house' },
    where: 'option',
  },
  notNeeded: { log: sound(), says: {}, where: 'option' },
  cheapestPerHour: { log: deep(sound()), says: { against: 'shop' }, where: 'beside' },
  cheaperToReplace: {
    log: deep(sound()),
    rules: { ...BY_HAND, dirtyDuty: false },
    says: { against: 'file' },
    where: 'first',
  },
  noWayWithinLimits: {
    log: new Log().measureAll((n) => (n === 4 ? 6000 : 7000)),
    rules: { ...BY_HAND, unevenSchool: 'sameStrokes' },
    says: {},
    where: 'beside',
  },
  measureBeforeRetiring: {
    log: deep(new Log()),
    rules: { ...BY_HAND, dirtyDuty: false },
    says: {},
    where: 'first',
  },
  tooFewCut: {
    log: blunted(13),
    says: { value: { unit: 'cutters', amount: 23 }, limit: { unit: 'cutters', amount: 24 }, limitFrom: 'trade' },
    where: 'option',
  },
  keptForDirt: { log: dull(7, sound(350)), says: { limitFrom: 'house' }, where: 'beside' },
  dirtyNotAllowed: { log: sound(), rules: { dirtyDuty: false }, says: { limitFrom: 'house' }, where: 'option' },
  dirtyAlready: { log: sound().add('dutyChanged', { duty: 'dirty' }), says: {}, where: 'option' },
  notFitForAnything: { log: seen('missing'), says: {}, where: 'option' },
  noGrinder: { log: dull(7), rules: { grinderOwned: false }, says: { limitFrom: 'house' }, where: 'option' },
  noShop: { log: dull(7), rules: { shopUsed: false }, says: { limitFrom: 'house' }, where: 'option' },
  fileForRoutine: { log: dull(7), says: { limitFrom: 'house' }, where: 'option' },
  wheelAtBench: { log: dull(7), rules: { bench: 'wheelAtBench' }, says: { limitFrom: 'house' }, where: 'option' },
  sharpenedAtBench: { log: dull(2), rules: { where: 'bench' }, says: { limitFrom: 'house' }, where: 'option' },
  fileMisfits: {
    log: new Log(specFromProfile({ ...SPEC, fileUm: 4000, origins: { fileUm: 'measured' } })).measureAll(7000),
    says: { value: { unit: 'um', amount: 4000 }, limit: { unit: 'um', amount: 5200 }, limitFrom: 'trade' },
    where: 'beside',
  },
  notEnough: { log: dull(7), says: {}, where: 'option' },
}

test.each(Object.entries(CASES))('%s', (rule, { log, rules, says, where }) => {
  const verdict = decide(stateOf(log), { ...DEFAULT_RULES, ...rules })
  const among = {
    first: verdict.reasons.slice(0, 1),
    beside: verdict.reasons.slice(1),
    option: verdict.options.flatMap(({ reasons }) => reasons),
  }[where]
  const raised = among.filter((reason) => reason.rule === rule)
  expect(raised[0]).toMatchObject({ rule, ...says })
  for (const reason of raised) expect(sayReason(reason, { lengths: 'both', currency: 'EUR' })).toMatch(/[.?]$/)
})

test('what each rule says, with the figures of its case', async () => {
  const said = Object.entries(CASES).map(([rule, { log, rules }]) => {
    const { reasons, options } = decide(stateOf(log), { ...DEFAULT_RULES, ...rules })
    const raised = [...reasons, ...options.flatMap((option) => option.reasons)].find((one) => one.rule === rule)
    return `${rule}: ${sayReason(raised ?? { rule: 'nothingDue' }, { lengths: 'mm', currency: 'EUR' })}\n`
  })
  await expect(said.join('')).toMatchFileSnapshot('./worked/reasons.txt')
})

test('a depth that nobody knows is asked of the damage that has one', () => {
  const damage = [
    { kind: 'rounded' as const, depthUm: null },
    { kind: 'chipped' as const, depthUm: 200 },
    { kind: 'stone' as const, depthUm: null },
  ]
  const { reasons } = decide(stateOf(sound().add('measured', { readings: [{ cutter: 3, damage }] })), DEFAULT_RULES)
  expect(reasons.find(({ rule }) => rule === 'depthUnknown')).toMatchObject({ cutter: 3, damage: 'stone' })
})

test('nothing turns a loop that is over, whatever else there is to say of it', () => {
  const struck = { readings: [{ cutter: 9, damage: [{ kind: 'cracked' as const, depthUm: null }] }], parts: [] }
  // Its file is far too small for the pitch, too.
  const cracked = stateOf(
    new Log({ ...SPEC, fileUm: 4000, origins: { fileUm: 'crew' } }).measureAll(7000).add('inspected', struck),
  )
  const verdict = decide(cracked, DEFAULT_RULES)
  expect(verdict.reasons.map(({ rule }) => rule)).toContain('endsLoop')
  expect(verdict.reasons.some(({ rule }) => rule !== 'endsLoop')).toBe(true)
  expect(sensitivity(cracked, DEFAULT_RULES, verdict)).toEqual([])
})
