import type { ProblemCode } from '@undercliff/contract'
import type { AdmitCode } from '@undercliff/core'

/** What can be done about an entry that was refused when it came home, by the code of why. */
const WHAT_NOW: Partial<Record<AdmitCode | ProblemCode, string>> = {
  'after-retirement':
    'Was it retired by mistake? A lead strikes that out in its log; then send this again. Else throw this away.',
  'saw-occupied':
    'Somebody put another loop on that saw meanwhile. Put that one where it is by now, then send this again.',
  'at-a-shop': 'The log has it at a shop. If it is back, log that it came back, then send this again.',
  'not-at-a-shop': 'Somebody logged it back already. Throw this away unless the place differs.',
  'saw-is-so': 'Somebody wrote the same meanwhile. Throw this away.',
  'struck-out-already': 'Somebody struck it out meanwhile. Throw this away.',
  'no-such-loop': 'This shed never had that loop, or has it no more. Copy what is here, then throw it away.',
  'not-registered': 'This shed never had that loop. Copy what is here, then throw it away.',
  'no-such-saw': 'This shed never had that saw. Copy what is here, then throw it away.',
  'does-not-fit': 'The spec of the loop or the saw was changed meanwhile. Look at both before anything goes on.',
  'overrule-needed':
    'The verdict changed meanwhile. Look at the loop, and log it anew with a reason where it has to be.',
  'unfit-stays-out':
    'By what the others logged the loop is not fit for use. Take it off and look it over; do not cut with it.',
  'in-the-future': 'Put the time right, then send it again.',
  'before-registration': 'Put the time right, then send it again.',
  'no-such-cutter': 'The spec of the loop was changed meanwhile. Put the cutter right, then send it again.',
  'lead-only': 'Ask a lead to sign in here and send it again.',
}

/** What can be done about a refusal; a word for all where nothing more is known of it. */
export const whatNow = (code: string | undefined): string =>
  (WHAT_NOW as Readonly<Record<string, string | undefined>>)[code ?? ''] ??
  'Put right what it says and send it again, or throw it away.'
