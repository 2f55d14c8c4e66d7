import { CLOCK_SLACK_MS, type Instant } from '../log'

/** Why an entry cannot join a log. The codes are stable. */
export const ADMIT_CODES = {
  'no-such-sign': 'The sign that it belongs to is not in this log',
  'sign-twice': 'A sign is there twice',
  'which-side': 'A pull has a side, and nothing else has',
  'look-shows-no-such': 'The look cannot show what is said to be found',
  'not-a-number': 'A figure is no number',
  'in-the-future': 'It is said to happen later than now',
  'not-registered': 'There is no such loop',
  'registered-already': 'The loop is registered already',
  'before-registration': 'It is before the loop was registered',
  'after-retirement': 'The loop was retired by then',
  'no-such-cutter': 'The loop has no such cutter',
  'cutter-twice': 'A cutter is there twice',
  'length-cannot-be': 'No cutter or gauge of this loop can measure that',
  'damage-too-deep': 'The damage is deeper than a new cutter is long',
  'overrule-needed': 'It goes against the verdict and says no reason',
  'deepest-elsewhere': 'The deepest place is on a cutter that was not struck',
  'no-such-entry': 'The entry to strike out is not in this log',
  'correction-of-correction': 'A correction cannot be struck out',
  'struck-out-already': 'The entry has been struck out already',
  'registration-stays': 'A registration cannot be struck out',
  'at-a-shop': 'The loop is at a shop',
  'not-at-a-shop': 'The loop is not at a shop',
  'spec-cannot-be': 'The spec does not go with the log',
  'file-does-not-fit': 'The file named is not one for this pitch',
  'groove-cannot-be': 'The groove is narrower than it was made',
  'name-cannot-be': 'A saw cannot be called that',
  'hours-cannot-be': 'No tank comes to so many hours',
  'saw-is-so': 'The saw is so already',
  'nothing-read': 'Nothing was read off the saw',
} as const

export type AdmitCode = keyof typeof ADMIT_CODES

/** One thing wrong with an entry: a stable code, the field, and plain words. */
export interface AdmitProblem {
  readonly code: AdmitCode
  /** Path of the field within the entry. */
  readonly field: string
  readonly message: string
}

/** Whether something is said to happen later than a device's clock may run ahead. */
export function futureProblems(happenedAt: Instant, nowMs: number): AdmitProblem[] {
  if (Date.parse(happenedAt) <= nowMs + CLOCK_SLACK_MS) return []
  return [{ code: 'in-the-future', field: 'happenedAt', message: 'That is in the future. Check the date and time.' }]
}

/** Every figure in an entry that is no finite number, so that none ends in a loop. */
export function numberProblems(value: unknown, field = ''): AdmitProblem[] {
  if (typeof value === 'number' && !Number.isFinite(value))
    return [{ code: 'not-a-number', field, message: 'This has to be a number.' }]
  if (Array.isArray(value)) return value.flatMap((one, i) => numberProblems(one, `${field}[${i}]`))
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([key, one]) => numberProblems(one, field === '' ? key : `${field}.${key}`))
}
