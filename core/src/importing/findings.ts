import type { ImportField } from './columns'
import type { Cell } from './readCells'

/** What is to know of a row: of one of its cells, or of all of it. */
export interface Remark {
  /** The field it is about; null for the whole row. */
  readonly field: ImportField | null
  readonly message: string
  /** Somebody may well want it otherwise; what is only told does not ask. */
  readonly asks: boolean
}

/** Gathers what is in doubt and what is wrong in a row. */
export class Findings {
  readonly doubts: Remark[] = []
  readonly problems: Remark[] = []

  /** The value of a cell; undefined, and a problem, where it cannot be read. */
  value<T>(field: ImportField, cell: Cell<T>): T | undefined {
    if (!cell.ok) {
      this.wrong(field, cell.message)
      return undefined
    }
    if (cell.doubt !== undefined) this.ask(field, cell.doubt)
    return cell.value
  }
  wrong(field: ImportField | null, message: string): void {
    this.problems.push({ field, message, asks: true })
  }
  /** Something was taken for granted that may be otherwise. */
  ask(field: ImportField | null, message: string): void {
    this.doubts.push({ field, message, asks: true })
  }
  tell(field: ImportField | null, message: string): void {
    this.doubts.push({ field, message, asks: false })
  }
}
