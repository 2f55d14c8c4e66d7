import { fold } from '../fold'
import {
  asWritten,
  struckOutIds,
  type CutterReading,
  type Entry,
  type EntryBodies,
  type EntryKind,
  type NewEntry,
} from '../log'
import { fileFitNow } from '../geometry'
import { checkLength, MOST_SETTING_UM } from '../measure'
import { changedSpec, PITCH_PROFILES, type LoopSpec, type Origin } from '../profile'
import { futureProblems, numberProblems, type AdmitProblem } from './problem'
import { RunningStanding, standingOf, type Standing } from './standing'
import { LOOK_FACTS } from '../signs'
import { writeMm, type Um } from '../units'

/** Kinds that may still be written about a loop that is retired. */
const AFTER_RETIREMENT: readonly EntryKind[] = ['corrected', 'measured', 'inspected', 'specChanged', 'retagged']

const tooDeep = (field: string, cutter: number, depthUm: Um): AdmitProblem => ({
  code: 'damage-too-deep',
  field,
  message: `Damage ${writeMm(depthUm)} deep on cutter ${cutter} is deeper than a new cutter is long.`,
})

function readingProblems(readings: readonly CutterReading[], joined: Joined): AdmitProblem[] {
  const { standing } = joined
  const problems: AdmitProblem[] = []
  const seen = new Set<number>()
  readings.forEach(({ cutter, lengthUm, damage, settingUm }, i) => {
    const field = `readings[${i}]`
    if (cutter > standing.cutters) {
      problems.push(noSuchCutter(`${field}.cutter`, cutter, standing))
      return
    }
    if (seen.has(cutter)) {
      problems.push({ code: 'cutter-twice', field: `${field}.cutter`, message: `Cutter ${cutter} is there twice.` })
    }
    seen.add(cutter)
    if (lengthUm !== undefined) problems.push(...lengthProblems(lengthUm, `${field}.lengthUm`, cutter, joined))
    if (settingUm !== undefined && settingUm > MOST_SETTING_UM) {
      const message = `A depth-gauge setting of ${writeMm(settingUm)} on cutter ${cutter} cannot be.`
      problems.push({ code: 'length-cannot-be', field: `${field}.settingUm`, message })
    }
    damage?.forEach(({ depthUm }, j) => {
      if (depthUm === null || depthUm <= standing.spec.newLengthUm) return
      problems.push(tooDeep(`${field}.damage[${j}].depthUm`, cutter, depthUm))
    })
  })
  return problems
}

function lengthProblems(lengthUm: Um, field: string, cutter: number, { standing, lengths }: Joined): AdmitProblem[] {
  const { spec } = standing
  // Only what was meant instead depends on the length that is known, which has to be worked out.
  if (checkLength(spec, lengthUm, null).ok) return []
  const check = checkLength(spec, lengthUm, lengths()[cutter - 1] ?? null)
  if (check.ok || check.weight === 'ask') return []
  const meant = check.meantUm === null ? '' : ` Was it ${writeMm(check.meantUm)}?`
  const longer = `${writeMm(lengthUm)} is longer than a new one (${writeMm(spec.newLengthUm)})`
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

/** What is said of a loop that comes: judged by eye it may be a little beyond what a new one has, and no more. */
function usedProblems({ spec, used }: NewEntryOf<'registered'>): AdmitProblem[] {
  const aboutUm = used?.aboutUm
  if (aboutUm === undefined || checkLength(spec, aboutUm, null).ok) return []
  const message = `${writeMm(aboutUm)} left is longer than a new cutter (${writeMm(spec.newLengthUm)}).`
  return [{ code: 'length-cannot-be', field: 'used.aboutUm', message }]
}

/** Moves that a loop which is away at a shop cannot make before it has come back. */
function awayProblems({ shop, tag }: Standing): AdmitProblem[] {
  if (shop === null) return []
  const message = `Loop ${tag} is at ${shop}. Log that it came back first.`
  return [{ code: 'at-a-shop', field: 'kind', message }]
}

/** Where a figure has to come from before a file that suits no such pitch is taken for it. */
const CONFIRMS: ReadonlySet<Origin | undefined> = new Set<Origin>(['box', 'measured'])

/** A file that suits no loop of the pitch: asked about, and taken once somebody says where it is from. */
function fileProblems(spec: LoopSpec, field: string, shortest: () => Um = () => spec.newLengthUm): AdmitProblem[] {
  if (spec.cutterType === 'squareGround' || CONFIRMS.has(spec.origins?.fileUm)) return []
  const lengthUm = shortest()
  const fit = fileFitNow(spec, spec.fileUm, lengthUm)
  if (fit === 'fits') return []
  const file = `A file of ${writeMm(spec.fileUm, 1)}`
  const pitch = PITCH_PROFILES[spec.pitchClass].name
  const wrong =
    fit === 'tooLargeByNow'
      ? `${file} bites the tie strap of a loop that is worn to ${writeMm(lengthUm, 1)}.`
      : `${file} is ${fit === 'tooSmall' ? 'smaller' : 'larger'} than any for ${pitch}.`
  const message = `${wrong} If it is so, say that it is from the box or was measured.`
  return [{ code: 'file-does-not-fit', field, message }]
}

/** What a spec would do to a log that was written under another. */
function specProblems(after: readonly Entry[]): AdmitProblem[] {
  const field = 'changes'
  let standing: Standing | null
  try {
    standing = standingOf(after)
  } catch (error) {
    return [{ code: 'spec-cannot-be', field, message: (error as Error).message }]
  }
  if (standing === null) return []
  const { spec, cutters, spokenOf } = standing
  if (spec.markLengthUm >= spec.newLengthUm) {
    return [{ code: 'spec-cannot-be', field, message: 'The mark is reached below the new length.' }]
  }
  if (spokenOf <= cutters) return []
  const speaks = `The log speaks of cutter ${spokenOf}, and such a loop has ${cutters}.`
  const message = `${speaks} Strike those readings out first.`
  return [{ code: 'spec-cannot-be', field, message }]
}

/** The deepest place of a strike is on a cutter that it met, and no deeper than a cutter is long. */
function strikeProblems(entry: EntryBodies['struck'], { spec }: Standing): AdmitProblem[] {
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
  if (deepest.depthUm <= spec.newLengthUm) return []
  return [tooDeep('deepest.depthUm', deepest.cutter, deepest.depthUm)]
}

const noSuchCutter = (field: string, cutter: number, { cutters }: Standing): AdmitProblem => ({
  code: 'no-such-cutter',
  field,
  message: `There is no cutter ${cutter}: this loop has ${cutters}.`,
})

function pairProblems(pairs: EntryBodies['sharpened']['pairs'], joined: Joined): AdmitProblem[] {
  const { standing } = joined
  return (pairs ?? []).flatMap(({ cutter, beforeUm, afterUm }, i) => {
    if (cutter > standing.cutters) return [noSuchCutter(`pairs[${i}].cutter`, cutter, standing)]
    return [
      ...lengthProblems(beforeUm, `pairs[${i}].beforeUm`, cutter, joined),
      ...lengthProblems(afterUm, `pairs[${i}].afterUm`, cutter, joined),
    ]
  })
}

/** A look, or what was found, belongs to a sign that this log has and that was not struck out. */
function intoProblems(into: string, entries: readonly Entry[]): AdmitProblem[] {
  const struck = struckOutIds(entries)
  if (entries.some(({ id, kind }) => id === into && kind === 'noticed' && !struck.has(id))) return []
  return [{ code: 'no-such-sign', field: 'into', message: 'The sign that this belongs to is not in this log.' }]
}

/** Only a pull has a side, and it has one. */
function signProblems({ signs, toward }: EntryBodies['noticed']): AdmitProblem[] {
  if (new Set(signs).size < signs.length)
    return [{ code: 'sign-twice', field: 'signs', message: 'A sign is there twice.' }]
  if (signs.includes('pulls') === (toward !== undefined)) return []
  const message = toward === undefined ? 'Say to which side it pulls.' : 'Only a saw that pulls has a side.'
  return [{ code: 'which-side', field: 'toward', message }]
}

/** What a look cannot show, nobody found by it. */
function lookProblems({ look, found }: EntryBodies['looked']): AdmitProblem[] {
  if (found.every((cause) => LOOK_FACTS[look].shows.includes(cause))) return []
  return [{ code: 'look-shows-no-such', field: 'found', message: 'That is nothing that this look shows.' }]
}

interface Joined {
  readonly entries: readonly Entry[]
  readonly standing: Standing
  /** Length of each cutter as it is believed to be; folds the log when it is asked for. */
  readonly lengths: () => readonly Um[]
}

type NewEntryOf<K extends EntryKind> = Extract<NewEntry, { kind: K }>

const nothing = (): AdmitProblem[] => []
const away = (_entry: unknown, { standing }: Joined): AdmitProblem[] => awayProblems(standing)
const read = ({ readings }: EntryBodies['measured'], joined: Joined): AdmitProblem[] =>
  readingProblems(readings, joined)

/** What speaks against the body of an entry of each kind. */
const BODY_PROBLEMS: {
  readonly [K in Exclude<EntryKind, 'registered'>]: (entry: NewEntryOf<K>, joined: Joined) => AdmitProblem[]
} = {
  measured: read,
  inspected: read,
  struck: (entry, { standing }) => [
    ...strikeProblems(entry, standing),
    ...(entry.cutters ?? []).flatMap((cutter, i) =>
      cutter > standing.cutters ? [noSuchCutter(`cutters[${i}]`, cutter, standing)] : [],
    ),
  ],
  sharpened: ({ pairs }, joined) => pairProblems(pairs, joined),
  corrected: (entry, { entries }) => {
    const problems = strikeOutProblems(entry.strikes, entries)
    const struck = entries.find(({ id }) => id === entry.strikes)
    if (problems.length > 0 || struck?.kind !== 'specChanged') return problems
    return specProblems([...entries, asWritten(entry)])
  },
  specChanged: (entry, { entries, standing, lengths }) => [
    ...specProblems([...entries, asWritten(entry)]),
    ...(entry.changes.fileUm === undefined
      ? []
      : fileProblems(changedSpec(standing.spec, entry.changes, entry.origin), 'changes.fileUm', () =>
          Math.min(...lengths()),
        )),
  ],
  fitted: away,
  takenOff: away,
  moved: away,
  sentOut: away,
  cameBack: (_entry, { standing: { shop, tag } }) =>
    shop === null ? [{ code: 'not-at-a-shop', field: 'kind', message: `Loop ${tag} is not at a shop.` }] : [],
  decided: ({ action, advised, overruled = '' }) =>
    action === advised || overruled.trim() !== ''
      ? []
      : [{ code: 'overrule-needed', field: 'overruled', message: 'That is not what the verdict says. Say why.' }],
  noticed: signProblems,
  looked: (entry, { entries }) => [...intoProblems(entry.into, entries), ...lookProblems(entry)],
  traced: ({ into }, { entries }) => intoProblems(into, entries),
  retagged: nothing,
  ran: nothing,
  gaugesLowered: nothing,
  begun: nothing,
  retired: nothing,
  dutyChanged: nothing,
}

/** A log that entries join one after the other, each admitted to those before it. */
export class OpenLog {
  private readonly all: Entry[]
  private readonly running: RunningStanding

  /** @param entries the log so far; empty for a loop that is new */
  constructor(entries: readonly Entry[] = []) {
    this.all = [...entries]
    this.running = new RunningStanding(this.all)
  }

  /** Everything that is in the log, in the order in which it joined. */
  get entries(): readonly Entry[] {
    return this.all
  }

  /** Puts an entry into the log, whatever speaks against it. */
  add(entry: Entry): void {
    this.all.push(entry)
    this.running.joined(entry)
  }

  /** What is wrong with an entry that is to join; see {@link admit}. */
  problemsOf(entry: NewEntry, nowMs: number): AdmitProblem[] {
    const early = [...numberProblems(entry), ...futureProblems(entry.happenedAt, nowMs)]
    if (early.length > 0) return early
    const standing = this.running.now()
    if (entry.kind === 'registered') {
      return standing === null
        ? [...fileProblems(entry.spec, 'spec.fileUm'), ...usedProblems(entry)]
        : [{ code: 'registered-already', field: 'loopId', message: `Loop ${standing.tag} is registered already.` }]
    }
    if (standing === null) return [{ code: 'not-registered', field: 'loopId', message: 'There is no such loop.' }]
    const { tag, registeredAt, retiredAt } = standing
    if (entry.happenedAt < registeredAt) {
      const message = `That is before loop ${tag} was registered (${registeredAt.slice(0, 10)}).`
      return [{ code: 'before-registration', field: 'happenedAt', message }]
    }
    if (retiredAt !== null && !AFTER_RETIREMENT.includes(entry.kind) && entry.happenedAt >= retiredAt) {
      const message = `Loop ${tag} is retired. Strike out the retirement first if it is still in use.`
      return [{ code: 'after-retirement', field: 'kind', message }]
    }
    const problemsOf = BODY_PROBLEMS[entry.kind] as (entry: NewEntry, joined: Joined) => AdmitProblem[]
    const lengths = (): readonly Um[] => (fold(this.all)?.cutters ?? []).map(({ length }) => length.um)
    return problemsOf(entry, { entries: this.all, standing, lengths })
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
export const admit = (entry: NewEntry, entries: readonly Entry[], nowMs: number): AdmitProblem[] =>
  new OpenLog(entries).problemsOf(entry, nowMs)
