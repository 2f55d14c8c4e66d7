import type { AnyNewEntry } from '@undercliff/contract'
import {
  capital,
  depthBounds,
  CONDITION_WORDS,
  FILE_AGE_NAMES,
  METHOD_NAMES,
  READ_WITH_WORDS,
  settingBounds,
  SHELF_NAMES,
  STRIKE_NAMES,
  type FigureBounds,
} from '@undercliff/core'

/** One figure or word of an entry that can be put right by hand. */
export interface Leaf {
  readonly path: readonly (string | number)[]
  readonly label: string
  readonly kind: 'length' | 'number' | 'text' | 'yesNo' | 'time' | 'choice'
  readonly value: string | number | boolean
  /** What it can be, where it is a length. */
  readonly bounds?: FigureBounds
  /** What it may be, with its name, where it is one of several. */
  readonly choices?: readonly { readonly value: string; readonly label: string }[]
}

/** What an entry is and whom it belongs to, which is not put right but written anew. */
const FIXED: ReadonlySet<string> = new Set([
  ...['id', 'loopId', 'sawId', 'kind', 'personId', 'strikes', 'spec', 'knownBite', 'advised', 'rulesVersion', 'origin'],
])

const choicesOf = (names: Readonly<Record<string, string>>): NonNullable<Leaf['choices']> =>
  Object.entries(names).map(([value, label]) => ({ value, label: capital(label) }))

/** What is one of several, by where it stands in an entry. */
const CHOICES: Readonly<Record<string, NonNullable<Leaf['choices']>>> = {
  conditions: choicesOf(CONDITION_WORDS),
  method: choicesOf(METHOD_NAMES),
  against: choicesOf(STRIKE_NAMES),
  readWith: choicesOf(READ_WITH_WORDS),
  fileAge: choicesOf(FILE_AGE_NAMES),
  to: choicesOf(SHELF_NAMES),
}

/** What a cutter's length may be on any chain, and its usual place. Starting values. */
const CUTTER_BOUNDS: FigureBounds = { leastUm: 0, mostUm: 60_000, expectedUm: 5000, factor: 12, mayBeNothing: true }
/** Of settings and depths, on any chain. */
const BOUNDS: Readonly<Record<string, FigureBounds>> = {
  settingUm: settingBounds({ settingUm: 650 }),
  depthUm: depthBounds({ newLengthUm: 9000 }),
}

const words = (key: string): string =>
  key
    .replace(/Um$|At$/, '')
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()

/** What a figure in a list belongs to: the cutter where the list is of cutters, or its place. */
const memberOf = (one: unknown, i: number): string =>
  typeof one === 'object' && one !== null && 'cutter' in one ? `cutter ${String(one.cutter)}` : String(i + 1)

function leaf(path: Leaf['path'], key: string, label: string, value: unknown): Leaf[] {
  switch (typeof value) {
    case 'number':
      return key.endsWith('Um')
        ? [{ path, label, kind: 'length', value, bounds: BOUNDS[key] ?? CUTTER_BOUNDS }]
        : [{ path, label, kind: 'number', value }]
    case 'boolean':
      return [{ path, label, kind: 'yesNo', value }]
    case 'string': {
      const { [key]: choices } = CHOICES
      // What the list does not know is left as a word.
      if (choices?.some((one) => one.value === value) === true) return [{ path, label, kind: 'choice', value, choices }]
      return [{ path, label, kind: key.endsWith('At') ? 'time' : 'text', value }]
    }
    default:
      return []
  }
}

function walk(value: unknown, path: Leaf['path'], label: string): Leaf[] {
  if (Array.isArray(value))
    return value.flatMap((one: unknown, i) => walk(one, [...path, i], `${label} ${memberOf(one, i)}`.trim()))
  if (typeof value !== 'object' || value === null) {
    const key = [...path].reverse().find((step): step is string => typeof step === 'string') ?? ''
    return leaf(path, key, label, value)
  }
  return Object.entries(value)
    .filter(([key]) => !FIXED.has(key))
    .flatMap(([key, one]) => walk(one, [...path, key], `${label} ${Array.isArray(one) ? '' : words(key)}`.trim()))
}

/** Everything in an entry that a person may put right: of a run its time, its tanks and what it cut in. */
export const leavesOf = ({ happenedAt, ...rest }: AnyNewEntry): Leaf[] => walk({ happenedAt, ...rest }, [], '')

function withValue(value: unknown, [step, ...rest]: Leaf['path'], leafValue: unknown): unknown {
  if (step === undefined) return leafValue
  if (Array.isArray(value))
    return value.map((one: unknown, i): unknown => (i === step ? withValue(one, rest, leafValue) : one))
  const held = value as Record<string, unknown>
  return { ...held, [step]: withValue(held[step], rest, leafValue) }
}

/** The entry with one thing in it put right; lengths are whole micrometres. */
export const putRight = (entry: AnyNewEntry, { path }: Leaf, value: Leaf['value']): AnyNewEntry =>
  withValue(entry, path, value) as AnyNewEntry
