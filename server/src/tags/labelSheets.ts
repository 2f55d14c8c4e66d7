import type { LabelSheet } from '@undercliff/contract'

/** Points (1/72 inch) in a millimetre. */
const MM = 72 / 25.4
const INCH = 72

/** Where the labels of a sheet lie, in points from the upper left corner. */
export interface SheetLayout {
  readonly page: readonly [number, number]
  readonly across: number
  readonly down: number
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
  /** From the left edge of one label to that of the next, and from top to top. */
  readonly stepX: number
  readonly stepY: number
}

const A4 = [210 * MM, 297 * MM] as const
const LETTER = [8.5 * INCH, 11 * INCH] as const

/** Sheets of labels that are sold everywhere. Sizes are common practice. */
export const SHEET_LAYOUTS: Readonly<Record<LabelSheet, SheetLayout>> = {
  'a4-3x8': {
    page: A4,
    across: 3,
    down: 8,
    left: 0,
    top: 0.5 * MM,
    width: 70 * MM,
    height: 37 * MM,
    stepX: 70 * MM,
    stepY: 37 * MM,
  },
  'a4-3x7': {
    page: A4,
    across: 3,
    down: 7,
    left: 7.25 * MM,
    top: 15.15 * MM,
    width: 63.5 * MM,
    height: 38.1 * MM,
    stepX: 66 * MM,
    stepY: 38.1 * MM,
  },
  'a4-2x7': {
    page: A4,
    across: 2,
    down: 7,
    left: 4.65 * MM,
    top: 15.15 * MM,
    width: 99.1 * MM,
    height: 38.1 * MM,
    stepX: 101.6 * MM,
    stepY: 38.1 * MM,
  },
  'letter-3x10': {
    page: LETTER,
    across: 3,
    down: 10,
    left: 0.1875 * INCH,
    top: 0.5 * INCH,
    width: 2.625 * INCH,
    height: INCH,
    stepX: 2.75 * INCH,
    stepY: INCH,
  },
}
