import { fromMm, readLength, UM_PER_INCH, type LengthReading, type Um } from '../units'

/** What one line of a caliper says. */
export type CaliperLine =
  | { readonly ok: true; readonly um: Um; readonly unit: 'mm' | 'inch'; readonly lowBattery: boolean }
  | {
      readonly ok: false
      /** The instrument says so itself, or the line was cut short on its way. */
      readonly why: 'error' | 'garbled'
    }

/**
 * Digits have their places, so that a line that lost one of them is no other reading: four before the point and two
 * behind it in millimetres, two and four in inches.
 */
const LINE = /^([+-])(?:(\d{4}\.\d{2}) mm|(\d{2}\.\d{4}) in)( LOW)?$/

/**
 * Reads one line that a caliper sends; `docs/bench/caliper.md` describes the format.
 *
 * @example
 * readCaliperLine('+0008.24 mm') // { ok: true, um: 8240, unit: 'mm', lowBattery: false }
 */
export function readCaliperLine(line: string): CaliperLine {
  const text = line.trim()
  if (/^ERR\b/.test(text)) return { ok: false, why: 'error' }
  const found = LINE.exec(text)
  if (found === null) return { ok: false, why: 'garbled' }
  const [, sign, mm, inch, low] = found
  const um = mm === undefined ? Math.round(Number(inch) * UM_PER_INCH) : fromMm(Number(mm))
  // A length below nothing is a zero that was set wrong.
  if (sign === '-' && um > 0) return { ok: false, why: 'error' }
  return { ok: true, um, unit: mm === undefined ? 'inch' : 'mm', lowBattery: low !== undefined }
}

/**
 * A length that stands in a field: as a person types it, or as a caliper does that types its own lines.
 *
 * @param bare the unit of a figure that names none
 */
export function readMeasured(text: string, bare: 'mm' | 'inch'): LengthReading {
  const line = readCaliperLine(text)
  return line.ok ? { ok: true, um: line.um, unit: line.unit, assumed: false, fraction: false } : readLength(text, bare)
}

/** A length as a caliper sends it. `writeCaliperLine(8240, 'mm') // '+0008.24 mm'` */
export function writeCaliperLine(um: Um, unit: 'mm' | 'inch', lowBattery = false): string {
  const low = lowBattery ? ' LOW' : ''
  if (unit === 'inch') return `+${(um / UM_PER_INCH).toFixed(4).padStart(7, '0')} in${low}`
  return `+${(um / 1000).toFixed(2).padStart(7, '0')} mm${low}`
}

/** Longer than this no line is: what came without an end is thrown away. */
const LONGEST = 64

/** Puts lines together from what comes in pieces, as it does over a cable. */
export class LineReader {
  private rest = ''

  /** @returns the lines that are whole by now */
  take(chunk: string): string[] {
    const lines = (this.rest + chunk).split(/\r\n|\n|\r/)
    this.rest = (lines.pop() ?? '').slice(-LONGEST)
    return lines.filter((line) => line.trim() !== '')
  }
}
