import type { LabelSheet } from '@undercliff/contract'
import { PITCH_PROFILES, tagCode, writeMm, type LoopCard, type StartMark } from '@undercliff/core'
import { createRequire } from 'node:module'
import PDFDocument from 'pdfkit'
import { create } from 'qrcode'
import { SHEET_LAYOUTS, type SheetLayout } from './labelSheets'

export interface TagPrint {
  readonly sheet: LabelSheet
  /** Labels of the first sheet that are used up already. */
  readonly skip: number
  readonly crewName: string
}

type Doc = PDFKit.PDFDocument

const require = createRequire(import.meta.url)
const FONT = (subset: string, weight: number): string =>
  require.resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${subset}-${weight}-normal.woff`,
  )

const INK = '#1c272c'
const MARK_COLOURS: Record<Exclude<StartMark, 'none'>, string> = {
  white: '#ffffff',
  yellow: '#f2c500',
  orange: '#e8730c',
  red: '#c3271b',
  green: '#1e7d3c',
  blue: '#1c5fa8',
}
/** Light modules that a reader wants around a QR code. ISO/IEC 18004, from memory. */
const QUIET_MODULES = 4

/** A QR code as one path of squares, black on the paper's white. */
function drawQr(doc: Doc, text: string, x: number, y: number, size: number): void {
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

interface Line {
  readonly text: string
  readonly x: number
  readonly y: number
  readonly size: number
  readonly weight: 400 | 700
  /** Wider than this, it is written smaller. */
  readonly room: number
}

function drawLine(doc: Doc, { text, x, y, size, weight, room }: Line): void {
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

function drawLabel(doc: Doc, loop: LoopCard, layout: SheetLayout, x: number, y: number, crewName: string): void {
  const { height, width } = layout
  const pad = height * 0.06
  const qr = height - 2 * pad
  drawQr(doc, tagCode(loop.tag), x + pad, y + pad, qr)
  const left = x + pad + qr + pad / 2
  const room = width - qr - pad * 2.5
  const line = (text: string, top: number, size: number, weight: 400 | 700, indent = 0): void => {
    drawLine(doc, { text, x: left + indent, y: top, size, weight, room: room - indent })
  }
  const { spec } = loop
  line(loop.tag, y + pad, height * 0.3, 700)
  line(PITCH_PROFILES[spec.pitchClass].name, y + height * 0.42, height * 0.135, 700)
  line(`${writeMm(spec.gaugeUm, 1)} · ${spec.driveLinks} links`, y + height * 0.57, height * 0.125, 400)
  const { startMark } = spec
  const last = y + height * 0.76
  if (startMark === undefined || startMark === 'none') line(crewName, last, height * 0.1, 400)
  else {
    const r = height * 0.06
    doc
      .circle(left + r, last + r, r)
      .lineWidth(0.8)
      .fillAndStroke(MARK_COLOURS[startMark], INK)
    line(`start mark ${startMark}`, last, height * 0.1, 400, r * 2.8)
  }
}

/**
 * Tags as a PDF for a sheet of labels: the tag in large letters, a QR code of it, pitch, gauge and
 * drive links, and the colour of the start mark.
 */
export async function printTags(loops: readonly LoopCard[], { sheet, skip, crewName }: TagPrint): Promise<Buffer> {
  const layout = SHEET_LAYOUTS[sheet]
  const doc = new PDFDocument({
    autoFirstPage: false,
    size: [...layout.page],
    margin: 0,
    info: { Title: 'Tags', Author: crewName },
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
  const perPage = layout.across * layout.down
  const first = Math.min(skip, perPage - 1)
  loops.forEach((loop, i) => {
    const place = (i + first) % perPage
    if (i === 0 || place === 0) doc.addPage()
    const column = place % layout.across
    const row = Math.floor(place / layout.across)
    drawLabel(doc, loop, layout, layout.left + column * layout.stepX, layout.top + row * layout.stepY, crewName)
  })
  doc.end()
  return done
}
