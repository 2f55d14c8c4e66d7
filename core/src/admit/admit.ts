import type { LoopState } from '../state'
import { fold } from '../fold'
import {
  asWritten,
  entriesThatCount,
  type CutterReading,
  type Entry,
  type EntryBodies,
  type EntryKind,
  type NewEntry,
} from '../log'
import { fileFitNow } from '../geometry'
import { checkLength } from '../measure'
import { changedSpec, PITCH_PROFILES, type LoopSpec, type Origin } from '../profile'
import { futureProblems, numberProblems, type AdmitProblem } from './problem'
import { writeMm, type Um } from '../units'

/** No depth gauge has a larger setting than this. Starting value. */
export const MOST_SETTING_UM: Um = 4000

/** Kinds that may still be written about a loop that is retired. */
const AFTER_RETIREMENT: readonly EntryKind[] = ['corrected', 'measured', 'inspected', 'specChanged', 'retagged']

const tooDeep = (field: string, cutter: number, depthUm: Um): AdmitProblem => ({
  code: 'damage-too-deep',
  field,
  message: `Damage ${writeMm(depthUm)} deep on cutter ${cutter} is deeper than a new cutter is long.`,
})

function readingProblems(readings: readonly CutterReading[], state: LoopState): AdmitProblem[] {
  const problems: AdmitProblem[] = []
  const seen = new Set<number>()
  readings.forEach(({ cutter, lengthUm, damage, settingUm }, i) => {
    const field = `readings[${i}]`
    if (cutter > state.cutters.length) {
      problems.push(noSuchCutter(`${field}.cutter`, cutter, state))
      return
    }
    if (seen.has(cutter)) {
      problems.push({ code: 'cutter-twice', field: `${field}.cutter`, message: `Cutter ${cutter} is there twice.` })
    }
    seen.add(cutter)
    if (lengthUm !== undefined) problems.push(...lengthProblems(lengthUm, `${field}.lengthUm`, cutter, state))
    if (settingUm !== undefined && settingUm > MOST_SETTING_UM) {
      const message = `A depth-gauge setting of ${writeMm(settingUm)} on cutter ${cutter} cannot be.`
      problems.push({ code: 'length-cannot-be', field: `${field}.settingUm`, message })
    }
    damage?.forEach(({ depthUm }, j) => {
      if (depthUm === null || depthUm <= state.spec.newLengthUm) return
      problems.push(tooDeep(`${field}.damage[${j}].depthUm`, cutter, depthUm))
    })
  })
  return problems
}

function lengthProblems(lengthUm: Um, field: string, cutter: number, state: LoopState): AdmitProblem[] {
  const check = checkLength(state.spec, lengthUm, state.cutters[cutter - 1]?.length.um ?? null)
  if (check.ok || check.weight === 'ask') return []
  const meant = check.meantUm === null ? '' : ` Was it ${writeMm(check.meantUm)}?`
  const longer = `${writeMm(lengthUm)} is longer than a new one (${writeMm(state.spec.newLengthUm)})`
  const message = `Cutter ${cutter}: ${longer}.${meant}`
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

/** Where a figure has to come from before a file that suits no such pitch is taken for it. */
const CONFIRMS: ReadonlySet<Origin | undefined> = new Set<Origin>(['box', 'measured'])

/** A file that suits no loop of the pitch: asked about, and taken once somebody says where it is from. */
function fileProblems(spec: LoopSpec, field: string, lengthUm: Um = spec.newLengthUm): AdmitProblem[] {
  const fit = fileFitNow(spec, spec.fileUm, lengthUm)
  if (fit === 'fits' || spec.cutterType === 'squareGround' || CONFIRMS.has(spec.origins?.fileUm)) return []
  const file = `A file of ${writeMm(spec.fileUm, 1)}`
  const pitch = PITCH_PROFILES[spec.pitchClass].name
  const wrong =
    fit === 'tooLargeByNow'
      ? `${file} bites the tie strap of a loop that is worn to ${writeMm(lengthUm, 1)}.`
      : `${file} is ${fit === 'tooSmall' ? 'smaller' : 'larger'} than any for ${pitch}.`
  const message = `${wrong} If it is so, say that it is from the box or was measured.`
  return [{ code: 'file-does-not-fit', field, message }]
}

const shortestOf = ({ cutters }: LoopState): Um => Math.min(...cutters.map(({ length }) => length.um))

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
  return [tooDeep('deepest.depthUm', deepest.cutter, deepest.depthUm)]
}

const noSuchCutter = (field: string, cutter: number, state: LoopState): AdmitProblem => ({
  code: 'no-such-cutter',
  field,
  message: `There is no cutter ${cutter}: this loop has ${state.cutters.length}.`,
})

function pairProblems(pairs: EntryBodies['sharpened']['pairs'], state: LoopState): AdmitProblem[] {
  return (pairs ?? []).flatMap(({ cutter, beforeUm, afterUm }, i) => {
    if (cutter > state.cutters.length) return [noSuchCutter(`pairs[${i}].cutter`, cutter, state)]
    return [
      ...lengthProblems(beforeUm, `pairs[${i}].beforeUm`, cutter, state),
      ...lengthProblems(afterUm, `pairs[${i}].afterUm`, cutter, state),
    ]
  })
}

interface Joined {
  readonly entries: readonly Entry[]
  readonly state: LoopState
}

type NewEntryOf<K extends EntryKind> = Extract<NewEntry, { kind: K }>

const nothing = (): AdmitProblem[] => []
const away = (_entry: unknown, { state }: Joined): AdmitProblem[] => awayProblems(state)
const read = ({ readings }: EntryBodies['measured'], { state }: Joined): AdmitProblem[] =>
  readingProblems(readings, state)

/** What speaks against the body of an entry of each kind. */
const BODY_PROBLEMS: {
  readonly [K in Exclude<EntryKind, 'registered'>]: (entry: NewEntryOf<K>, joined: Joined) => AdmitProblem[]
} = {
  measured: read,
  inspected: read,
  struck: (entry, { state }) => [
    ...strikeProblems(entry, state),
    ...(entry.cutters ?? []).flatMap((cutter, i) =>
      cutter > state.cutters.length ? [noSuchCutter(`cutters[${i}]`, cutter, state)] : [],
    ),
  ],
  sharpened: ({ pairs }, { state }) => pairProblems(pairs, state),
  corrected: (entry, { entries }) => {
    const problems = strikeOutProblems(entry.strikes, entries)
    const struck = entries.find(({ id }) => id === entry.strikes)
    if (problems.length > 0 || struck?.kind !== 'specChanged') return problems
    return specProblems([...entries, asWritten(entry)])
  },
  specChanged: (entry, { entries, state }) => [
    ...specProblems([...entries, asWritten(entry)]),
    ...(entry.changes.fileUm === undefined
      ? []
      : fileProblems(changedSpec(state.spec, entry.changes, entry.origin), 'changes.fileUm', shortestOf(state))),
  ],
  fitted: away,
  takenOff: away,
  moved: away,
  sentOut: away,
  cameBack: (_entry, { state }) =>
    state.place.at === 'shop'
      ? []
      : [{ code: 'not-at-a-shop', field: 'kind', message: `Loop ${state.tag} is not at a shop.` }],
  decided: ({ action, advised, overruled = '' }) =>
    action === advised || overruled.trim() !== ''
      ? []
      : [{ code: 'overrule-needed', field: 'overruled', message: 'That is not what the verdict says. Say why.' }],
  retagged: nothing,
  ran: nothing,
  gaugesLowered: nothing,
  retired: nothing,
  dutyChanged: nothing,
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
  const early = [...numberProblems(entry), ...futureProblems(entry.happenedAt, nowMs)]
  if (early.length > 0) return early
  const state = fold(entries)
  if (entry.kind === 'registered') {
    return state === null
      ? fileProblems(entry.spec, 'spec.fileUm')
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
  const problemsOf = BODY_PROBLEMS[entry.kind] as (entry: NewEntry, joined: Joined) => AdmitProblem[]
  return problemsOf(entry, { entries, state })
}
