import type { KitAnswer } from '@undercliff/contract'
import type { KitItem } from '@undercliff/core'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { corrected, CREW, Harness, registered, sharpened } from '../fixtures/harness'
import { verifySnapshots } from '../store/refold'
import { changeLearned } from '../store/rules'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(async () => {
  await harness.close()
})
beforeEach(async () => {
  await harness.reset()
})

const AT = '2026-03-01T08:00:00.000Z'
const FILE: KitItem = { id: 'file-one-here', kind: 'file', name: 'Bench file', version: 1, fileUm: 5200, openedAt: AT }
const put = (item: object, as: 'lead' | 'sawyer' | 'otherLead' = 'sawyer') =>
  harness.send<KitItem & { code?: string }>('PUT', `/api/kit/${(item as KitItem).id}`, item, as)
const read = async (as: 'lead' | 'otherLead' = 'lead') => (await harness.request<KitAnswer>('/api/kit', {}, as)).body

describe('the kit', () => {
  test('anybody of the crew adds and changes a thing, and nobody else sees it', async () => {
    expect(await put(FILE)).toMatchObject({ status: 200, body: FILE })
    const changed = { ...FILE, name: 'Old bench file' }
    expect((await put(changed)).body).toEqual({ ...changed, version: 2 })
    // Sent once more, as a device does that heard no answer.
    expect((await put(changed)).body).toEqual({ ...changed, version: 2 })
    expect((await harness.shed()).kit).toEqual([{ ...changed, version: 2 }])
    expect((await read('otherLead')).kit).toEqual([])
  })

  test('a change of what somebody else has changed is refused, and says so', async () => {
    await put(FILE)
    await put({ ...FILE, name: 'One of them' })
    const late = await put({ ...FILE, name: 'The other' })
    expect(late).toMatchObject({ status: 409, body: { code: 'kit-changed' } })
    const other = await put({ id: FILE.id, kind: 'vise', name: 'Vise', version: 2, where: 'stump' })
    expect(other).toMatchObject({ status: 409 })
  })

  test.each([
    ['a kind that is none', { ...FILE, kind: 'hammer' }],
    ['a field of another kind', { ...FILE, markedRpm: 3000 }],
    ['a speed below nothing', { id: FILE.id, kind: 'wheel', name: 'W', version: 1, widthUm: 4700, markedRpm: -5 }],
    ['no name', { ...FILE, name: ' ' }],
    ['a plate without settings', { id: FILE.id, kind: 'plate', name: 'P', version: 1, rests: 'constant', stepsUm: [] }],
  ])('%s is refused', async (_what, item) => {
    expect(await put(item)).toMatchObject({ status: 422, body: { code: 'invalid' } })
    expect((await read()).kit).toEqual([])
  })

  test('a sharpening that names a file uses it up, until it is struck out', async () => {
    await put(FILE)
    const work = sharpened('loop-of-kit', { strokes: { left: 6, right: 7 }, used: [FILE.id] })
    await harness.write(registered('loop-of-kit'), work)
    const usage = async () => (await read()).usage[0]
    expect(await usage()).toMatchObject({ used: 18 * 13, sharpenings: 1 })
    await harness.write(corrected('loop-of-kit', work.id))
    expect(await usage()).toMatchObject({ used: 0, sharpenings: 0 })
  })

  test('a backup holds it, and brings it back', async () => {
    await put(FILE)
    const { body } = await harness.request('/api/backup')
    expect(body).toMatchObject({ content: { kit: [FILE] } })
    expect((await harness.post('/api/backup', JSON.stringify(body), 'otherLead')).status).toBe(204)
    expect((await read('otherLead')).kit).toEqual([FILE])
  })
})

describe('how long sharpenings take', () => {
  const timed = (i: number, minutes: number) =>
    sharpened('loop-timed', { tool: 'plateGuide', strokes: { left: 10, right: 10 }, minutes }, i)
  const pace = async () => (await harness.shed()).crew.rules.pace

  // What was learned nobody decided: the house rules keep their version.
  test('is learned behind what is logged, and verdicts reckon with it under the rules as they are', async () => {
    await harness.write(registered('loop-timed'), ...[1, 2, 3, 4, 5, 6].map((i) => timed(i, 60)))
    await expect.poll(pace, { timeout: 20_000 }).toMatchObject({ routine: expect.closeTo(2.3, 0) as number })
    const { crew } = await harness.shed()
    expect(crew.rules.version).toBe(1)
    // Nobody types it.
    const typed = { version: 1, shopDays: 9, pace: { touchUp: 1, routine: 1, grind: 1 } }
    expect((await harness.send('PUT', '/api/rules', typed)).status).toBe(200)
    expect(await pace()).toEqual(crew.rules.pace)
  })

  test('what is learned and what a lead decides meet: neither is refused, and neither undoes the other', async () => {
    await harness.write(registered('loop-timed'), ...[1, 2, 3, 4, 5, 6].map((i) => timed(i, 60)))
    await expect.poll(pace, { timeout: 20_000 }).toMatchObject({ routine: expect.closeTo(2.3, 0) as number })
    for (let i = 1; i <= 4; i += 1) {
      const learned = { pace: { touchUp: 1, routine: 1 + i / 10, grind: 1 }, signCounts: {} }
      const [saved] = await Promise.all([
        harness.send('PUT', '/api/rules', { version: i, shopDays: 10 + i }),
        changeLearned(harness.connected.writes, CREW, learned),
      ])
      expect(saved.status).toBe(200)
      const { rules } = (await harness.shed()).crew
      expect(rules).toMatchObject({ version: i + 1, shopDays: 10 + i, pace: learned.pace })
    }
    expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])
  })

  test('a session that was stepped through in a minute teaches no pace', async () => {
    await harness.write(registered('loop-timed'), ...[1, 2, 3, 4, 5, 6].map((i) => timed(i, 1)))
    await harness.workers.run('a test', 'learnFromLogs', { crewId: CREW })
    expect(await pace()).toMatchObject({ routine: 1 })
  })

  test('a day like any other changes no rules', async () => {
    await harness.write(registered('loop-timed'), timed(1, 18))
    await harness.workers.run('a test', 'learnFromLogs', { crewId: CREW })
    expect((await harness.shed()).crew.rules).toMatchObject({ version: 1, pace: { routine: 1 } })
  })
})
