import {
  DEFAULT_RULES,
  type Action,
  type EntryBodies,
  type EntryKind,
  type HouseRules,
  type LoopCard,
  type NewEntry,
} from '@undercliff/core'
import type { EntriesAnswer, ProblemDetails, WearAnswer } from '@undercliff/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { Harness, registered } from '../fixtures/harness'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())

let count = 0
const at = '2026-03-11T09:00:00.000Z'
const entry = <K extends EntryKind>(loopId: string, kind: K, body: EntryBodies[K]): NewEntry =>
  ({
    id: `decision-${(count += 1)}-of-test`,
    loopId,
    happenedAt: at,
    personId: null,
    kind,
    ...body,
  }) as unknown as NewEntry
const decided = (loopId: string, action: Action, advised: Action, overruled?: string): NewEntry =>
  entry(loopId, 'decided', { action, advised, rulesVersion: 1, ...(overruled === undefined ? {} : { overruled }) })
const cardOf = async (loopId: string): Promise<LoopCard | undefined> =>
  (await harness.shed()).loops.find((loop) => loop.loopId === loopId)
const codeOf = ({ body }: { body: Partial<ProblemDetails> }): string | undefined => body.code

describe('what people settle on', () => {
  test('a verdict is accepted by anybody, gone against by a lead with a reason', async () => {
    const loop = 'loop-to-settle-1'
    await harness.write(registered(loop, 'SET1'), entry(loop, 'ran', { tanks: 3, conditions: 'clean' }))
    expect((await harness.write(decided(loop, 'touchUp', 'touchUp'))).status).toBe(201)
    expect(await cardOf(loop)).toMatchObject({ action: 'touchUp', settled: true })
    expect(codeOf(await harness.write(decided(loop, 'file', 'touchUp')))).toBe('not-admitted')
    expect((await harness.write(decided(loop, 'file', 'touchUp', 'Bench is free tonight'))).status).toBe(201)
    expect(await cardOf(loop)).toMatchObject({ action: 'file', advised: 'touchUp', settled: true })
    await harness.write(entry(loop, 'ran', { tanks: 1, conditions: 'clean' }))
    expect(await cardOf(loop)).toMatchObject({ action: 'touchUp', settled: false })
  })

  test('a sawyer does not go against a verdict, nor change what a loop is kept for', async () => {
    const loop = 'loop-to-settle-2'
    await harness.write(registered(loop, 'SET2'), entry(loop, 'ran', { tanks: 3, conditions: 'clean' }))
    const send = (one: NewEntry) =>
      harness.post<EntriesAnswer & ProblemDetails>('/api/entries', { entries: [one] }, 'sawyer')
    expect((await send(decided(loop, 'touchUp', 'touchUp'))).status).toBe(201)
    expect(codeOf(await send(decided(loop, 'runOn', 'touchUp', 'I feel like it')))).toBe('lead-only')
    expect(codeOf(await send(entry(loop, 'dutyChanged', { duty: 'dirty' })))).toBe('lead-only')
    expect((await harness.write(entry(loop, 'dutyChanged', { duty: 'dirty' }))).status).toBe(201)
    expect(await cardOf(loop)).toMatchObject({ duty: 'dirty' })
  })

  test('nobody puts an unfit loop to work', async () => {
    const loop = 'loop-to-settle-3'
    await harness.write(
      registered(loop, 'SET3'),
      entry(loop, 'inspected', { readings: [], parts: [{ kind: 'strapCracked', nearCutter: 4 }] }),
    )
    const refused = await harness.write(decided(loop, 'runOn', 'retire', 'Just one more tank'))
    expect(refused.status).toBe(409)
    expect(codeOf(refused)).toBe('unfit-stays-out')
    expect(refused.body.detail).toContain('tie strap')
    expect(await cardOf(loop)).toMatchObject({ action: 'retire', fitForUse: false })
  })
})

describe('house rules', () => {
  test('that cannot hold together are refused by name, and nothing changes', async () => {
    const before = (await harness.shed()).crew.rules
    const refused = await harness.send('PUT', '/api/rules', {
      ...DEFAULT_RULES,
      touchUpTanks: 9,
      evennessUm: 50,
      sideDifferenceUm: 40,
    })
    expect(refused.status).toBe(422)
    expect(codeOf(refused)).toBe('rules-conflict')
    expect(refused.body.problems?.map(({ field }) => field)).toEqual(['touchUpTanks', 'benchTanks', 'evennessUm'])
    expect((await harness.shed()).crew.rules).toEqual(before)
  })

  test('a school changes the verdict of every loop it touches, under a new version', async () => {
    const loop = 'loop-by-school-1'
    const damage = [{ kind: 'stone' as const, depthUm: 1500 }]
    await harness.write(
      registered(loop, 'SCH1'),
      entry(loop, 'measured', {
        readings: [
          { cutter: 4, lengthUm: 7000, damage },
          { cutter: 5, lengthUm: 7000, damage: [] },
        ],
      }),
    )
    expect(await cardOf(loop)).toMatchObject({ action: 'regrind' })
    expect((await harness.send('PUT', '/api/rules', { ...DEFAULT_RULES, grinderOwned: false })).status).toBe(200)
    expect(await cardOf(loop)).toMatchObject({ action: 'shop' })
    expect((await harness.send('PUT', '/api/rules', { ...DEFAULT_RULES, version: 2 })).status).toBe(200)
    expect(await cardOf(loop)).toMatchObject({ action: 'regrind' })
  })

  test('two leads do not overwrite each other: rules are changed from the version that was read', async () => {
    const { rules } = (await harness.shed()).crew
    const change = (more: Partial<HouseRules>) => harness.send('PUT', '/api/rules', { ...rules, ...more })
    expect((await change({ benchTanks: 8 })).status).toBe(200)
    const late = await change({ evennessUm: 400 })
    expect({ status: late.status, code: codeOf(late) }).toEqual({ status: 409, code: 'rules-changed' })
    const after = (await harness.shed()).crew.rules
    expect(after).toEqual({ ...rules, benchTanks: 8, version: rules.version + 1 })
  })
})

test('what wears is gathered over all loops of the crew', async () => {
  const loop = 'loop-that-wears-1'
  const pairs = [1, 2, 3, 4].map((cutter) => ({ cutter, beforeUm: 7000, afterUm: 6850 }))
  await harness.write(registered(loop, 'WEAR1'), entry(loop, 'ran', { tanks: 2, conditions: 'gritty' }))
  await harness.write(
    entry(loop, 'sharpened', {
      method: 'fileField',
      gaugesLowered: false,
      strokes: { left: 4, right: 4 },
      wasDull: true,
      fileAge: 'fresh',
      pairs,
    }),
  )
  const wear = (await harness.request<WearAnswer>('/api/wear')).body
  expect(wear.removal.touchUp.fileAge).toMatchObject([{ group: 'fresh' }])
  expect(wear.perStroke.own).toBe(2)
  expect(wear.curves.find(({ conditions }) => conditions === 'gritty')).toMatchObject({ spells: 1, ended: 1 })
})
