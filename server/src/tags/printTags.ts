import type { LabelSheet } from '@undercliff/contract'
import { PITCH_PROFILES, tagCode, writeMm, type LoopCard, type StartMark } from '@undercliff/core'
import { drawLine, drawQr, INK, writePdf, type Doc } from '../paper/pdf'
import { SHEET_LAYOUTS, type SheetLayout } from './labelSheets'

export interface TagPrint {
  readonly sheet: LabelSheet
  /** Labels of the first sheet that are used up already. */
  readonly skip: number
  readonly crewName: string
}

const MARK_COLOURS: Record<Exclude<StartMark, 'none'>, string> = {
  white: '#ffffff',
  yellow: '#f2c500',
  orange: '#e8730c',
  red: '#c3271b',
  green: '#1e7d3c',
  blue: '#1c5fa8',
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
export function printTags(loops: readonly LoopCard[], { sheet, skip, crewName }: TagPrint): Promise<Buffer> {
  const layout = SHEET_LAYOUTS[sheet]
  const perPage = layout.across * layout.down
  const first = Math.min(skip, perPage - 1)
  return writePdf({ title: 'Tags', author: crewName, size: layout.page }, (doc) => {
    loops.forEach((loop, i) => {
      const place = (i + first) % perPage
      if (i === 0 || place === 0) doc.addPage()
      const column = place % layout.across
      const row = Math.floor(place / layout.across)
      drawLabel(doc, loop, layout, layout.left + column * layout.stepX, layout.top + row * layout.stepY, crewName)
    })
  })
}
