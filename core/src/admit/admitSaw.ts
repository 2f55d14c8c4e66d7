import type { Gone, NewSawEntry, SawEntry, SawEntryBodies, SawEntryKind, SawFit } from '../saw'
import { sawState } from '../saw'
import type { Um } from '../units'
import { futureProblems, numberProblems, type AdmitProblem } from './problem'

/** A groove may be measured this much under what is stamped on the bar. Starting value. */
const GROOVE_UNDER_UM: Um = 100

function strikeOutProblems(strikes: string, log: readonly SawEntry[]): AdmitProblem[] {
  const field = 'strikes'
  const target = log.find(({ id }) => id === strikes)
  if (target === undefined)
    return [{ code: 'no-such-entry', field, message: 'The entry to strike out is not in this log.' }]
  if (target.kind === 'sawCorrected') {
    const message = 'A correction cannot be struck out. Write the entry again instead.'
    return [{ code: 'correction-of-correction', field, message }]
  }
  return log.some((one) => one.kind === 'sawCorrected' && one.strikes === strikes)
    ? [{ code: 'struck-out-already', field, message: 'That entry has been struck out already.' }]
    : []
}

const nameProblems = ({ from, to }: SawEntryBodies['sawRenamed']): AdmitProblem[] =>
  to.trim() === '' || to === from ? [{ code: 'name-cannot-be', field: 'to', message: 'Give it another name.' }] : []

function goneProblems(entry: Extract<NewSawEntry, { kind: 'sawGone' | 'sawBack' }>, gone: Gone | null): AdmitProblem[] {
  if (entry.kind === 'sawBack' ? gone !== null : gone?.how !== entry.how) return []
  const message = entry.kind === 'sawBack' ? 'It is here already.' : 'It is so already.'
  return [{ code: 'saw-is-so', field: 'kind', message }]
}

/** Hours that no tank comes to, least and most. Starting values. */
const TANK_HOURS = { least: 0.1, most: 6 } as const

/** What a tank is said to come to has to be what a tank can. */
function hoursProblems({ tanks, hours }: SawEntryBodies['hoursSaid']): AdmitProblem[] {
  const each = hours / tanks
  if (each >= TANK_HOURS.least && each <= TANK_HOURS.most) return []
  const message = `That is ${Math.round(each * 100) / 100} hours a tank. Is it a slip?`
  return [{ code: 'hours-cannot-be', field: 'hours', message }]
}

/** A groove does not get narrower than the bar was made with. */
function grooveProblems({ grooveWidthUm }: SawEntryBodies['barChecked'], { log, first }: Joined): AdmitProblem[] {
  const { gaugeUm } = sawState(first, log, []).fit
  if (grooveWidthUm === undefined || gaugeUm === null || grooveWidthUm >= gaugeUm - GROOVE_UNDER_UM) return []
  const message = 'A groove does not get narrower than it was made. Is it the width, not the depth?'
  return [{ code: 'groove-cannot-be', field: 'grooveWidthUm', message }]
}

const READ_OFF = ['pitchClass', 'gaugeUm', 'driveLinks', 'nosePitchClass', 'barStamp'] as const

function readOffProblems(read: SawEntryBodies['fitRead']): AdmitProblem[] {
  if (READ_OFF.some((field) => read[field] !== undefined)) return []
  return [{ code: 'nothing-read', field: 'gaugeUm', message: 'Say what was read off the bar or the sprocket.' }]
}

/** What an entry joins. */
interface Joined {
  readonly log: readonly SawEntry[]
  readonly first: SawFit
}

const nothing = (): AdmitProblem[] => []
const gone = (entry: Extract<NewSawEntry, { kind: 'sawGone' | 'sawBack' }>, { log, first }: Joined): AdmitProblem[] =>
  goneProblems(entry, sawState(first, log, []).gone)

/** What speaks against the body of an entry of each kind. */
const BODY_PROBLEMS: {
  readonly [K in SawEntryKind]: (entry: Extract<NewSawEntry, { kind: K }>, joined: Joined) => AdmitProblem[]
} = {
  sawCorrected: ({ strikes }, { log }) => strikeOutProblems(strikes, log),
  barChecked: grooveProblems,
  sawRenamed: nameProblems,
  sawGone: gone,
  sawBack: gone,
  hoursSaid: hoursProblems,
  fitRead: readOffProblems,
  barFitted: nothing,
  barFlipped: nothing,
  railsDressed: nothing,
  putBack: nothing,
  tensionLooked: nothing,
  oilFilled: nothing,
  sprocketRenewed: nothing,
}

/**
 * What is wrong with an entry, given the log of the saw that it is to join; empty when it may. The
 * same check runs in the browser before sending and on the server before writing.
 *
 * @param first what the saw took when it was added
 * @param nowMs the present, milliseconds since 1970
 */
export function admitSaw(entry: NewSawEntry, log: readonly SawEntry[], first: SawFit, nowMs: number): AdmitProblem[] {
  const early = [...numberProblems(entry), ...futureProblems(entry.happenedAt, nowMs)]
  if (early.length > 0) return early
  const problemsOf = BODY_PROBLEMS[entry.kind] as (entry: NewSawEntry, joined: Joined) => AdmitProblem[]
  return problemsOf(entry, { log, first })
}
