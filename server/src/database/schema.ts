import {
  DATE_ORDERS,
  ENTRY_KINDS,
  HANDS,
  KIT_GONE,
  KIT_KINDS,
  LENGTH_PREFERENCES,
  PITCH_CLASSES,
  ROLES,
  SAW_ENTRY_KINDS,
  SHELVES,
  type Action,
  type CrewProfile,
  type DateOrder,
  type EntryKind,
  type Hand,
  type HouseRules,
  type KitGone,
  type KitKind,
  type Learned,
  type LengthPreference,
  type LoopCard,
  type LoopState,
  type PitchClass,
  type Place,
  type Role,
  type SawEntryKind,
  type Stint,
} from '@undercliff/core'
import type { UnderWay } from '@undercliff/contract'
import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
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
import { identifier, instant, jsonText, mediumBlob } from './columns'

const quoted = (values: readonly string[]) => sql.raw(values.map((value) => `'${value}'`).join(', '))

/** A crew; every other row belongs to one. */
export const crews = mysqlTable(
  'crews',
  {
    id: identifier('id').primaryKey(),
    name: varchar('name', { length: 60 }).notNull(),
    lengths: varchar('lengths', { length: 8 }).$type<LengthPreference>().notNull(),
    dates: varchar('dates', { length: 10 }).$type<DateOrder>().notNull().default('dayFirst'),
    /** What a lead decides. What was learned stood here too once, and holds until something is learned anew. */
    rules: jsonText('rules').$type<Partial<HouseRules>>().notNull(),
    learned: jsonText('learned').$type<Learned>(),
    /** Grows by one with every change to anything of the crew's. */
    revision: int('revision').notNull().default(0),
    /** The invented crew that ships; its sign-ins are said on the sign-in screen. */
    demo: boolean('demo').notNull().default(false),
  },
  (table) => [
    check('crews_lengths', sql`${table.lengths} in (${quoted(LENGTH_PREFERENCES)})`),
    check('crews_dates', sql`${table.dates} in (${quoted(DATE_ORDERS)})`),
  ],
)

export const people = mysqlTable(
  'people',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id),
    id: identifier('id').notNull(),
    name: varchar('name', { length: 40 }).notNull(),
    role: varchar('role', { length: 8 }).$type<Role>().notNull().default('sawyer'),
    /** The side on which they say that their hand bites less; null where nobody said. */
    weakSide: varchar('weak_side', { length: 5 }).$type<Hand>(),
    /** They left the crew: what they did stays theirs, and nobody picks them any more. */
    gone: boolean('gone').notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    unique('people_name').on(table.crewId, table.name),
    check('people_role', sql`${table.role} in (${quoted(ROLES)})`),
    check('people_weak_side', sql`${table.weakSide} in (${quoted(HANDS)})`),
  ],
)

/** How a person signs in. */
export const accounts = mysqlTable(
  'accounts',
  {
    crewId: identifier('crew_id').notNull(),
    personId: identifier('person_id').notNull(),
    /** Unique in the whole installation: it finds the crew. */
    login: varchar('login', { length: 40 }).notNull(),
    /** Argon2id, in the PHC string format. */
    passwordHash: varchar('password_hash', { length: 200 }).notNull(),
    pinHash: varchar('pin_hash', { length: 200 }),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.personId] }),
    unique('accounts_login').on(table.login),
    foreignKey({
      name: 'accounts_person',
      columns: [table.crewId, table.personId],
      foreignColumns: [people.crewId, people.id],
    }).onUpdate('cascade'),
  ],
)

/** Where somebody is signed in. */
export const sessions = mysqlTable(
  'sessions',
  {
    /** SHA-256 of the token in the cookie, so that the table alone opens nothing. */
    tokenHash: varchar('token_hash', { length: 64 }).primaryKey(),
    /** What it is called when listed. */
    id: identifier('id').notNull(),
    crewId: identifier('crew_id').notNull(),
    personId: identifier('person_id').notNull(),
    device: varchar('device', { length: 80 }).notNull(),
    startedAt: instant('started_at').notNull(),
    seenAt: instant('seen_at').notNull(),
    /** The same by the steady clock, which says when it ends; null from before there was one. */
    seenSteadyMs: bigint('seen_steady_ms', { mode: 'number' }),
    /** A bench device that people take over by PIN. */
    shared: boolean('shared').notNull().default(false),
    byPin: boolean('by_pin').notNull().default(false),
  },
  (table) => [
    unique('sessions_id').on(table.id),
    foreignKey({
      name: 'sessions_account',
      columns: [table.crewId, table.personId],
      foreignColumns: [accounts.crewId, accounts.personId],
    })
      .onDelete('cascade')
      .onUpdate('cascade'),
  ],
)

/** Failed sign-ins, and when they are forgotten by the steady clock, in ms. */
export const tries = mysqlTable('tries', {
  key: varchar('key', { length: 255 }).primaryKey(),
  points: int('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number', unsigned: true }),
})

/** The steady clock as it was last written down, with the calendar of that moment; one row. */
export const clock = mysqlTable('clock', {
  id: int('id').primaryKey(),
  steadyMs: bigint('steady_ms', { mode: 'number' }).notNull(),
  wallMs: bigint('wall_ms', { mode: 'number' }).notNull(),
})

/** Profiles of the crew's own. */
export const profiles = mysqlTable(
  'profiles',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id),
    id: identifier('id').notNull(),
    name: varchar('name', { length: 40 }).notNull(),
    values: jsonText('spec_values').$type<CrewProfile['values']>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.crewId, table.id] }), unique('profiles_name').on(table.crewId, table.name)],
)

/** What a crew sharpens and measures with, one row each; what a kind says of itself is in the body. */
export const kitItems = mysqlTable(
  'kit_items',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id),
    id: identifier('id').notNull(),
    kind: varchar('kind', { length: 16 }).$type<KitKind>().notNull(),
    name: varchar('name', { length: 40 }).notNull(),
    version: int('version').notNull(),
    /** Why it is there no more; null while it is. */
    gone: varchar('gone', { length: 16 }).$type<KitGone>(),
    body: jsonText('body').$type<Record<string, unknown>>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    check('kit_items_kind', sql`${table.kind} in (${quoted(KIT_KINDS)})`),
    check('kit_items_gone', sql`${table.gone} in (${quoted(KIT_GONE)})`),
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
    pitchClass: varchar('pitch_class', { length: 16 }).$type<PitchClass>(),
    gaugeUm: int('gauge_um'),
    driveLinks: smallint('drive_links'),
    nosePitchClass: varchar('nose_pitch_class', { length: 16 }).$type<PitchClass>(),
    barStamp: varchar('bar_stamp', { length: 40 }),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    unique('saws_nickname').on(table.crewId, table.nickname),
    check('saws_pitch_class', sql`${table.pitchClass} in (${quoted(PITCH_CLASSES)})`),
    check('saws_gauge', sql`${table.gaugeUm} between 800 and 3000`),
    check('saws_drive_links', sql`${table.driveLinks} between 20 and 250`),
  ],
)

/** The logs of saws: bars, noses, sprockets. Rows are only ever added. */
export const sawEntries = mysqlTable(
  'saw_entries',
  {
    crewId: identifier('crew_id').notNull(),
    id: identifier('id').notNull(),
    sawId: identifier('saw_id').notNull(),
    arrival: bigint('arrival', { mode: 'number' }).autoincrement().notNull(),
    kind: varchar('kind', { length: 16 }).$type<SawEntryKind>().notNull(),
    happenedAt: instant('happened_at').notNull(),
    writtenAt: instant('written_at').notNull(),
    writtenBy: identifier('written_by'),
    personId: identifier('person_id'),
    note: varchar('note', { length: 2000 }),
    body: jsonText('body').$type<Record<string, unknown>>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    unique('saw_entries_arrival').on(table.arrival),
    index('saw_entries_of_saw').on(table.crewId, table.sawId),
    foreignKey({
      name: 'saw_entries_saw',
      columns: [table.crewId, table.sawId],
      foreignColumns: [saws.crewId, saws.id],
    }),
    foreignKey({
      name: 'saw_entries_person',
      columns: [table.crewId, table.personId],
      foreignColumns: [people.crewId, people.id],
    }).onUpdate('cascade'),
    foreignKey({
      name: 'saw_entries_writer',
      columns: [table.crewId, table.writtenBy],
      foreignColumns: [people.crewId, people.id],
    }).onUpdate('cascade'),
    check('saw_entries_kind', sql`${table.kind} in (${quoted(SAW_ENTRY_KINDS)})`),
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
    /** Who did the work. */
    personId: identifier('person_id'),
    /** Who wrote it down; null from before people signed in. */
    writtenBy: identifier('written_by'),
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
    foreignKey({
      name: 'entries_loop',
      columns: [table.crewId, table.loopId],
      foreignColumns: [loops.crewId, loops.id],
    }),
    foreignKey({
      name: 'entries_person',
      columns: [table.crewId, table.personId],
      foreignColumns: [people.crewId, people.id],
    }).onUpdate('cascade'),
    foreignKey({
      name: 'entries_writer',
      columns: [table.crewId, table.writtenBy],
      foreignColumns: [people.crewId, people.id],
    }).onUpdate('cascade'),
    foreignKey({
      name: 'entries_strikes',
      columns: [table.crewId, table.strikes],
      foreignColumns: [table.crewId, table.id],
    }),
    check('entries_kind', sql`${table.kind} in (${quoted(ENTRY_KINDS)})`),
    check('entries_corrections', sql`(${table.kind} = 'corrected') = (${table.strikes} is not null)`),
  ],
)

/** Sharpenings that are under way, one for a loop: who is at it on which device, and what has happened so far. */
export const underWay = mysqlTable(
  'under_way',
  {
    crewId: identifier('crew_id').notNull(),
    loopId: identifier('loop_id').notNull(),
    personId: identifier('person_id').notNull(),
    /** What its device calls itself; made on the device. */
    deviceId: identifier('device_id').notNull(),
    device: varchar('device', { length: 80 }).notNull(),
    version: int('version').notNull(),
    savedAt: instant('saved_at').notNull(),
    walk: jsonText('walk').$type<UnderWay['walk']>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.loopId] }),
    foreignKey({
      name: 'under_way_loop',
      columns: [table.crewId, table.loopId],
      foreignColumns: [loops.crewId, loops.id],
    }),
    foreignKey({
      name: 'under_way_person',
      columns: [table.crewId, table.personId],
      foreignColumns: [people.crewId, people.id],
    }).onUpdate('cascade'),
  ],
)

/** Rows of a backup that could not be brought in as what they were, as they stood in it. */
export const setAside = mysqlTable(
  'set_aside',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    id: identifier('id').notNull(),
    part: varchar('part', { length: 20 }).notNull(),
    why: varchar('why', { length: 500 }).notNull(),
    /** The row, which may be anything, in a list of one. */
    row: jsonText('row_text').$type<readonly [unknown]>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.crewId, table.id] })],
)

type ShedPart = 'index' | 'crew' | 'people' | 'profiles' | 'kit' | 'saw' | 'photo' | 'loop'

/** What each part of a shed looked like when it was last told, for devices that ask only for what changed since. */
export const shedParts = mysqlTable(
  'shed_parts',
  {
    crewId: identifier('crew_id')
      .notNull()
      .references(() => crews.id, { onDelete: 'cascade' }),
    kind: varchar('kind', { length: 8 }).$type<ShedPart>().notNull(),
    /** Of a saw, a photograph or a loop; empty for what there is one of. */
    id: identifier('id').notNull(),
    /** A digest; of the row that stands for all, what tells its places from those of any other. */
    digest: varchar('digest', { length: 32 }).notNull(),
    /** The crew's revision at which it was first seen to look so. */
    revision: int('revision').notNull(),
    gone: boolean('gone').notNull().default(false),
  },
  (table) => [primaryKey({ columns: [table.crewId, table.kind, table.id] })],
)

/** Photographs of what is stamped on bars and boxes, each of one saw or one loop. */
export const photos = mysqlTable(
  'photos',
  {
    crewId: identifier('crew_id').notNull(),
    id: identifier('id').notNull(),
    sawId: identifier('saw_id'),
    loopId: identifier('loop_id'),
    shows: varchar('shows', { length: 80 }).notNull(),
    takenAt: instant('taken_at').notNull(),
    personId: identifier('person_id').notNull(),
    /** A JPEG that carries nothing but the picture. */
    picture: mediumBlob('picture').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.id] }),
    index('photos_taken').on(table.crewId, table.takenAt),
    check('photos_of_one_thing', sql`(${table.sawId} is null) <> (${table.loopId} is null)`),
    foreignKey({ name: 'photos_saw', columns: [table.crewId, table.sawId], foreignColumns: [saws.crewId, saws.id] }),
    foreignKey({
      name: 'photos_loop',
      columns: [table.crewId, table.loopId],
      foreignColumns: [loops.crewId, loops.id],
    }),
    foreignKey({
      name: 'photos_person',
      columns: [table.crewId, table.personId],
      foreignColumns: [people.crewId, people.id],
    }).onUpdate('cascade'),
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
    /** Where it is; on a saw exactly when `sawId` says which. */
    place: varchar('place', { length: 12 }).$type<Place['at']>().notNull(),
    /** Its times on saws, for what wears with them. */
    stints: jsonText('stints').$type<readonly Stint[]>().notNull(),
    action: varchar('action', { length: 16 }).$type<Action>().notNull(),
    /** Of what is stored here; see STORED_VERSION. */
    storedVersion: int('fold_version').notNull(),
    state: jsonText('state').$type<LoopState>().notNull(),
    card: jsonText('card').$type<LoopCard>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.crewId, table.loopId] }),
    unique('snapshots_one_loop_a_saw').on(table.crewId, table.sawId),
    check('snapshots_place', sql`${table.place} in ('saw', 'shop', 'retired', ${quoted(SHELVES)})`),
    check('snapshots_on_a_saw', sql`(${table.place} = 'saw') = (${table.sawId} is not null)`),
    index('snapshots_action').on(table.crewId, table.action),
    foreignKey({
      name: 'snapshots_loop',
      columns: [table.crewId, table.loopId],
      foreignColumns: [loops.crewId, loops.id],
    }),
    foreignKey({ name: 'snapshots_saw', columns: [table.crewId, table.sawId], foreignColumns: [saws.crewId, saws.id] }),
  ],
)
