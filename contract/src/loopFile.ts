import {
  asWritten,
  entriesThatCount,
  withDefaults,
  type Entry,
  type HouseRules,
  type KnownBite,
  type UsedBefore,
  type LoopSpec,
  type NewEntry,
} from '@undercliff/core'
import * as yup from 'yup'
import { rulesSchema } from './crew'
import { validateEntries } from './anyEntry'
import { knownBiteSchema, specSchema, tag, usedSchema } from './entries'
import { instant, isInstant, oneOf, strictObject } from './fields'
import type { FieldProblem } from './problem'
import { validate } from './validate'

/** The version of the loop format that this Undercliff writes, and the newest that it reads. */
export const LOOP_FILE_VERSION = 1

/**
 * One loop with all that a verdict rests on, in one file: its spec, its log, the house rules and
 * the present. `docs/house/formats.md` describes it.
 */
export interface LoopFile {
  readonly format: 'undercliff-loop'
  readonly version: number
  /** The present, from which dates are counted; nothing that happened later counts. */
  readonly now: string
  readonly tag: string
  readonly spec: LoopSpec
  /** What the crew's files were known to take off when it came; common practice where it is left out. */
  readonly knownBite?: KnownBite
  /** It was used before it came; new where it is left out. */
  readonly used?: UsedBefore
  /** What is left out is taken as common practice. */
  readonly rules?: Partial<HouseRules>
  /** Entries without ids, loop and writing; those are filled in. */
  readonly log: readonly LoopFileEntry[]
}

type Loose<T> = T extends NewEntry
  ? Omit<T, 'id' | 'loopId' | 'personId'> & { id?: string; personId?: string | null }
  : never
/** An entry of a loop file. `id` is needed only where another entry strikes it out. */
export type LoopFileEntry = Loose<Exclude<NewEntry, { kind: 'registered' }>>

const LOOP_ID = 'loop-of-this-file'
/** Most entries in one file: more than a loop lives to see.  */
export const MOST_LOG = 2000

const outerSchema = strictObject({
  format: oneOf(['undercliff-loop'], 'The format'),
  version: yup
    .number()
    .required('The version is missing.')
    .integer()
    .min(1)
    .max(LOOP_FILE_VERSION, 'The file was written by a newer Undercliff.'),
  now: instant(),
  tag: tag(),
  spec: specSchema.required('The spec is missing.'),
  knownBite: knownBiteSchema.default(undefined).optional(),
  used: usedSchema.default(undefined).optional(),
  rules: rulesSchema.partial(),
  log: yup.array(yup.object().required()).required('The log is missing.').max(MOST_LOG),
})

/** A file that was read: what the core folds and decides by. */
export type LoopFileRead =
  | { readonly ok: true; readonly entries: readonly Entry[]; readonly rules: HouseRules; readonly now: string }
  | { readonly ok: false; readonly problems: readonly FieldProblem[] }

/**
 * Reads a loop file, checked field by field as the server checks what devices send.
 *
 * @param value the parsed JSON
 */
export function readLoopFile(value: unknown): LoopFileRead {
  const outer = validate<LoopFile>(outerSchema, value)
  if (!outer.ok) return outer
  const { now, tag: called, spec, knownBite, used, log } = outer.value
  const first = log.reduce(
    (least, { happenedAt }) => (typeof happenedAt === 'string' && happenedAt < least ? happenedAt : least),
    now,
  )
  const registered: Entry = {
    id: 'registration-of-file',
    loopId: LOOP_ID,
    happenedAt: first,
    writtenAt: first,
    personId: null,
    writtenBy: null,
    kind: 'registered',
    tag: called,
    spec,
    ...(knownBite === undefined ? {} : { knownBite }),
    ...(used === undefined ? {} : { used }),
  }
  const filled = log.map((entry, i) => ({
    personId: null,
    ...entry,
    id: entry.id ?? `entry-${String(i + 1).padStart(5, '0')}`,
    loopId: LOOP_ID,
  }))
  const checked = validateEntries(filled, 'log')
  const problems: FieldProblem[] = checked.ok ? [] : [...checked.problems]
  filled.forEach(({ happenedAt }, i) => {
    // In a file nobody's clock is to be put right.
    if (checked.ok && !isInstant(happenedAt))
      problems.push({ field: `log[${i}].happenedAt`, message: 'There is no such date.' })
  })
  const again = filled.findIndex(({ kind }) => (kind as string) === 'registered')
  if (again >= 0)
    problems.push({
      field: `log[${again}].kind`,
      message: 'The spec registers the loop; the log does not do so again.',
    })
  if (!checked.ok || problems.length > 0) return { ok: false, problems }
  const entries = checked.value.map((entry) => asWritten(entry))
  return { ok: true, entries: [registered, ...entries], rules: withDefaults(outer.value.rules ?? {}), now }
}

/**
 * A loop as a file: its log in order, without what was struck out.
 *
 * @throws RangeError when the log registers no loop
 */
export function writeLoopFile(entries: readonly Entry[], rules: HouseRules, now: string): LoopFile {
  const counted = entriesThatCount(entries)
  const registered = counted.find((entry) => entry.kind === 'registered')
  if (registered?.kind !== 'registered') throw new RangeError('the log registers no loop')
  const log = counted
    .filter((entry) => entry.kind !== 'registered')
    .map(
      ({ loopId: _loopId, writtenAt: _writtenAt, writtenBy: _writtenBy, saidAt: _saidAt, ...entry }) =>
        entry as LoopFileEntry,
    )
  return {
    format: 'undercliff-loop',
    version: LOOP_FILE_VERSION,
    now,
    tag: registered.tag,
    spec: registered.spec,
    ...(registered.knownBite === undefined ? {} : { knownBite: registered.knownBite }),
    ...(registered.used === undefined ? {} : { used: registered.used }),
    rules,
    log,
  }
}
