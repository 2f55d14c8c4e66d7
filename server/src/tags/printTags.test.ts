import { createCanvas, Path2D } from '@napi-rs/canvas'
import { LABEL_SHEETS } from '@undercliff/contract'
import { readTag } from '@undercliff/core'
import jsqr from 'jsqr'
import type { getDocument as GetDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { Harness, registered, SPEC } from '../fixtures/harness'
import { SHEET_LAYOUTS } from './labelSheets'

let harness: Harness
let getDocument: typeof GetDocument
const TAGS = ['K3', '222Y', 'Žižka 1']
beforeAll(async () => {
  // pdf.js draws with the paths of whatever canvas it finds first; they have to be this canvas's.
  Object.assign(globalThis, { Path2D })
  getDocument = (await import('pdfjs-dist/legacy/build/pdf.mjs')).getDocument
  harness = await Harness.open()
  for (const [i, tag] of TAGS.entries())
    await harness.write(registered(`printed-loop-${i}`, tag, { ...SPEC, startMark: i === 0 ? 'red' : 'none' }))
})
afterAll(() => harness.close())

const SCALE = 3
/** jsqr is CommonJS; its function is the default of its default. */
const decode = ((jsqr as unknown as { default?: typeof jsqr }).default ?? jsqr) as unknown as (
  data: Uint8ClampedArray,
  width: number,
  height: number,
) => { data: string } | null

async function pdfOf(body: object): Promise<Uint8Array> {
  const response = await fetch(harness.address('/api/tags.pdf'), {
    method: 'POST',
    headers: { ...harness.headers('sawyer'), 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  expect(response.status).toBe(200)
  expect(response.headers.get('content-type')).toContain('application/pdf')
  return new Uint8Array(await response.arrayBuffer())
}
const loopIds = TAGS.map((_, i) => `printed-loop-${i}`)

// QR symbols read by jsqr from pages drawn by pdf.js: neither knows anything of this project.
test.each(LABEL_SHEETS)('every tag on %s is read back from the page by an outside decoder', async (sheet) => {
  const document = await getDocument({ data: await pdfOf({ loopIds, sheet, skip: 1 }), verbosity: 0 }).promise
  expect(document.numPages).toBe(1)
  const page = await document.getPage(1)
  const viewport = page.getViewport({ scale: SCALE })
  const layout = SHEET_LAYOUTS[sheet]
  expect([page.view[2], page.view[3]].map((side) => Math.round(side ?? 0))).toEqual(
    layout.page.map((side) => Math.round(side)),
  )
  const canvas = createCanvas(viewport.width, viewport.height)
  const context = canvas.getContext('2d')
  await page.render({ canvasContext: context as never, viewport }).promise
  TAGS.forEach((tag, i) => {
    const place = i + 1
    const x = layout.left + (place % layout.across) * layout.stepX
    const y = layout.top + Math.floor(place / layout.across) * layout.stepY
    const side = Math.floor(layout.height * SCALE)
    const { data } = context.getImageData(Math.floor(x * SCALE), Math.floor(y * SCALE), side, side)
    const read = decode(new Uint8ClampedArray(data), side, side)?.data ?? ''
    expect(readTag(read, TAGS)).toEqual({ ok: true, tag })
  })
  const text = (await page.getTextContent()).items.map((item) => ('str' in item ? item.str : '')).join('')
  for (const wanted of [...TAGS, '3/8"', '1.5 mm · 72 links', 'start mark red']) expect(text).toContain(wanted)
})

test('more tags than a sheet holds go on to the next', async () => {
  const many = Array.from({ length: 31 }, () => loopIds[0] ?? '')
  const document = await getDocument({
    data: await pdfOf({ loopIds: many, sheet: 'letter-3x10', skip: 0 }),
    verbosity: 0,
  }).promise
  expect(document.numPages).toBe(2)
})

test('a loop that is not in the shed is not printed', async () => {
  expect((await harness.post('/api/tags.pdf', { loopIds: ['no-such-loop'], sheet: 'a4-3x8', skip: 0 })).body.code).toBe(
    'nothing-to-print',
  )
  expect((await harness.post('/api/tags.pdf', { loopIds: [], sheet: 'a4-3x8', skip: 0 })).body.code).toBe('invalid')
})
