import { CREW_PHOTO_BYTES, MOST_PHOTOS, PHOTO_SIDE_PX, type Backup, type PhotoAbout } from '@undercliff/contract'
import { eq, sql } from 'drizzle-orm'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { photos } from '../database/schema'
import { CREW, Harness, NOW, PERSON, registered, SAW, SAWYER, type As } from '../fixtures/harness'
import { DOT_PNG, SECRET, sidewaysPhoto } from '../fixtures/pictures'

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
const photo = (id: string, more: object = {}) => ({
  ...{ id, sawId: SAW, shows: 'stamp of the bar', takenAt: AT, picture: DOT_PNG },
  ...more,
})
const put = (body: { id: string }, as: As = 'sawyer', headers: Record<string, string> = {}) =>
  harness.request<PhotoAbout & { code?: string }>(
    `/api/photos/${body.id}`,
    { method: 'PUT', headers: { 'content-type': 'application/json', ...headers }, body: JSON.stringify(body) },
    as,
  )
const fetchPicture = async (id: string, as: As = 'sawyer') => {
  const response = await fetch(harness.address(`/api/photos/${id}`), { headers: harness.headers(as) })
  return { response, bytes: Buffer.from(await response.arrayBuffer()) }
}

describe('a photograph', () => {
  test('is kept with its saw or loop, listed with the shed and served to its crew alone', async () => {
    await harness.write(registered('loop-of-a-box'))
    expect(await put(photo('photo-of-bar'))).toMatchObject({ status: 201 })
    expect((await put(photo('photo-of-box', { sawId: undefined, loopId: 'loop-of-a-box' }))).status).toBe(201)
    const { picture: _picture, ...about } = photo('photo-of-bar')
    expect((await harness.shed()).photos).toEqual([
      { ...about, personId: SAWYER },
      { ...about, id: 'photo-of-box', sawId: undefined, loopId: 'loop-of-a-box', personId: SAWYER },
    ])
    const { response, bytes } = await fetchPicture('photo-of-bar', 'lead')
    expect(response.headers.get('content-type')).toBe('image/jpeg')
    expect(response.headers.get('cache-control')).toBe('private, no-store')
    expect((await sharp(bytes).metadata()).format).toBe('jpeg')
    expect((await fetchPicture('photo-of-bar', 'otherLead')).response.status).toBe(404)
    expect((await fetchPicture('photo-of-bar', 'nobody')).response.status).toBe(401)
  })

  test('carries nothing but the picture, stands upright and is scaled down', async () => {
    const sent = await sidewaysPhoto(2000, 1000)
    expect(sent.includes(SECRET)).toBe(true)
    expect((await sharp(sent).metadata()).orientation).toBe(6)
    expect((await put(photo('photo-of-bar', { picture: sent.toString('base64') }))).status).toBe(201)
    const { bytes } = await fetchPicture('photo-of-bar')
    const { exif, xmp, iptc, icc, orientation, width, height } = await sharp(bytes).metadata()
    expect({ exif, xmp, iptc, icc, orientation }).toEqual({})
    expect(bytes.includes(SECRET)).toBe(false)
    // Turned a quarter to the right: what was the left half is above.
    expect({ width, height }).toEqual({ width: PHOTO_SIDE_PX / 2, height: PHOTO_SIDE_PX })
    const [red, , blue] = await sharp(bytes)
      .extract({ left: 300, top: 100, width: 1, height: 1 })
      .raw()
      .toBuffer()
      .then((pixel) => [...pixel])
    expect(red).toBeGreaterThan(150)
    expect(blue).toBeLessThan(80)
  })

  test('sent twice is one, and another under its id is refused', async () => {
    const first = await put(photo('photo-of-bar'))
    expect(await put(photo('photo-of-bar'))).toMatchObject({ status: 201, body: first.body })
    expect((await harness.shed()).photos).toHaveLength(1)
    expect(await put(photo('photo-of-bar', { shows: 'another' }))).toMatchObject({ status: 409 })
  })

  test('of a device whose clock is two days wrong is of the day that it was taken', async () => {
    const deviceMs = NOW.getTime() + 2 * 86_400_000
    const takenAt = new Date(deviceMs - 3_600_000).toISOString()
    await put(photo('photo-of-bar', { takenAt }), 'sawyer', { 'x-device-time': String(deviceMs) })
    expect((await harness.shed()).photos[0]?.takenAt).toBe(new Date(NOW.getTime() - 3_600_000).toISOString())
  })

  const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>1</script></svg>'
  test.each([
    ['a text', Buffer.from('a text that is no picture')],
    ['nothing', Buffer.alloc(3)],
    ['a drawing that could carry a script', Buffer.from(svg)],
    ['a page that begins as a picture does', Buffer.from('\xff\xd8\xff<html>', 'latin1')],
  ])('%s is refused', async (_what, bytes) => {
    const refused = await put(photo('photo-of-bar', { picture: bytes.toString('base64') }))
    expect(refused).toMatchObject({ status: 422, body: { code: 'not-a-picture' } })
    expect((await harness.shed()).photos).toEqual([])
  })

  test('cut short, of far too many pixels, or too large to send is refused', async () => {
    const whole = await sidewaysPhoto()
    const cut = await put(photo('photo-of-bar', { picture: whole.subarray(0, whole.length / 2).toString('base64') }))
    expect(cut).toMatchObject({ status: 422, body: { code: 'not-a-picture' } })
    const vast = await sharp({ create: { width: 10_000, height: 6000, channels: 3, background: '#fff' } })
      .png()
      .toBuffer()
    const bomb = await put(photo('photo-of-bar', { picture: vast.toString('base64') }))
    expect(bomb).toMatchObject({ status: 422, body: { code: 'not-a-picture' } })
    const long = await put(photo('photo-of-bar', { picture: 'A'.repeat(2_100_000) }))
    expect(long).toMatchObject({ status: 422, body: { code: 'invalid' } })
    const longer = await put(photo('photo-of-bar', { picture: 'A'.repeat(4_000_000) }))
    expect(longer).toMatchObject({ status: 413, body: { code: 'body-too-large' } })
    expect((await harness.shed()).photos).toEqual([])
  })

  test.each([
    ['of nothing', { sawId: undefined }, 'invalid'],
    ['of two things', { loopId: 'loop-of-a-box' }, 'invalid'],
    ['not in Base64', { picture: 'not base 64!' }, 'invalid'],
    ['of a saw that is not there', { sawId: 'no-saw-of-ours' }, 'no-such-saw'],
    ['of a loop that is not there', { sawId: undefined, loopId: 'no-loop-of-ours' }, 'no-such-loop'],
    ['that says too much', { shows: 'x'.repeat(81) }, 'invalid'],
  ])('%s is refused', async (_what, more, code) => {
    expect((await put(photo('photo-of-bar', more))).body).toMatchObject({ code })
  })

  test('is deleted by whoever kept it or a lead, for good', async () => {
    await put(photo('photo-of-lead'), 'lead')
    await put(photo('photo-of-bram'))
    const remove = (id: string, as: As) => harness.send<{ code?: string }>('DELETE', `/api/photos/${id}`, undefined, as)
    expect(await remove('photo-of-lead', 'sawyer')).toMatchObject({ status: 403, body: { code: 'lead-only' } })
    expect((await remove('photo-of-bram', 'sawyer')).status).toBe(204)
    expect((await remove('photo-of-lead', 'lead')).status).toBe(204)
    expect(await remove('photo-of-lead', 'lead')).toMatchObject({ status: 404, body: { code: 'no-such-photo' } })
    expect((await harness.shed()).photos).toEqual([])
    expect((await fetchPicture('photo-of-lead')).response.status).toBe(404)
  })

  test(`no thing has more than ${MOST_PHOTOS}, and all together stay small enough for a backup`, async () => {
    for (let i = 0; i < MOST_PHOTOS; i += 1) expect((await put(photo(`photo-number-${i}`))).status).toBe(201)
    expect(await put(photo('one-too-many'))).toMatchObject({ status: 409, body: { code: 'photos-full' } })
    const { db } = harness.connected
    await db.delete(photos)
    const row = { crewId: CREW, sawId: SAW, loopId: null, shows: '', takenAt: AT, personId: PERSON }
    const part = Math.floor(CREW_PHOTO_BYTES / 6)
    for (let i = 0; i < 6; i += 1)
      await db.insert(photos).values({ ...row, id: `photo-large-${i}`, picture: sql`repeat('x', ${part})` })
    expect(await put(photo('one-too-many'))).toMatchObject({ status: 409, body: { code: 'photos-full' } })
    await db.delete(photos)
  })

  test('is part of the backup, and read back byte for byte', async () => {
    await harness.write(registered('loop-of-a-box'))
    await put(photo('photo-of-bar', { picture: (await sidewaysPhoto()).toString('base64') }))
    const backup = (await harness.request<Backup>('/api/backup')).body
    expect(backup.content.photos).toHaveLength(1)
    const restored = await harness.post('/api/backup', backup, 'otherLead')
    expect(restored.status, JSON.stringify(restored.body)).toBe(204)
    const again = (await harness.request<Backup>('/api/backup', {}, 'otherLead')).body
    expect(again.content.photos).toEqual(backup.content.photos)
    const [ours] = await harness.connected.db.select().from(photos).where(eq(photos.crewId, CREW))
    expect((await fetchPicture('photo-of-bar', 'otherLead')).bytes.equals(ours?.picture ?? Buffer.alloc(0))).toBe(true)
  })

  test('a backup whose photograph carries more than a picture, or is of nothing in it, is not brought in', async () => {
    await put(photo('photo-of-bar'))
    const { content } = (await harness.request<Backup>('/api/backup')).body
    const [kept] = content.photos ?? []
    const { createHash } = await import('node:crypto')
    const restore = (changed: object) => {
      const odd = { ...content, photos: [{ ...kept, ...changed }] }
      const checksum = createHash('sha256').update(JSON.stringify(odd)).digest('hex')
      const backup = { format: 'undercliff-backup', version: 6, writtenAt: AT, checksum, content: odd }
      return harness.post<{ code?: string }>('/api/backup', backup, 'otherLead')
    }
    const sideways = (await sidewaysPhoto()).toString('base64')
    expect((await restore({ picture: sideways })).body).toMatchObject({ code: 'backup-damaged' })
    expect((await restore({ picture: DOT_PNG })).body).toMatchObject({ code: 'backup-damaged' })
    expect((await restore({ sawId: 'no-saw-of-ours' })).body).toMatchObject({ rows: [{ part: 'photos' }] })
    expect((await harness.shed('otherLead')).photos).toEqual([])
  })
})
