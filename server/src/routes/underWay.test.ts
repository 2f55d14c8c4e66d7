import type { KeptWalk, ProblemDetails, UnderWay } from '@undercliff/contract'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { Harness, registered, sharpened, type As } from '../fixtures/harness'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())
beforeEach(async () => {
  await harness.reset()
  await harness.write(registered('loop-at-bench'))
})

const PATH = '/api/loops/loop-at-bench/under-way'
const AT = '2026-03-20T12:00:00.000Z'
const WALK: KeptWalk = {
  action: 'file',
  tool: 'plateGuide',
  personId: null,
  first: 'left',
  events: [
    { at: AT, kind: 'done', count: 5 },
    { at: AT, kind: 'read', cutter: 3, um: 6200 },
    { at: AT, kind: 'damage', cutter: 5, damage: { kind: 'chipped', depthUm: 300 } },
    { at: AT, kind: 'angle', cutter: 5, deg: 31 },
    { at: AT, kind: 'unchecked' },
  ],
}
interface Body extends ProblemDetails {
  readonly underWay: UnderWay | null
}
const save = (device: string, as: As, more: object = {}) =>
  harness.send<Body>('PUT', PATH, { deviceId: `device-${device}`, device, walk: WALK, ...more }, as)
const read = async (as: As = 'lead') => (await harness.request<Body>(PATH, {}, as)).body.underWay

test('a sharpening is found again on another device, as far as it had come', async () => {
  expect(await read()).toBeNull()
  expect((await save('phone', 'sawyer')).status).toBe(200)
  expect(await read()).toMatchObject({ device: 'phone', version: 1, walk: WALK })
})

test('a second device is told who is at it and where, and may take it over', async () => {
  await save('phone', 'sawyer')
  const second = await save('bench', 'lead')
  expect(second).toMatchObject({ status: 409, body: { code: 'under-way-elsewhere' } })
  expect(second.body.detail).toBe('Bram Quill is at this loop on phone.')
  expect((await save('bench', 'lead', { takeOver: true })).status).toBe(200)
  // The first is told the same now, and what it says at last changes nothing.
  expect((await save('phone', 'sawyer')).body.detail).toBe('Ottoline Vane is at this loop on bench.')
  await harness.request(`${PATH}/device-phone`, { method: 'DELETE' }, 'sawyer')
  expect(await read()).toMatchObject({ device: 'bench', version: 2 })
  await harness.request(`${PATH}/device-bench`, { method: 'DELETE' })
  expect(await read()).toBeNull()
})

test('once the loop is sharpened nothing is under way at it', async () => {
  await save('phone', 'sawyer')
  await harness.write(sharpened('loop-at-bench'))
  expect(await read()).toBeNull()
})

test('what no sharpening is, and a loop of others, are refused', async () => {
  const odd = { ...WALK, events: [{ at: AT, kind: 'danced' }] }
  expect((await save('phone', 'sawyer', { walk: odd })).status).toBe(422)
  const strokes = { ...WALK, events: [{ at: AT, kind: 'done', count: 501 }] }
  expect((await save('phone', 'sawyer', { walk: strokes })).status).toBe(422)
  expect((await save('phone', 'otherLead')).body.code).toBe('no-such-loop')
  expect(await read('otherLead')).toBeNull()
})
