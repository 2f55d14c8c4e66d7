import { createRequire } from 'node:module'
import PDFDocument from 'pdfkit'
import { create } from 'qrcode'

export type Doc = PDFKit.PDFDocument

const require = createRequire(import.meta.url)
const FONT = (subset: string, weight: number): string =>
  require.resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${subset}-${weight}-normal.woff`,
  )

export const INK = '#1c272c'
/** Light modules that a reader wants around a QR code. ISO/IEC 18004, from memory. */
const QUIET_MODULES = 4

/** A QR code as one path of squares, black on the paper's white. */
export function drawQr(doc: Doc, text: string, x: number, y: number, size: number): void {
  const { modules } = create(text, { errorCorrectionLevel: 'M' })
  const unit = size / (modules.size + 2 * QUIET_MODULES)
  for (let row = 0; row < modules.size; row += 1) {
    for (let column = 0; column < modules.size; column += 1) {
      if (modules.get(row, column) !== 0)
        doc.rect(x + (column + QUIET_MODULES) * unit, y + (row + QUIET_MODULES) * unit, unit, unit)
    }
  }
  doc.fill('#000000')
}

/** The fonts come in two parts; a text is cut where the next character is in the other one. */
const runsOf = (text: string): string[] =>
  text.match(/[\u0000-\u00ff\u2000-\u206f]+|[^\u0000-\u00ff\u2000-\u206f]+/gu) ?? []
const fontOf = (run: string, weight: 400 | 700): string =>
  `${/^[\u0000-\u00ff\u2000-\u206f]/u.test(run) ? 'latin' : 'latin-ext'}-${weight}`

export interface Line {
  readonly text: string
  readonly x: number
  readonly y: number
  readonly size: number
  readonly weight: 400 | 700
  /** Wider than this, it is written smaller. */
  readonly room: number
}

export function drawLine(doc: Doc, { text, x, y, size, weight, room }: Line): void {
  const runs = runsOf(text)
  const widths = runs.map((run) => doc.font(fontOf(run, weight)).fontSize(size).widthOfString(run))
  const shrink = Math.min(
    1,
    room /
      Math.max(
        1,
        widths.reduce((sum, width) => sum + width, 0),
      ),
  )
  let left = x
  runs.forEach((run, i) => {
    doc
      .font(fontOf(run, weight))
      .fontSize(size * shrink)
      .fillColor(INK)
      .text(run, left, y, { lineBreak: false })
    left += (widths[i] ?? 0) * shrink
  })
}

/** How wide a text comes out. */
export const widthOf = (doc: Doc, text: string, size: number, weight: 400 | 700): number =>
  runsOf(text).reduce((sum, run) => sum + doc.font(fontOf(run, weight)).fontSize(size).widthOfString(run), 0)

/**
 * A document with the fonts that ship, drawn and ended.
 *
 * @param size of its pages, in points
 * @returns its bytes
 */
export async function writePdf(
  {
    title,
    author,
    size,
  }: { readonly title: string; readonly author: string; readonly size: readonly [number, number] },
  draw: (doc: Doc) => void,
): Promise<Buffer> {
  const doc = new PDFDocument({
    autoFirstPage: false,
    size: [...size],
    margin: 0,
    info: { Title: title, Author: author },
  })
  const done = new Promise<Buffer>((resolve, reject) => {
    const parts: Buffer[] = []
    doc.on('data', (part: Buffer) => parts.push(part))
    doc.on('end', () => {
      resolve(Buffer.concat(parts))
    })
    doc.on('error', reject)
  })
  for (const subset of ['latin', 'latin-ext'])
    for (const weight of [400, 700]) doc.registerFont(`${subset}-${weight}`, FONT(subset, weight))
  draw(doc)
  doc.end()
  return done
}
