import type { CutterDamageKind } from '../damage'
import { expect, test } from 'vitest'
import { ACTIONS } from '../log'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { cardOf } from './card'
import { acceptedWithOthers, triage, urgencyOf, whatNext } from './urgency'

const card = (log: Log) => cardOf(stateOf(log), DEFAULT_RULES)

test('the drawn tooth shows what is left, what is damaged and where the gauge stands', () => {
  const { tooth } = card(new Log().measureAll(4000))
  expect(tooth).toMatchObject({ left: 0.5, damaged: 0, known: 'measured', setting: 1, damage: null })
  const hurt = card(
    new Log()
      .measureAll(4000)
      .add('measured', { readings: [{ cutter: 3, damage: [{ kind: 'stone', depthUm: 800 }], settingUm: 0 }] }),
  )
  expect(hurt.tooth).toMatchObject({ left: 0.5, damaged: 0.1, damage: 'stone' })
  expect(hurt.tooth.setting).toBeLessThan(1)
})

test('the file named is the one for the shortest cutter', () => {
  const rules = { ...DEFAULT_RULES, fileSchool: 'largerThenSmaller' } as const
  const fileOf = (log: Log) => cardOf(stateOf(log), rules).spec.fileUm
  expect(fileOf(new Log().measureAll(7000))).toBe(5500)
  const uneven = (cutter: number): number => (cutter === 5 ? 3500 : 7000)
  // Nobody believes so short a cutter before it was read twice.
  expect(fileOf(new Log().measureAll(uneven))).toBe(5500)
  expect(fileOf(new Log().measureAll(uneven).measureAll(uneven))).toBe(5200)
})

test('the gravest damage is drawn: what ends a loop before all, and its chassis before what is as grave', () => {
  const seen = (...kinds: CutterDamageKind[]) =>
    new Log().add('measured', {
      readings: kinds.map((kind, i) => ({ cutter: i + 1, damage: [{ kind, depthUm: 300 }] })),
    })
  const drawn = (log: Log) => card(log).tooth.damage
  expect(drawn(seen('rounded', 'gaugeHigh'))).toBe('gaugeHigh')
  expect(drawn(seen('gaugeHigh', 'hook'))).toBe('hook')
  expect(drawn(seen('hook', 'stone', 'hook'))).toBe('stone')
  expect(drawn(seen('stone', 'missing'))).toBe('missing')
  expect(drawn(seen('missing', 'cracked', 'missing'))).toBe('cracked')
  const cut = { readings: [], parts: [{ kind: 'strapCut', nearCutter: 3 }] } as const
  expect(drawn(new Log().add('inspected', cut))).toBe('strapCut')
  expect(
    drawn(
      new Log().add('inspected', { ...cut, readings: [{ cutter: 1, damage: [{ kind: 'missing', depthUm: null }] }] }),
    ),
  ).toBe('strapCut')
  expect(
    drawn(
      new Log().add('inspected', { ...cut, readings: [{ cutter: 1, damage: [{ kind: 'cracked', depthUm: null }] }] }),
    ),
  ).toBe('cracked')
})

test('on a saw before off it, unfit before due, and nothing that runs on', () => {
  const fine = card(new Log())
  const due = card(new Log().add('ran', { tanks: 3, conditions: 'clean' }))
  const struck = card(new Log().add('struck', { against: 'stone' }))
  const dueOnSaw = card(new Log().add('fitted', { sawId: 'the-one-saw' }).add('ran', { tanks: 3, conditions: 'clean' }))
  expect(whatNext([fine, due, struck, dueOnSaw])).toEqual([dueOnSaw, struck, due])
  const gone = card(new Log().add('struck', { against: 'stone' }).add('retired', { reason: 'worn' }))
  expect(urgencyOf(gone)).toBeLessThan(urgencyOf(fine))
  expect(whatNext([gone, due])).toEqual([due])
  // Of two that press alike, in the order of their tags.
  const [a, b] = [
    { ...due, tag: 'A1' },
    { ...due, tag: 'B1' },
  ]
  expect(whatNext([b, a, struck])).toEqual([struck, a, b])
  expect(whatNext([a, b, struck])).toEqual([struck, a, b])
})

test('what is at a shop is no work here, and what is grave is accepted by itself', () => {
  const due = new Log().add('ran', { tanks: 3, conditions: 'clean' })
  expect(whatNext([card(due)])).toHaveLength(1)
  expect(whatNext([card(due.add('sentOut', { shop: 'A shop' }))])).toEqual([])
  expect(ACTIONS.filter((action) => !acceptedWithOthers({ action }))).toEqual(
    expect.arrayContaining(['retire', 'stop', 'shop', 'dirtyDuty']),
  )
  expect(acceptedWithOthers({ action: 'touchUp' })).toBe(true)
})

test('a house that goes by signs is told of no tanks, and one for dirt of the bench', () => {
  const verdict = (rules: object, log = new Log().measureAll(7000)) =>
    cardOf(stateOf(log), { ...DEFAULT_RULES, ...rules }).reason
  expect(verdict({ touchUpTanks: 3 })).toEqual({ rule: 'nothingDue', value: { unit: 'tanks', amount: 3 } })
  expect(verdict({ when: 'onSigns' })).toEqual({ rule: 'nothingDue' })
  const dirty = new Log().measureAll(7000).add('dutyChanged', { duty: 'dirty' })
  expect(verdict({ benchTanks: 7 }, dirty)).toEqual({ rule: 'nothingDue', value: { unit: 'tanks', amount: 7 } })
})

test('triage: unfit, then on saws and truck, then the rest', () => {
  const ran = (tanks: number) => new Log().add('ran', { tanks, conditions: 'clean' })
  const unfit = card(new Log().add('struck', { against: 'stone' }))
  const truck = card(ran(3).add('moved', { to: 'truck' }))
  const saw = card(new Log().add('fitted', { sawId: 'the-one-saw' }).add('ran', { tanks: 3, conditions: 'clean' }))
  const rack = card(ran(3).add('moved', { to: 'dullBox' }))
  expect(triage([rack, truck, unfit, saw, card(new Log())])).toEqual({
    mustNotCut: [unfit],
    beforeTheNextJob: [saw, truck],
    whenThereIsTime: [rack],
  })
})

test('the drawn tooth shows hook, back slope and where the gauges stand', () => {
  const sign = (kind: 'hook' | 'backSlope' | 'gaugeFlat', settingUm = 650) =>
    card(
      new Log().add('measured', {
        readings: Array.from({ length: 36 }, (_, i) => ({
          cutter: i + 1,
          damage: i === 4 ? [{ kind, depthUm: null }] : [],
          settingUm,
        })),
      }),
    ).tooth
  expect(sign('hook')).toMatchObject({ shape: 'hook', gauge: 'fine' })
  expect(sign('backSlope', 450)).toMatchObject({ shape: 'backSlope', gauge: 'high' })
  expect(sign('gaugeFlat')).toMatchObject({ shape: null, gauge: 'flat' })
  expect(sign('gaugeFlat', 950)).toMatchObject({ gauge: 'low' })
})
