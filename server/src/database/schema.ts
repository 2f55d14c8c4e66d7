import { ENTRY_KINDS, PITCH_CLASSES, type Action, type EntryKind, type HouseRules, type LoopCard, type LoopState, type PitchClass } from '@undercliff/core'
import { sql } from 'drizzle-orm'
import {
  bigint,
  check,
  foreignKey,
  index,
  int,
  mysqlTable,
  primaryKey,
  smallint,
  unique,
  varchar,
} from 'drizzle-orm/mysql-core'
import { identifier, instant, jsonText } from './columns'

const quoted = (values: readonly string[]) => sql.raw(values.map((value) => `'${value}'`).join(', '))

/** A crew; every other row belongs to one. */
export const crews = mysqlTable(
  'crews',
  {
    id: identifier('id').primaryKey(),
    name: varchar('name', { length: 60 }).notNull(),
    lengths: varchar('lengths', { length: 8 }).$type<'mm' | 'inch' | 'both'>().notNull(),
    rules: jsonText('rules').$type<HouseRules>().notNull(),
    /** Grows by one with every change to anything of the crew's. */
    revision: int('revision').notNull().default(0),
  },
  (table) => [check('crews_lengths', sql`${table.lengths} in ('mm', 'inch', 'both')`)],
)

export const people = mysqlTable(
  'people',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id),
    id: identifier('id').notNull(),
    name: varchar('name', { length: 40 }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    unique('people_name').on(table.crewId, table.name),
  ],
)

export const saws = mysqlTable(
  'saws',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id),
    id: identifier('id').notNull(),
    nickname: varchar('nickname', { length: 40 }).notNull(),
    pitchClass: varchar('pitch_class', { length: 16 }).$type<PitchClass>().notNull(),
    gaugeUm: int('gauge_um').notNull(),
    driveLinks: smallint('drive_links').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    unique('saws_nickname').on(table.crewId, table.nickname),
    check('saws_pitch_class', sql`${table.pitchClass} in (${quoted(PITCH_CLASSES)})`),
    check('saws_gauge', sql`${table.gaugeUm} between 800 and 3000`),
    check('saws_drive_links', sql`${table.driveLinks} between 20 and 250`),
  ],
)

/** A loop's identity. What happened to it is in its entries, what it is now in its snapshot. */
export const loops = mysqlTable(
  'loops',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id),
    id: identifier('id').notNull(),
    tag: varchar('tag', { length: 12 }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.crewId, table.id] }), unique('loops_tag').on(table.crewId, table.tag)],
)

/** The log. Rows are only ever added. */
export const entries = mysqlTable(
  'entries',
  {
    crewId: identifier('crew_id').notNull(),
    id: identifier('id').notNull(),
    loopId: identifier('loop_id').notNull(),
    /** Order of arrival. */
    arrival: bigint('arrival', { mode: 'number' }).autoincrement().notNull(),
    kind: varchar('kind', { length: 16 }).$type<EntryKind>().notNull(),
    happenedAt: instant('happened_at').notNull(),
    writtenAt: instant('written_at').notNull(),
    personId: identifier('person_id'),
    /** The entry that this one strikes out. */
    strikes: identifier('strikes'),
    note: varchar('note', { length: 2000 }),
    /** What this kind of entry carries; lengths are whole micrometres. */
    body: jsonText('body').$type<Record<string, unknown>>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    unique('entries_arrival').on(table.arrival),
    unique('entries_struck_once').on(table.crewId, table.strikes),
    index('entries_of_loop').on(table.crewId, table.loopId, table.happenedAt),
    foreignKey({ name: 'entries_loop', columns: [table.crewId, table.loopId], foreignColumns: [loops.crewId, loops.id] }),
    foreignKey({
      name: 'entries_person',
      columns: [table.crewId, table.personId],
      foreignColumns: [people.crewId, people.id],
    }),
    foreignKey({ name: 'entries_strikes', columns: [table.crewId, table.strikes], foreignColumns: [table.crewId, table.id] }),
    check('entries_kind', sql`${table.kind} in (${quoted(ENTRY_KINDS)})`),
    check('entries_corrections', sql`(${table.kind} = 'corrected') = (${table.strikes} is not null)`),
  ],
)

/** The last state of each loop, written in the same transaction as the entry that made it. */
export const snapshots = mysqlTable(
  'snapshots',
  {
    crewId: identifier('crew_id').notNull(),
    loopId: identifier('loop_id').notNull(),
    /** The saw it is on; no saw holds two loops. */
    sawId: identifier('saw_id'),
    action: varchar('action', { length: 16 }).$type<Action>().notNull(),
    foldVersion: int('fold_version').notNull(),
    state: jsonText('state').$type<LoopState>().notNull(),
    card: jsonText('card').$type<LoopCard>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.loopId] }),
    unique('snapshots_one_loop_a_saw').on(table.crewId, table.sawId),
    index('snapshots_action').on(table.crewId, table.action),
    foreignKey({ name: 'snapshots_loop', columns: [table.crewId, table.loopId], foreignColumns: [loops.crewId, loops.id] }),
    foreignKey({ name: 'snapshots_saw', columns: [table.crewId, table.sawId], foreignColumns: [saws.crewId, saws.id] }),
  ],
)
