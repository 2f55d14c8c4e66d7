import type { DateOrder } from '@undercliff/core'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'] as const

const HALF_A_DAY_MS = 12 * 3_600_000

interface Day {
  readonly year: number | null
  /** From 0. */
  readonly month: number
  readonly day: number
}

const yearOf = (text: string | undefined): number | null =>
  text === undefined || text === '' ? null : Number(text) < 100 ? 2000 + Number(text) : Number(text)

function readDay(text: string, order: DateOrder): Day | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text)
  if (iso !== null) return { year: Number(iso[1]), month: Number(iso[2]) - 1, day: Number(iso[3]) }
  const figures = /^(\d{1,2})[./-](\d{1,2})[./-]?(\d{2}|\d{4})?$/.exec(text)
  if (figures !== null) {
    const [first, second] = [Number(figures[1]), Number(figures[2])]
    const [day, month] = order === 'monthFirst' ? [second, first] : [first, second]
    return { year: yearOf(figures[3]), month: month - 1, day }
  }
  const named = /^(\d{1,2})?\.?\s*([a-z]{3})[a-z]*\.?\s*(\d{1,2}(?!\d))?,?\s*(\d{4})?$/.exec(text)
  const month = MONTHS.indexOf((named?.[2] ?? '') as (typeof MONTHS)[number])
  const day = Number(named?.[1] ?? named?.[3] ?? NaN)
  return named === null || month < 0 || Number.isNaN(day) ? null : { year: yearOf(named[4]), month, day }
}

function readTime(text: string): readonly [number, number] | null {
  const match = /^(\d{1,2})[:.h](\d{2})\s*(am|pm)?$/.exec(text)
  if (match === null) return null
  const half = match[3]
  const hours = half === undefined ? Number(match[1]) : (Number(match[1]) % 12) + (half === 'pm' ? 12 : 0)
  const minutes = Number(match[2])
  return hours > 23 || minutes > 59 ? null : [hours, minutes]
}

/** The day that a text names, at the present time of day; null where it names none. */
function onDay(text: string, order: DateOrder, now: Date): Date | null {
  const at = new Date(now)
  if (text === '' || text === 'today') return at
  if (text === 'yesterday') {
    at.setDate(at.getDate() - 1)
    return at
  }
  const day = readDay(text, order)
  if (day === null) return null
  at.setFullYear(day.year ?? now.getFullYear(), day.month, day.day)
  if (at.getMonth() !== day.month || at.getDate() !== day.day) return null
  if (day.year === null && at.getTime() - now.getTime() > HALF_A_DAY_MS) at.setFullYear(at.getFullYear() - 1)
  return at
}

/**
 * A moment as people write it, by the clock on the wall: `14:30`, `yesterday 15:00`, `24.11. 14:30`, `11/24`,
 * `24 Nov`, `2026-11-24 14:30`. A day without a year is the last one that has been; a day without a time is its noon,
 * or now where it is today.
 *
 * @param now the present
 * @returns the moment, or null where it is none
 */
export function readWhen(text: string, order: DateOrder, now: Date): Date | null {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/t(?=\d\d:)/, ' ')
  const [, before = '', timeText] = /^(.*?)\s?(\d{1,2}[:h]\d{2}\s?(?:am|pm)?)?$/.exec(plain) ?? []
  const time = timeText === undefined ? null : readTime(timeText)
  const dayText = before.replace(/,$/, '').trim()
  if ((time === null && (timeText !== undefined || dayText === '')) || plain === '') return null
  const at = onDay(dayText, order, now)
  if (at === null) return null
  if (time !== null) at.setHours(time[0], time[1], 0, 0)
  else if (at.toDateString() !== now.toDateString()) at.setHours(12, 0, 0, 0)
  return at
}
