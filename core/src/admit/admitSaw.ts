import type { Gone, NewSawEntry, SawEntry, SawEntryBodies, SawFit } from '../saw'
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
  switch (entry.kind) {
    case 'sawCorrected':
      return strikeOutProblems(entry.strikes, log)
    case 'barChecked': {
      const { grooveWidthUm } = entry
      const { gaugeUm } = sawState(first, log, []).fit
      if (grooveWidthUm === undefined || grooveWidthUm >= gaugeUm - GROOVE_UNDER_UM) return []
      const message = 'A groove does not get narrower than it was made. Is it the width, not the depth?'
      return [{ code: 'groove-cannot-be', field: 'grooveWidthUm', message }]
    }
    case 'sawRenamed':
      return nameProblems(entry)
    case 'sawGone':
    case 'sawBack':
      return goneProblems(entry, sawState(first, log, []).gone)
    case 'barFitted':
    case 'barFlipped':
    case 'railsDressed':
    case 'putBack':
    case 'tensionLooked':
    case 'sprocketRenewed':
      return []
  }
}
