import {
  pitchName,
  pitchUmOf,
  SEQUENCE_NAMES,
  SHELF_NAMES,
  ACTION_WORDS,
  CUTTER_TYPE_NAMES,
  PITCH_PROFILES,
  type Entry,
  type Place,
  type SawEntry,
} from '@undercliff/core'
import { asc, eq } from 'drizzle-orm'
import { stringify } from 'csv-stringify/sync'
import type { Database } from '../database/connect'
import { entries, loops, sawEntries } from '../database/schema'
import { entryOf } from './rows'
import { sawEntryOf } from './saws'
import { readShed } from './shed'

/** Tables that can be taken away as CSV. */
export const TABLES = ['loops', 'saws', 'people', 'profiles', 'log', 'saw-log'] as const
export type TableName = (typeof TABLES)[number]

type Row = Record<string, string | number | boolean | null>

const BASE: ReadonlySet<string> = new Set([
  'id',
  'loopId',
  'kind',
  'happenedAt',
  'writtenAt',
  'writtenBy',
  'personId',
  'note',
])

/** What an entry carries beyond what every entry has, as JSON in one cell. */
const details = (entry: Entry | SawEntry): string =>
  JSON.stringify(Object.fromEntries(Object.entries(entry).filter(([key]) => !BASE.has(key))))

const placeWords = (place: Place): string =>
  place.at === 'shop'
    ? `shop: ${place.shop}`
    : place.at === 'saw' || place.at === 'retired'
      ? place.at
      : SHELF_NAMES[place.at]

async function rowsOf(db: Database, crewId: string, table: TableName): Promise<Row[]> {
  const shed = await readShed(db, crewId)
  const sawName = (id: string | null) => shed.saws.find((saw) => saw.id === id)?.nickname ?? ''
  const personName = (id: string | null) => shed.people.find((person) => person.id === id)?.name ?? ''
  const logColumns = (entry: Entry | SawEntry): Row => ({
    kind: entry.kind,
    happened_at: entry.happenedAt,
    written_at: entry.writtenAt,
    person: personName(entry.personId),
    written_by: personName(entry.writtenBy),
    note: entry.note ?? '',
    details: details(entry),
    id: entry.id,
  })
  switch (table) {
    case 'people':
      return shed.people.map(({ id, name, role }) => ({ name, role, id }))
    case 'saws':
      return shed.saws.map((saw) => ({
        nickname: saw.nickname,
        pitch: PITCH_PROFILES[saw.pitchClass].name,
        pitch_inch: pitchName(pitchUmOf(saw)),
        gauge_mm: saw.gaugeUm / 1000,
        drive_links: saw.driveLinks,
        nose_pitch: saw.nosePitchClass == null ? '' : PITCH_PROFILES[saw.nosePitchClass].name,
        due: saw.due.join(' '),
        id: saw.id,
      }))
    case 'profiles':
      return shed.profiles.map(({ id, name, values }) => ({ name, ...values, id }))
    case 'saw-log': {
      const rows = await db
        .select()
        .from(sawEntries)
        .where(eq(sawEntries.crewId, crewId))
        .orderBy(asc(sawEntries.arrival))
      return rows.map(sawEntryOf).map((entry) => ({ saw: sawName(entry.sawId), ...logColumns(entry) }))
    }
    case 'loops':
      return shed.loops.map(
        ({
          tag,
          spec,
          sawId,
          place,
          retired,
          action,
          fitForUse,
          minutes,
          sharpeningsLeft,
          tooth,
          lastEntryAt,
          loopId,
        }) => ({
          tag,
          pitch: PITCH_PROFILES[spec.pitchClass].name,
          gauge_mm: spec.gaugeUm / 1000,
          drive_links: spec.driveLinks,
          cutter_type: CUTTER_TYPE_NAMES[spec.cutterType],
          sequence: SEQUENCE_NAMES[spec.sequence],
          file_mm: spec.fileUm / 1000,
          saw: sawName(sawId),
          place: placeWords(place),
          retired,
          verdict: ACTION_WORDS[action],
          fit_for_use: fitForUse,
          minutes: Math.round(minutes.likely),
          cutter_left_percent: Math.round(tooth.left * 100),
          cutter_left_known: tooth.known,
          sharpenings_left_low: sharpeningsLeft.low,
          sharpenings_left: sharpeningsLeft.likely,
          sharpenings_left_high: sharpeningsLeft.high,
          last_entry_at: lastEntryAt,
          id: loopId,
        }),
      )
    case 'log': {
      const tags = new Map(
        (await db.select().from(loops).where(eq(loops.crewId, crewId))).map(({ id, tag }) => [id, tag]),
      )
      const rows = await db.select().from(entries).where(eq(entries.crewId, crewId)).orderBy(asc(entries.arrival))
      return rows.map(entryOf).map((entry) => ({ tag: tags.get(entry.loopId) ?? '', ...logColumns(entry) }))
    }
  }
}

/**
 * A table as CSV (RFC 4180, UTF-8, CRLF, a header). Cells that a spreadsheet would take for a
 * formula are written as text.
 */
export async function writeTable(db: Database, crewId: string, table: TableName): Promise<string> {
  return stringify(await rowsOf(db, crewId, table), {
    header: true,
    record_delimiter: 'windows',
    escape_formulas: true,
    cast: { boolean: (value) => (value ? 'yes' : 'no') },
  })
}
