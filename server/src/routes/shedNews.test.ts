import { isChanges, withChanges, type ShedAnswer, type ShedChanges, type ShedNews } from '@undercliff/contract'
import fc from 'fast-check'
import { gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { fitted, Harness, measured, NOW, ran, registered, SAW, SECOND_SAW, takenOff } from '../fixtures/harness'
import { DOT_PNG } from '../fixtures/pictures'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())
beforeEach(() => harness.reset())

/** The shed as a device has it that asked before and asks again. */
async function askedAgain(known: ShedAnswer): Promise<{ shed: ShedAnswer; changes: ShedChanges | null }> {
  const { status, body } = await harness.request<ShedNews | null>(`/api/shed?since=${known.place ?? ''}`)
  if (status === 204 || body === null) return { shed: known, changes: null }
  return isChanges(body) ? { shed: withChanges(known, body), changes: body } : { shed: body, changes: null }
}

const loopOf = (n: number): string => `loop-number-${n}`
const photoOf = (n: number): string => `photo-number-${n}`
const person = (n: number): string => `person-number-${n}`
const AT = NOW.toISOString()
const sawEntry = (n: number, body: object) =>
  harness.post('/api/entries', {
    entries: [{ id: `saw-entry-no-${n}`, sawId: SAW, happenedAt: AT, personId: null, ...body }],
  })

let steps = 0
/** What people do to a shed, from the smallest to the largest. What is refused changes nothing, and that is fine. */
const DEEDS: readonly ((n: number) => Promise<unknown>)[] = [
  (n) => harness.write(registered(loopOf(n))),
  (n) => harness.write(ran(loopOf(n), 1 + (n % 3))),
  (n) => harness.write(measured(loopOf(n), 6000 - 100 * (n % 7))),
  (n) => harness.write(fitted(loopOf(n), n % 2 === 0 ? SAW : SECOND_SAW)),
  (n) => harness.write(takenOff(loopOf(n))),
  (n) => sawEntry(steps, { kind: 'barFlipped', note: `turned ${n}` }),
  (n) => sawEntry(steps, { kind: 'sawRenamed', from: SAW, to: `Saw ${n}` }),
  (n) =>
    harness.post('/api/saws', {
      id: `added-saw-${n}`,
      nickname: `Saw ${n}`,
      pitchClass: null,
      gaugeUm: null,
      driveLinks: null,
    }),
  (n) => harness.post('/api/people', { id: person(n), name: `Person ${n}` }),
  (n) => harness.send('PUT', `/api/people/${person(n)}`, { name: `Renamed ${n}`, weakSide: 'left' }),
  (n) =>
    harness.send('PUT', `/api/photos/${photoOf(n)}`, {
      id: photoOf(n),
      sawId: SAW,
      shows: '',
      takenAt: AT,
      picture: DOT_PNG,
    }),
  (n) => harness.send('DELETE', `/api/photos/${photoOf(n)}`, {}),
  (n) =>
    harness.send('PUT', `/api/kit/kit-number-${n}`, {
      id: `kit-number-${n}`,
      kind: 'vise',
      name: `Vise ${n}`,
      version: 1,
      where: 'stump',
    }),
  (n) => harness.send('PUT', '/api/crew', { name: `Crew ${n}`, lengths: 'mm' }),
  async (n) => {
    const { crew } = await harness.shed()
    return harness.send('PUT', '/api/rules', { version: crew.rules.version, benchTanks: 10 + n })
  },
]

describe('what changed in the shed since a device asked', () => {
  test('comes to the same shed as all of it, whatever happened and however long it was away', async () => {
    const history = fc.array(fc.record({ deed: fc.nat(DEEDS.length - 1), n: fc.nat(4), asks: fc.nat(3) }), {
      minLength: 4,
      maxLength: 25,
    })
    await fc.assert(
      fc.asyncProperty(history, async (events) => {
        await harness.reset()
        const devices: ShedAnswer[] = []
        for (let i = 0; i < 3; i += 1) devices.push(await harness.shed())
        for (const { deed, n, asks } of events) {
          steps += 1
          await DEEDS[deed]?.(n)
          // Three is nobody.
          const known = devices[asks]
          if (known !== undefined) devices[asks] = (await askedAgain(known)).shed
        }
        const whole = await harness.shed()
        for (const known of devices) expect((await askedAgain(known)).shed).toEqual(whole)
      }),
      { numRuns: 12 },
    )
  }, 120_000)

  test('is one card after one entry, and nothing when nothing happened', async () => {
    for (let n = 0; n < 6; n += 1) await harness.write(registered(loopOf(n)))
    const before = await harness.shed()
    expect((await harness.request(`/api/shed?since=${before.place ?? ''}`)).status).toBe(204)
    await harness.write(ran(loopOf(3)))
    const { changes } = await askedAgain(before)
    expect(changes?.loops.map(({ loopId }) => loopId)).toEqual([loopOf(3)])
    expect([changes?.saws, changes?.people, changes?.kit]).toEqual([[], undefined, undefined])
  })

  test('is known over a new start of the server, and all of it is told where the place is not', async () => {
    await harness.write(registered(loopOf(1)), registered(loopOf(2)))
    const before = await harness.shed()
    await harness.write(ran(loopOf(2)))
    const anew = await Harness.beside(harness)
    const news = await anew.request<ShedNews>(`/api/shed?since=${before.place ?? ''}`)
    expect(isChanges(news.body) && news.body.loops.map(({ loopId }) => loopId)).toEqual([loopOf(2)])
    const { place } = (await anew.request<ShedAnswer>('/api/shed')).body
    await anew.close()
    const [epoch = '', revision = ''] = (place ?? '').split('.')
    for (const odd of [
      '',
      'x',
      epoch,
      `${epoch}.`,
      `${epoch}.${Number(revision) + 1}`,
      `elsewhere.${revision}`,
      `${epoch}.-1`,
    ])
      expect(isChanges((await harness.request<ShedNews>(`/api/shed?since=${odd}`)).body), odd).toBe(false)
  })

  test('travels compressed where whoever asks takes it so', async () => {
    await harness.write(registered(loopOf(1)), registered(loopOf(2)))
    const ask = async (encoding: string) => {
      const headers = { ...harness.headers('lead'), 'accept-encoding': encoding }
      // Nothing is undone on the way, as fetch would.
      const { get } = await import('node:http')
      return new Promise<{ bytes: Buffer; encoding: string | undefined }>((resolve, reject) => {
        get(harness.address('/api/shed'), { headers }, (response) => {
          const parts: Buffer[] = []
          response.on('data', (part: Buffer) => parts.push(part))
          response.on('end', () => {
            resolve({ bytes: Buffer.concat(parts), encoding: response.headers['content-encoding'] })
          })
        }).on('error', reject)
      })
    }
    const plain = await ask('identity')
    expect(plain.encoding).toBeUndefined()
    const packed = await ask('gzip')
    expect(packed.encoding).toBe('gzip')
    expect(gunzipSync(packed.bytes)).toEqual(plain.bytes)
  })
})
