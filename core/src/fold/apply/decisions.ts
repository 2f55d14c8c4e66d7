import type { EntryKind } from '../../log'
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
