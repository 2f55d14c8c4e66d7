import { createCanvas, loadImage, Path2D } from '@napi-rs/canvas'
import jsqr from 'jsqr'

/** jsqr is CommonJS; its function is the default of its default. */
const decode = ((jsqr as unknown as { default?: typeof jsqr }).default ?? jsqr) as unknown as (
  data: Uint8ClampedArray,
  width: number,
  height: number,
) => { data: string } | null

/** The QR code in a picture; null when there is none. */
export async function qrOfPicture(picture: Buffer): Promise<string | null> {
  const image = await loadImage(picture)
  const canvas = createCanvas(image.width, image.height)
  const context = canvas.getContext('2d')
  context.drawImage(image, 0, 0)
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height)
  return decode(new Uint8ClampedArray(data), canvas.width, canvas.height)?.data ?? null
}

/** The QR code on the first page of a PDF, drawn by pdf.js and read by jsqr; null when there is none. */
export async function qrOf(pdf: Buffer): Promise<string | null> {
  Object.assign(globalThis, { Path2D })
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs')
  const page = await (await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise).getPage(1)
  const viewport = page.getViewport({ scale: 3 })
  const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height))
  const context = canvas.getContext('2d')
  await page.render({ canvasContext: context as never, viewport }).promise
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height)
  return decode(new Uint8ClampedArray(data), canvas.width, canvas.height)?.data ?? null
}
