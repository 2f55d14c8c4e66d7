import {
  BACKUP_VERSION,
  backedUpPersonSchema,
  backedUpPhotoSchema,
  backedUpProfileSchema,
  backedUpSawSchema,
  backupContentSchema,
  backupCrewSchema,
  backupSchema,
  isId,
  isInstant,
  isSaidInstant,
  kitSchemaFor,
  validate,
  validateEntries,
  validateSawEntries,
  type BackedUpPhoto,
  type Backup,
  type BackupContent,
  type Person,
  type NewSaw,
  type Validated,
} from '@undercliff/contract'
import {
  admitAll,
  believeClock,
  withDefaults,
  type CrewProfile,
  type Entry,
  type KitItem,
  type SawEntry,
} from '@undercliff/core'
import { createHash } from 'node:crypto'
import { invalid } from './checkEntries'
import { Refusal } from './refusal'
import { odd, sift, siftBy, type OddRow, type Sifted } from './sift'

export const checksumOf = (content: unknown): string =>
  createHash('sha256').update(JSON.stringify(content)).digest('hex')

/** What a backup holds that can be brought in, with its logs, and what is set aside. */
export interface ReadBackup {
  readonly content: BackupContent
  /** Logs by loop, each entry admitted to the log before it. */
  readonly logs: ReadonlyMap<string, readonly Entry[]>
  readonly setAside: readonly OddRow[]
}

/** What is not part of a new entry: when it was written and by whom, and what a device's clock said. */
interface Written {
  readonly writtenAt: string
  readonly writtenBy: string | null
  readonly saidAt?: string
}

/** Takes what the server added off an entry, so that the rest can be checked as a new one is. */
function withoutWritten(one: unknown): Validated<{ bare: unknown; written: Written }> {
  if (typeof one !== 'object' || one === null) return odd('', 'This has to be an object.')
  const { writtenAt, writtenBy = null, saidAt, ...bare } = one as Record<string, unknown>
  if (!isInstant(writtenAt)) return odd('writtenAt', 'There is no such time.')
  if (saidAt !== undefined && !isSaidInstant(saidAt)) return odd('saidAt', 'There is no such time.')
  if (writtenBy !== null && !isId(writtenBy)) return odd('writtenBy', 'This has to be the id of a person.')
  const written = { writtenAt, writtenBy, ...(saidAt === undefined ? {} : { saidAt }) }
  return { ok: true, value: { bare, written } }
}

/** With a time that can be: what was written down before it happened was a clock's mistake. */
const asBelieved = <T extends Entry | SawEntry>(entry: T): T =>
  believeClock([entry], Date.parse(entry.writtenAt), null)[0] ?? entry

type Check = (sent: readonly unknown[], where: string) => Validated<object[]>

/** A log as it was written, each entry checked as a new one is: all at once, or one by one where any is odd. */
function readLog<T extends Entry | SawEntry>(part: string, rows: readonly unknown[], check: Check): Sifted<T> {
  const parts = rows.map(withoutWritten)
  const whole = parts.flatMap((one) => (one.ok ? [one.value] : []))
  const checked = check(
    whole.map(({ bare }) => bare),
    '',
  )
  if (!checked.ok || whole.length < rows.length) return sift(part, rows, readEntry<T>(check))
  return { good: whole.map(({ written }, i) => asBelieved({ ...checked.value[i], ...written } as T)), odd: [] }
}

/** An entry as it was written, checked as a new one is. */
const readEntry =
  <T extends Entry | SawEntry>(check: Check) =>
  (one: unknown): Validated<T> => {
    const parts = withoutWritten(one)
    if (!parts.ok) return parts
    const checked = check([parts.value.bare], '')
    if (!checked.ok)
      return {
        ok: false,
        problems: checked.problems.map((one) => ({ ...one, field: one.field.replace(/^\[0\]\.?/, '') })),
      }
    return { ok: true, value: asBelieved({ ...checked.value[0], ...parts.value.written } as T) }
  }

/** Somebody, or a saw, that others of the backup name: what cannot be read of it is left out, not all that it did. */
const standIn =
  <T>(
    schema: (row: unknown) => Validated<T>,
    instead: (id: string, i: number) => T,
    setAside: OddRow[],
    part: string,
  ) =>
  (row: unknown, i: number): Validated<T> => {
    const read = schema(row)
    const id = (row as { id?: unknown } | null)?.id
    if (read.ok || !isId(id)) return read
    setAside.push({ part, row, why: `It is brought in by its id alone. ${read.problems[0]?.message ?? ''}` })
    return { ok: true, value: instead(id, i) }
  }

/** The crew with those of its rules that can be read; common practice stands for the others. */
function readCrew(crew: unknown, setAside: OddRow[]): BackupContent['crew'] {
  const check = (one: unknown) => validate<BackupContent['crew']>(backupCrewSchema, one)
  const read = check(crew)
  if (read.ok) return { ...read.value, rules: withDefaults(read.value.rules) }
  const { rules } = crew as { rules?: unknown }
  const wrong = read.problems.filter(({ field }) => !field.startsWith('rules'))
  if (wrong.length > 0 || typeof rules !== 'object' || rules === null)
    throw invalid(read.problems.map((one) => ({ ...one, field: `content.crew.${one.field}` })))
  const named = new Set(read.problems.flatMap(({ field }) => /^rules\.(\w+)/.exec(field)?.[1] ?? []))
  const rest = Object.entries(rules).filter(([name]) => !named.has(name))
  const some = check({ ...(crew as object), rules: withDefaults(Object.fromEntries(rest)) })
  // Rules that contradict each other give way as a whole.
  const kept = some.ok ? some.value : { ...(crew as BackupContent['crew']), rules: withDefaults({}) }
  const out = some.ok ? Object.fromEntries(Object.entries(rules).filter(([name]) => named.has(name))) : rules
  setAside.push({ part: 'rules', row: out, why: `${read.problems[0]?.message ?? ''} Common practice stands instead.` })
  return { ...kept, rules: withDefaults(kept.rules) }
}

/** @throws Refusal when it is no backup, of a newer version, or damaged */
function readOuter(body: unknown): Record<string, unknown> {
  const outer = validate<Backup>(backupSchema, body)
  if (!outer.ok) throw invalid(outer.problems)
  const { version, checksum, content } = outer.value
  if (version > BACKUP_VERSION) {
    throw new Refusal(
      'backup-newer',
      `It has version ${version}; this Undercliff reads up to ${BACKUP_VERSION}. Update Undercliff first.`,
    )
  }
  if (checksumOf(content) !== checksum) {
    throw new Refusal(
      'backup-damaged',
      'Its checksum does not match what is in it: it was cut short or changed. Nothing was read.',
    )
  }
  const lists = validate<Record<string, unknown>>(backupContentSchema, content)
  if (!lists.ok) throw invalid(lists.problems.map(({ field, ...rest }) => ({ field: `content.${field}`, ...rest })))
  return lists.value
}

const listOf = (content: Record<string, unknown>, part: string): readonly unknown[] =>
  Array.isArray(content[part]) ? (content[part] as unknown[]) : []

/** Entries that join their logs; one that does not is taken out, and with it what rested on it. */
function admitted(
  sent: readonly Entry[],
  setAside: OddRow[],
): Pick<ReadBackup, 'logs'> & { entries: readonly Entry[] } {
  let left = [...sent]
  for (;;) {
    // What a wrong clock wrote was written all the same.
    const { logs, problems } = admitAll(left, Infinity)
    if (problems.length === 0) return { logs, entries: left }
    const wrong = new Map(problems.map(({ at, message }) => [at, message]))
    for (const [at, why] of wrong) setAside.push({ part: 'entries', row: left[at], why })
    left = left.filter((_entry, i) => !wrong.has(i))
  }
}

/**
 * What a backup holds, once it is known to be whole. What is odd in it is set aside with its reason, so that one row
 * keeps no crew's history out.
 *
 * @throws Refusal when it is of a newer version, damaged, or no backup
 */
export function readBackup(body: unknown): ReadBackup {
  const read = readOuter(body)
  const setAside: OddRow[] = []
  const keep = <T>({ good, odd: rest }: { good: T[]; odd: OddRow[] }): T[] => {
    setAside.push(...rest)
    return good
  }
  const crew = readCrew(read.crew, setAside)
  const person = standIn<Person>(
    (row) => validate(backedUpPersonSchema, row),
    (id, i) => ({ id, name: `Somebody ${i + 1}`, role: 'sawyer' }),
    setAside,
    'people',
  )
  const saw = standIn<NewSaw>(
    (row) => validate(backedUpSawSchema, row),
    (id, i) => ({ id, nickname: `Some saw ${i + 1}`, pitchClass: null, gaugeUm: null, driveLinks: null }),
    setAside,
    'saws',
  )
  const people = keep(sift('people', listOf(read, 'people'), person))
  const saws = keep(sift('saws', listOf(read, 'saws'), saw))
  const known = new Set<string | null>([null, ...people.map(({ id }) => id)])
  const sawIds = new Set(saws.map(({ id }) => id))
  const byKnown = <T extends Entry | SawEntry>(part: string, entries: readonly T[]): T[] =>
    keep(
      sift(part, entries, (one) => {
        const entry = one as T
        if (!known.has(entry.personId)) return odd('personId', 'Nobody in the backup has this id.')
        if (!known.has(entry.writtenBy)) return odd('writtenBy', 'Nobody in the backup has this id.')
        if ('sawId' in entry && !sawIds.has(entry.sawId)) return odd('sawId', 'There is no such saw in the backup.')
        return { ok: true, value: entry }
      }),
    )
  const sawLog = byKnown(
    'sawEntries',
    keep(readLog<SawEntry>('sawEntries', listOf(read, 'sawEntries'), validateSawEntries)),
  )
  const log = byKnown('entries', keep(readLog<Entry>('entries', listOf(read, 'entries'), validateEntries)))
  const { logs, entries } = admitted(log, setAside)
  const photos = keep(siftBy<BackedUpPhoto>('photos', listOf(read, 'photos'), () => backedUpPhotoSchema))
  const content: BackupContent = {
    crew,
    people,
    saws,
    profiles: keep(siftBy<CrewProfile>('profiles', listOf(read, 'profiles'), () => backedUpProfileSchema)),
    kit: keep(siftBy<KitItem>('kit', listOf(read, 'kit'), kitSchemaFor)),
    photos: keep(
      sift('photos', photos, (one) => {
        const photo = one as BackedUpPhoto
        if (!known.has(photo.personId)) return odd('personId', 'Nobody in the backup has this id.')
        const there = photo.sawId === undefined ? logs.has(photo.loopId) : sawIds.has(photo.sawId)
        return there ? { ok: true, value: photo } : odd('', 'What it is of is not in the backup.')
      }),
    ),
    sawEntries: struckWithin(sawLog, setAside),
    entries,
  }
  return { content, logs, setAside: [...listOf(read, 'setAside').filter(isOddRow), ...setAside] }
}

/** Corrections of saws that strike out what is in the log of the same saw. */
function struckWithin(log: readonly SawEntry[], setAside: OddRow[]): SawEntry[] {
  const ofSaw = new Map(log.map(({ id, sawId }) => [id, sawId]))
  const { good, odd: rest } = sift<SawEntry>('sawEntries', log, (one) => {
    const entry = one as SawEntry
    return entry.kind === 'sawCorrected' && ofSaw.get(entry.strikes) !== entry.sawId
      ? odd('strikes', 'The entry to strike out is not in the log of this saw.')
      : { ok: true, value: entry }
  })
  setAside.push(...rest)
  return good
}

/** A row that was set aside before the backup was written. */
const isOddRow = (row: unknown): row is OddRow =>
  typeof row === 'object' &&
  row !== null &&
  'part' in row &&
  'why' in row &&
  'row' in row &&
  typeof row.part === 'string' &&
  row.part.length <= 20 &&
  typeof row.why === 'string'
