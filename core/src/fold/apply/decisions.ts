import { compareEntries, type Entry, type EntryKind } from '../../log'
import type { Draft } from '../draft'
import type { Applier } from './applier'

/** The loop is kept for other work from now on. */
export const applyDutyChanged: Applier<'dutyChanged'> = (draft, { duty }) => {
  draft.duty = duty
}

/** Somebody settled what is to be done. */
export const applyDecided: Applier<'decided'> = (draft, entry) => {
  draft.decision = {
    entryId: entry.id,
    at: entry.happenedAt,
    personId: entry.personId,
    action: entry.action,
    advised: entry.advised,
    overruled: entry.overruled ?? null,
    rulesVersion: entry.rulesVersion,
  }
}

/** Where it lies, and under which tag, changes nothing about what was decided. */
const LEAVES_DECISION: ReadonlySet<EntryKind> = new Set([
  'decided',
  'fitted',
  'takenOff',
  'moved',
  'sentOut',
  'cameBack',
  'retagged',
])

/** A decision holds for the loop as it was: what happens to its steel ends it. */
export function lapse(draft: Draft, kind: EntryKind): void {
  if (!LEAVES_DECISION.has(kind)) draft.decision = null
}

/**
 * A decision rests on the log as it stood when it was written down: an entry that came in later and falls
 * before it, or a strike-out of such an entry, ends it too.
 *
 * @param entries the whole log, struck-out entries and corrections with it
 */
export function lapseIfLate(draft: Draft, entries: readonly Entry[]): void {
  const decided = entries.find(({ id }) => id === draft.decision?.entryId)
  if (decided === undefined) return
  const changes = (entry: Entry): boolean => compareEntries(entry, decided) < 0 && !LEAVES_DECISION.has(entry.kind)
  const late = entries.some((entry) => {
    if (entry.writtenAt <= decided.writtenAt) return false
    if (entry.kind !== 'corrected') return changes(entry)
    const struck = entries.find(({ id }) => id === entry.strikes)
    return struck !== undefined && changes(struck)
  })
  if (late) draft.decision = null
}
