import { fold, type LoopState } from '../fold'
import {
  entriesThatCount,
  type CutterReading,
  type Entry,
  type EntryBodies,
  type EntryKind,
  type NewEntry,
} from '../log'
import { checkLength } from '../measure'
import { writeMm, type Um } from '../units'

/** Why an entry cannot join a log. */
export type AdmitCode =
  | 'not-registered'
  | 'registered-already'
  | 'before-registration'
  | 'in-the-future'
  | 'after-retirement'
  | 'no-such-cutter'
  | 'cutter-twice'
  | 'length-cannot-be'
  | 'damage-too-deep'
  | 'overrule-needed'
  | 'deepest-elsewhere'
  | 'no-such-entry'
  | 'correction-of-correction'
  | 'struck-out-already'
  | 'registration-stays'
  | 'at-a-shop'
  | 'not-at-a-shop'
  | 'spec-cannot-be'

/** One thing wrong with an entry: a stable code, the field, and plain words. */
export interface AdmitProblem {
  readonly code: AdmitCode
  /** Path of the field within the entry. */
  readonly field: string
  readonly message: string
}

/** A device's clock may run ahead of the server's by this and still be believed, in ms. */
export const CLOCK_SLACK_MS = 5 * 60_000

/** A setting that a depth gauge cannot have. */
const SETTING_LIMIT_UM: Um = 4000

/** Kinds that may still be written about a loop that is retired. */
const AFTER_RETIREMENT: readonly EntryKind[] = ['corrected', 'measured', 'inspected', 'specChanged', 'retagged']

function readingProblems(readings: readonly CutterReading[], state: LoopState): AdmitProblem[] {
  const problems: AdmitProblem[] = []
  const seen = new Set<number>()
  readings.forEach(({ cutter, lengthUm, damage, settingUm }, i) => {
    const field = `readings[${i}]`
    const count = state.cutters.length
    if (cutter > count) {
      const message = `There is no cutter ${cutter}: this loop has ${count}.`
      problems.push({ code: 'no-such-cutter', field: `${field}.cutter`, message })
      return
    }
    if (seen.has(cutter)) {
      problems.push({ code: 'cutter-twice', field: `${field}.cutter`, message: `Cutter ${cutter} is there twice.` })
    }
    seen.add(cutter)
    if (lengthUm !== undefined) problems.push(...lengthProblems(lengthUm, `${field}.lengthUm`, cutter, state))
    if (settingUm !== undefined && settingUm > SETTING_LIMIT_UM) {
      const message = `A depth-gauge setting of ${writeMm(settingUm)} on cutter ${cutter} cannot be.`
      problems.push({ code: 'length-cannot-be', field: `${field}.settingUm`, message })
    }
    damage?.forEach(({ depthUm }, j) => {
      if (depthUm === null || depthUm <= state.spec.newLengthUm) return
      const message = `Damage ${writeMm(depthUm)} deep on cutter ${cutter} is deeper than a new cutter is long.`
      problems.push({ code: 'damage-too-deep', field: `${field}.damage[${j}].depthUm`, message })
    })
  })
  return problems
}

/** A new entry as if it were in the log already. */
const asWritten = (entry: NewEntry): Entry => ({ ...entry, writtenAt: entry.happenedAt, writtenBy: null }) as Entry

function lengthProblems(lengthUm: Um, field: string, cutter: number, state: LoopState): AdmitProblem[] {
  const check = checkLength(state.spec, lengthUm, state.cutters[cutter - 1]?.length.um ?? null)
  if (check.ok || check.weight === 'ask') return []
  const meant = check.meantUm === null ? '' : ` Was it ${writeMm(check.meantUm)}?`
  const message = `Cutter ${cutter}: ${writeMm(lengthUm)} is longer than a new one (${writeMm(state.spec.newLengthUm)}).${meant}`
  return [{ code: 'length-cannot-be', field, message }]
}

function strikeOutProblems(strikes: string, entries: readonly Entry[]): AdmitProblem[] {
  const field = 'strikes'
  const target = entries.find(({ id }) => id === strikes)
  if (target === undefined) {
    return [{ code: 'no-such-entry', field, message: 'The entry to strike out is not in this log.' }]
  }
  switch (target.kind) {
    case 'corrected':
      return [
        {
          code: 'correction-of-correction',
          field,
          message: 'A correction cannot be struck out. Write the entry again instead.',
        },
      ]
    case 'registered':
      return [
        {
          code: 'registration-stays',
          field,
          message: 'The registration cannot be struck out. Retire the loop instead.',
        },
      ]
    default:
      return entries.some((entry) => entry.kind === 'corrected' && entry.strikes === strikes)
        ? [{ code: 'struck-out-already', field, message: 'That entry has been struck out already.' }]
        : []
  }
}

/** Moves that a loop which is away at a shop cannot make before it has come back. */
function awayProblems(state: LoopState): AdmitProblem[] {
  if (state.place.at !== 'shop') return []
  const message = `Loop ${state.tag} is at ${state.place.shop}. Log that it came back first.`
  return [{ code: 'at-a-shop', field: 'kind', message }]
}

/** What a spec would do to a log that was written under another. */
function specProblems(after: readonly Entry[]): AdmitProblem[] {
  const field = 'changes'
  let state: LoopState | null
  try {
    state = fold(after)
  } catch (error) {
    return [{ code: 'spec-cannot-be', field, message: (error as Error).message }]
  }
  if (state === null) return []
  if (state.spec.markLengthUm >= state.spec.newLengthUm) {
    return [{ code: 'spec-cannot-be', field, message: 'The mark is reached below the new length.' }]
  }
  const count = state.cutters.length
  let most = 0
  for (const entry of entriesThatCount(after)) {
    if (entry.kind === 'measured' || entry.kind === 'inspected')
      for (const { cutter } of entry.readings) most = Math.max(most, cutter)
    if (entry.kind === 'sharpened') for (const { cutter } of entry.pairs ?? []) most = Math.max(most, cutter)
    if (entry.kind === 'struck') for (const cutter of entry.cutters ?? []) most = Math.max(most, cutter)
  }
  if (most <= count) return []
  const message = `The log speaks of cutter ${most}, and such a loop has ${count}. Strike those readings out first.`
  return [{ code: 'spec-cannot-be', field, message }]
}

/** The deepest place of a strike is on a cutter that it met, and no deeper than a cutter is long. */
function strikeProblems(entry: EntryBodies['struck'], state: LoopState): AdmitProblem[] {
  const { deepest, cutters = [] } = entry
  if (deepest === undefined) return []
  if (!cutters.includes(deepest.cutter)) {
    return [
      {
        code: 'deepest-elsewhere',
        field: 'deepest.cutter',
        message: 'The deepest place has to be on a cutter that was struck.',
      },
    ]
  }
  if (deepest.depthUm <= state.spec.newLengthUm) return []
  const message = `Damage ${writeMm(deepest.depthUm)} deep on cutter ${deepest.cutter} is deeper than a new cutter is long.`
  return [{ code: 'damage-too-deep', field: 'deepest.depthUm', message }]
}

function bodyProblems(entry: NewEntry, entries: readonly Entry[], state: LoopState): AdmitProblem[] {
  switch (entry.kind) {
    case 'measured':
    case 'inspected':
      return readingProblems(entry.readings, state)
    case 'struck':
      return [
        ...strikeProblems(entry, state),
        ...(entry.cutters ?? []).flatMap((cutter, i) =>
          cutter > state.cutters.length
            ? [
                {
                  code: 'no-such-cutter' as const,
                  field: `cutters[${i}]`,
                  message: `There is no cutter ${cutter}: this loop has ${state.cutters.length}.`,
                },
              ]
            : [],
        ),
      ]
    case 'sharpened':
      return (entry.pairs ?? []).flatMap(({ cutter, beforeUm, afterUm }, i): AdmitProblem[] => {
        if (cutter > state.cutters.length) {
          const message = `There is no cutter ${cutter}: this loop has ${state.cutters.length}.`
          return [{ code: 'no-such-cutter', field: `pairs[${i}].cutter`, message }]
        }
        return [
          ...lengthProblems(beforeUm, `pairs[${i}].beforeUm`, cutter, state),
          ...lengthProblems(afterUm, `pairs[${i}].afterUm`, cutter, state),
        ]
      })
    case 'corrected': {
      const problems = strikeOutProblems(entry.strikes, entries)
      const struck = entries.find(({ id }) => id === entry.strikes)
      if (problems.length > 0 || struck?.kind !== 'specChanged') return problems
      return specProblems([...entries, asWritten(entry)])
    }
    case 'specChanged':
      return specProblems([...entries, asWritten(entry)])
    case 'fitted':
    case 'takenOff':
    case 'moved':
    case 'sentOut':
      return awayProblems(state)
    case 'cameBack': {
      if (state.place.at === 'shop') return []
      return [{ code: 'not-at-a-shop', field: 'kind', message: `Loop ${state.tag} is not at a shop.` }]
    }
    case 'decided': {
      if (entry.action === entry.advised || (entry.overruled ?? '').trim() !== '') return []
      return [{ code: 'overrule-needed', field: 'overruled', message: 'That is not what the verdict says. Say why.' }]
    }
    case 'registered':
    case 'retagged':
    case 'ran':
    case 'gaugesLowered':
    case 'retired':
    case 'dutyChanged':
      return []
  }
}

/**
 * What is wrong with an entry, given the log that it is to join; empty when it may.
 *
 * The same check runs in the browser before sending and on the server before writing.
 *
 * @param entries the loop's log so far; empty for a loop that is new
 * @param nowMs the present, milliseconds since 1970
 */
export function admit(entry: NewEntry, entries: readonly Entry[], nowMs: number): AdmitProblem[] {
  if (Date.parse(entry.happenedAt) > nowMs + CLOCK_SLACK_MS) {
    return [{ code: 'in-the-future', field: 'happenedAt', message: 'That is in the future. Check the date and time.' }]
  }
  const state = fold(entries)
  if (entry.kind === 'registered') {
    return state === null
      ? []
      : [{ code: 'registered-already', field: 'loopId', message: `Loop ${state.tag} is registered already.` }]
  }
  if (state === null) {
    return [{ code: 'not-registered', field: 'loopId', message: 'There is no such loop.' }]
  }
  if (entry.happenedAt < state.registeredAt) {
    const day = state.registeredAt.slice(0, 10)
    const message = `That is before loop ${state.tag} was registered (${day}).`
    return [{ code: 'before-registration', field: 'happenedAt', message }]
  }
  if (state.retired !== null && !AFTER_RETIREMENT.includes(entry.kind) && entry.happenedAt >= state.retired.at) {
    const message = `Loop ${state.tag} is retired. Strike out the retirement first if it is still in use.`
    return [{ code: 'after-retirement', field: 'kind', message }]
  }
  return bodyProblems(entry, entries, state)
}
