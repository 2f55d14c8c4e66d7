import type { EntryOf } from '../../log'
import type { QuestionKind } from '../../state'
import type { Draft } from '../draft'

/** Minutes within which two people hardly sharpen the same loop one after the other. Starting value. */
const WITHIN_MINUTES = 20
const MINUTE_MS = 60_000

/** Something about the log is asked of a person, once until it is answered. */
export function ask(draft: Draft, kind: QuestionKind, entryId: string): void {
  if (draft.questions.every((one) => one.kind !== kind)) draft.questions.push({ kind, entryId })
}

/** What was done since answers it. */
export function answer(draft: Draft, ...kinds: readonly QuestionKind[]): void {
  if (draft.questions.length > 0) draft.questions = draft.questions.filter(({ kind }) => !kinds.includes(kind))
}

/** Asks whether a sharpening is the one that somebody else has just written down. */
export function askIfTwice(draft: Draft, entry: EntryOf<'sharpened'>): void {
  const before = draft.sharpenedLast
  draft.sharpenedLast = entry
  if (before === null || before.personId === entry.personId) return
  // One side each is no work done twice.
  if (entry.onlySide !== undefined && before.onlySide !== entry.onlySide) return
  const apart = Math.abs(Date.parse(entry.happenedAt) - Date.parse(before.happenedAt))
  if (apart <= WITHIN_MINUTES * MINUTE_MS) ask(draft, 'sharpenedTwice', entry.id)
}
