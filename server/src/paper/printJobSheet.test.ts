import { createCanvas, Path2D } from '@napi-rs/canvas'
import { readTag, specFromProfile, type LoopSpec } from '@undercliff/core'
import jsqr from 'jsqr'
import type { getDocument as GetDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { Harness, measured, registered, SPEC } from '../fixtures/harness'

let harness: Harness
let getDocument: typeof GetDocument
/** As many cutters as a loop can have. */
const LONGEST: LoopSpec = specFromProfile({
  pitchClass: 'p404',
  gaugeUm: 1600,
  driveLinks: 248,
  cutterType: 'semiChisel',
})
beforeAll(async () => {
  Object.assign(globalThis, { Path2D })
  getDocument = (await import('pdfjs-dist/legacy/build/pdf.mjs')).getDocument
  harness = await Harness.open()
  await harness.write(registered('sheet-usual', 'K3', SPEC), measured('sheet-usual', 6400))
  await harness.write(registered('sheet-longest', 'X9', LONGEST))
})
afterAll(() => harness.close())

async function pdfOf(loopId: string, body: object) {
  const response = await fetch(harness.address(`/api/loops/${loopId}/job-sheet.pdf`), {
    method: 'POST',
    headers: { ...harness.headers('sawyer'), 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  expect(response.status).toBe(200)
  const document = await getDocument({ data: new Uint8Array(await response.arrayBuffer()), verbosity: 0 }).promise
  const page = await document.getPage(1)
  const items = (await page.getTextContent()).items.flatMap((item) => ('str' in item ? [item] : []))
  return { document, page, items, text: items.map(({ str }) => str).join(' ') }
}

test.each([
  ['sheet-usual', { action: 'file', personId: null }, 36],
  ['sheet-usual', { action: 'regrind', personId: null }, 36],
  ['sheet-longest', { action: 'regrind', personId: null }, 124],
])('%s %o goes on one A4 page, every cutter with its target', async (loopId, body, cutters) => {
  const { document, page, items, text } = await pdfOf(loopId, body)
  expect(document.numPages).toBe(1)
  for (let n = 1; n <= cutters; n += 1) expect(text).toMatch(new RegExp(`(^| )${n} ${n % 2 === 1 ? 'L' : 'R'}( |$)`))
  expect(text).toContain('mm')
  // Nothing runs off the paper, and no text lies over another of its column.
  for (const { transform } of items) {
    const [x, y] = [Number(transform[4]), Number(transform[5])]
    expect(x).toBeGreaterThan(20)
    expect(x).toBeLessThan((page.view[2] ?? 0) - 20)
    expect(y).toBeGreaterThan(20)
  }
  const names = items.filter(({ str }) => /^\d+ L/.test(str)).map(({ transform }) => Number(transform[5]))
  expect(new Set(names.map((y) => y.toFixed(1))).size).toBe(names.length)
})

test('its QR code opens the loop, read by an outside decoder', async () => {
  const { page } = await pdfOf('sheet-usual', { action: 'file', personId: null })
  const viewport = page.getViewport({ scale: 3 })
  const canvas = createCanvas(viewport.width, viewport.height)
  const context = canvas.getContext('2d')
  await page.render({ canvasContext: context as never, viewport }).promise
  const side = 330
  const { data } = context.getImageData(Math.floor(viewport.width) - side, 60, side, side)
  const decode = ((jsqr as unknown as { default?: typeof jsqr }).default ?? jsqr) as unknown as (
    pixels: Uint8ClampedArray,
    width: number,
    height: number,
  ) => { data: string } | null
  expect(readTag(decode(new Uint8ClampedArray(data), side, side)?.data ?? '', ['K3'])).toEqual({ ok: true, tag: 'K3' })
})

test('what is not sharpened so is not printed', async () => {
  const post = (loopId: string, body: object) => harness.post(`/api/loops/${loopId}/job-sheet.pdf`, body)
  expect((await post('sheet-usual', { action: 'file', tool: 'squareFile', personId: null })).body.code).toBe(
    'nothing-to-print',
  )
  expect((await post('no-such-loop', { action: 'file', personId: null })).body.code).toBe('no-such-loop')
  expect((await post('sheet-usual', { action: 'polish', personId: null })).body.code).toBe('invalid')
})
