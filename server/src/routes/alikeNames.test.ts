import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { CREW, Harness, registered, SAW, SAWYER, SPEC } from '../fixtures/harness'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
  await harness.reset()
})
afterAll(async () => {
  await harness.close()
})

const HAPPENED = { happenedAt: '2026-03-10T09:00:00.000Z', personId: null }
const FITS = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 }
const saw = (id: string, nickname: string) => harness.post('/api/saws', { id, nickname, ...FITS })
const person = (id: string, name: string) => harness.post('/api/people', { id, name })
const renamed = (to: string) =>
  harness.write({ id: `renamed-${to.length}-x`, sawId: SAW, ...HAPPENED, kind: 'sawRenamed', from: 'x', to } as never)
const loop = (id: string, tag: string) => harness.write(registered(id, tag, SPEC))
const retagged = (loopId: string, tag: string) =>
  harness.write({ id: `retagged-${loopId}`, loopId, ...HAPPENED, kind: 'retagged', tag })

describe('names that look alike are one name', () => {
  test.each([
    ['a saw', () => saw('first-saw-x', 'Great Tern'), () => saw('second-saw-x', 'great  Tеrn')],
    ['a saw that is renamed', () => saw('third-saw-x', 'Dotterel'), () => renamed('Dоtterel')],
    ['somebody new', () => person('first-one-x', 'Maren Vale'), () => person('second-one-x', 'Маren Vale')],
    [
      'somebody who is renamed',
      () => person('third-one-x', 'Iska Pell'),
      () => harness.send('PUT', `/api/people/${SAWYER}`, { name: 'Iska\u00a0Pell' }),
    ],
    ['a tag', () => loop('first-loop-x', 'KA7'), () => loop('second-loop-x', 'КA7')],
    ['a tag that is changed', () => loop('third-loop-x', 'MB2'), () => retagged('first-loop-x', 'МB2')],
  ])('%s', async (_what, first, second) => {
    expect((await first()).status).toBe(201)
    const { status, body } = await second()
    expect({ status, code: (body as { code?: string }).code }).toEqual({
      status: 409,
      code: expect.stringMatching(/^(name|tag)-taken$/) as string,
    })
    expect((body as { detail?: string }).detail).toContain('which looks like')
  })

  test('in a spreadsheet too, and nothing of it is written', async () => {
    const entries = [registered('sheet-loop-1', 'ХK9', SPEC), registered('sheet-loop-2', 'XK9', SPEC)]
    const { status, body } = await harness.post('/api/import', { saws: [], entries })
    expect({ status, code: body.code }).toEqual({ status: 409, code: 'tag-taken' })
    expect((await harness.shed()).loops.some(({ loopId }) => loopId.startsWith('sheet'))).toBe(false)
    expect((await harness.shed()).crew.id).toBe(CREW)
  })

  test('what keeps its name may be changed', async () => {
    const change = { name: (await harness.shed()).people.find(({ id }) => id === SAWYER)?.name, weakSide: 'left' }
    expect((await harness.send('PUT', `/api/people/${SAWYER}`, change)).status).toBe(200)
  })
})
