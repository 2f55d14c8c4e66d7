import { tagCode, type JobSheet, type SheetRow } from '@undercliff/core'
import { drawLine, drawQr, INK, widthOf, writePdf, type Doc } from './pdf'

/** A4 in points, and the room that printers want around. */
const PAGE = [595.28, 841.89] as const
const MARGIN = 36
const QR = 84
const ROW = { most: 17, least: 8.5 } as const

interface At {
  readonly x: number
  readonly room: number
}

/** A text over as many lines as it takes. Returns where the next one begins. */
function drawText(doc: Doc, text: string, y: number, size: number, { x, room }: At, weight: 400 | 700 = 400): number {
  let line = ''
  let top = y
  const put = (): void => {
    drawLine(doc, { text: line, x, y: top, size, weight, room })
    top += size * 1.25
  }
  for (const word of text.split(' ')) {
    const longer = line === '' ? word : `${line} ${word}`
    if (line !== '' && widthOf(doc, longer, size, weight) > room) {
      put()
      line = word
    } else line = longer
  }
  if (line !== '') put()
  return top
}

function drawRow(doc: Doc, row: SheetRow, y: number, height: number, { x, room }: At): void {
  const size = Math.min(10, height * 0.68)
  const column = (text: string, part: number, wide: number, weight: 400 | 700 = 400): void => {
    drawLine(doc, { text, x: x + room * part, y: y + height * 0.14, size, weight, room: room * wide - 4 })
  }
  column(row.hurt ? `${row.name} !` : row.name, 0, 0.13, 700)
  column(row.length, 0.13, 0.23)
  column(`to ${row.target}`, 0.36, 0.2, 700)
  column(row.count, 0.56, 0.22)
  // A box to tick, and room to write what it measures.
  const box = height * 0.6
  doc
    .lineWidth(0.7)
    .rect(x + room * 0.79, y + height * 0.16, box, box)
    .stroke(INK)
  doc
    .moveTo(x + room * 0.86, y + height * 0.82)
    .lineTo(x + room - 4, y + height * 0.82)
    .stroke(INK)
}

function drawHead(doc: Doc, sheet: JobSheet, tag: string, crewName: string): number {
  const wide: At = { x: MARGIN, room: PAGE[0] - 2 * MARGIN - QR - 12 }
  drawQr(doc, tagCode(tag), PAGE[0] - MARGIN - QR, MARGIN - 8, QR)
  let y = drawText(doc, sheet.title, MARGIN, 20, wide, 700)
  y = drawText(doc, `${sheet.what} · ${sheet.minutes} · ${crewName}`, y, 10, wide)
  y = drawText(doc, 'Done by ______________________   on ______________   minutes ______', y + 6, 10, wide)
  return Math.max(y, MARGIN + QR)
}

/** A job sheet as a PDF of one A4 page, with a QR code that opens the loop. */
export function printJobSheet(sheet: JobSheet, tag: string, crewName: string): Promise<Buffer> {
  return writePdf({ title: sheet.title, author: crewName, size: PAGE }, (doc) => {
    doc.addPage()
    const room = PAGE[0] - 2 * MARGIN
    const half = room / 2 - 8
    const [left, right]: readonly [At, At] = [
      { x: MARGIN, room: half },
      { x: MARGIN + room / 2 + 8, room: half },
    ]
    const top = drawHead(doc, sheet, tag, crewName) + 8
    let setUp = drawText(doc, 'Set-up', top, 12, left, 700)
    for (const [name, value] of sheet.setUp) setUp = drawText(doc, `${name}: ${value}`, setUp, 9, left)
    let cautions = drawText(doc, 'Mind', top, 12, right, 700)
    for (const caution of sheet.cautions) cautions = drawText(doc, `• ${caution}`, cautions, 9, right)
    const table = Math.max(setUp, cautions) + 10
    const foot = 34
    const most = Math.max(1, ...sheet.sides.map(({ rows }) => rows.length))
    const height = Math.max(ROW.least, Math.min(ROW.most, (PAGE[1] - MARGIN - foot - table - 18) / most))
    sheet.sides.forEach(({ title, rows }, i) => {
      const at = i === 0 ? left : right
      const y = drawText(doc, `${title}: done, and length after`, table, 11, at, 700)
      rows.forEach((row, place) => {
        drawRow(doc, row, y + place * height, height, at)
      })
    })
    drawText(doc, sheet.gauges, PAGE[1] - MARGIN - foot + 12, 9, { x: MARGIN, room })
  })
}
