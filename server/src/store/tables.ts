import {
  pitchName,
  pitchUmOf,
  SEQUENCE_NAMES,
  placeWord,
  ACTION_WORDS,
  CUTTER_TYPE_NAMES,
  PITCH_PROFILES,
  UM_PER_MM,
  type Entry,
  type LoopCard,
  type Place,
  type SawEntry,
} from '@undercliff/core'
import type { Saw, ShedAnswer } from '@undercliff/contract'
import { asc, eq } from 'drizzle-orm'
import { stringify } from 'csv-stringify/sync'
import type { Database } from '../database/connect'
import { entries, loops, sawEntries } from '../database/schema'
import { detailsOf, entryOf, sawEntryOf } from './rows'
import { readShed } from './shed'

/** Tables that can be taken away as CSV. */
export const TABLES = ['loops', 'saws', 'people', 'profiles', 'log', 'saw-log'] as const
export type TableName = (typeof TABLES)[number]

type Row = Record<string, string | number | boolean | null>

/** What an entry carries beyond what every entry has, as JSON in one cell. */
const details = (entry: Entry | SawEntry): string => JSON.stringify(detailsOf(entry))

const placeCell = (place: Place): string => (place.at === 'shop' ? `shop: ${place.shop}` : placeWord(place))

/** What tables are made from: the shed, and what things and people are called in it. */
class Names {
  constructor(readonly shed: ShedAnswer) {}

  saw(id: string | null): string {
    return this.shed.saws.find((saw) => saw.id === id)?.nickname ?? ''
  }

  person(id: string | null): string {
    return this.shed.people.find((person) => person.id === id)?.name ?? ''
  }

  /** Columns that both logs have. */
  entry(entry: Entry | SawEntry): Row {
    return {
      kind: entry.kind,
      happened_at: entry.happenedAt,
      written_at: entry.writtenAt,
      person: this.person(entry.personId),
      written_by: this.person(entry.writtenBy),
      note: entry.note ?? '',
      details: details(entry),
      id: entry.id,
    }
  }

  loop({ spec, minutes, sharpeningsLeft, tooth, ...loop }: LoopCard): Row {
    return {
      tag: loop.tag,
      pitch: PITCH_PROFILES[spec.pitchClass].name,
      gauge_mm: spec.gaugeUm / UM_PER_MM,
      drive_links: spec.driveLinks,
      cutter_type: CUTTER_TYPE_NAMES[spec.cutterType],
      sequence: SEQUENCE_NAMES[spec.sequence],
      file_mm: spec.fileUm / UM_PER_MM,
      saw: this.saw(loop.sawId),
      place: placeCell(loop.place),
      retired: loop.retired,
      verdict: ACTION_WORDS[loop.action],
      fit_for_use: loop.fitForUse,
      minutes: Math.round(minutes.likely),
      cutter_left_percent: Math.round(tooth.left * 100),
      cutter_left_known: tooth.known,
      sharpenings_left_low: sharpeningsLeft.low,
      sharpenings_left: sharpeningsLeft.likely,
      sharpenings_left_high: sharpeningsLeft.high,
      last_entry_at: loop.lastEntryAt,
      id: loop.loopId,
    }
  }
}

const sawRow = (saw: Saw): Row => ({
  nickname: saw.nickname,
  pitch: saw.pitchClass === null ? '' : PITCH_PROFILES[saw.pitchClass].name,
  pitch_inch: saw.pitchClass === null ? '' : pitchName(pitchUmOf({ pitchClass: saw.pitchClass })),
  gauge_mm: saw.gaugeUm === null ? '' : saw.gaugeUm / UM_PER_MM,
  drive_links: saw.driveLinks ?? '',
  nose_pitch: saw.nosePitchClass == null ? '' : PITCH_PROFILES[saw.nosePitchClass].name,
  due: saw.due.join(' '),
  id: saw.id,
})

async function logRows(db: Database, crewId: string, names: Names): Promise<Row[]> {
  const tagged = await db.select().from(loops).where(eq(loops.crewId, crewId))
  const tags = new Map(tagged.map(({ id, tag }) => [id, tag]))
  const rows = await db.select().from(entries).where(eq(entries.crewId, crewId)).orderBy(asc(entries.arrival))
  return rows.map(entryOf).map((entry) => ({ tag: tags.get(entry.loopId) ?? '', ...names.entry(entry) }))
}

async function sawLogRows(db: Database, crewId: string, names: Names): Promise<Row[]> {
  const rows = await db.select().from(sawEntries).where(eq(sawEntries.crewId, crewId)).orderBy(asc(sawEntries.arrival))
  return rows.map(sawEntryOf).map((entry) => ({ saw: names.saw(entry.sawId), ...names.entry(entry) }))
}

async function rowsOf(db: Database, crewId: string, table: TableName): Promise<Row[]> {
  const shed = await readShed(db, crewId)
  const names = new Names(shed)
  switch (table) {
    case 'people':
      return shed.people.map(({ id, name, role }) => ({ name, role, id }))
    case 'saws':
      return shed.saws.map(sawRow)
    case 'profiles':
      return shed.profiles.map(({ id, name, values }) => ({ name, ...values, id }))
    case 'loops':
      return shed.loops.map((loop) => names.loop(loop))
    case 'log':
      return logRows(db, crewId, names)
    case 'saw-log':
      return sawLogRows(db, crewId, names)
  }
}

/**
 * Where a spreadsheet takes a cell for a formula, or would once it has cut the blanks before it: at its beginning, and
 * after what another setting of the same spreadsheet parts cells or rows at, whatever the quotes around them say.
 */
const BEGINS = '[\\s\\u0000]*[=+\\-@\\uff1d\\uff0b\\uff0d\\uff20|%]'
const FIRST = new RegExp(`^${BEGINS}|^[\\t\\r]`, 'u')
const LATER = new RegExp(`(?<=[;\\t\\r\\n\\v\\f\\u0085\\u2028\\u2029])(?=${BEGINS})`, 'gu')
/** What no reader is to take for the end of a cell or a row: cells that have it are quoted. */
const PARTS = /[;\t\r\n\v\f\u0085\u2028\u2029]/u

/** A cell that is text to every spreadsheet. */
const asText = (value: string): string => (FIRST.test(value) ? "'" : '') + value.replace(LATER, "'")

/**
 * A table as CSV (RFC 4180, UTF-8, CRLF, a header). Cells that a spreadsheet would take for a
 * formula are written as text.
 */
export async function writeTable(db: Database, crewId: string, table: TableName): Promise<string> {
  return stringify(await rowsOf(db, crewId, table), {
    header: true,
    record_delimiter: 'windows',
    quoted_match: PARTS,
    cast: {
      boolean: (value) => (value ? 'yes' : 'no'),
      string: asText,
    },
  })
}
