import type { LoopState } from '../state'
import { entriesThatCount, type Entry, type EntryKind, type Instant } from '../log'
import type { Applier } from './apply/applier'
import { applyDecided, applyDutyChanged, lapse, lapseIfLate } from './apply/decisions'
import { applyInspected } from './apply/inspected'
import { applyMeasured } from './apply/measured'
import { applyBegun, applySharpened, lowerGauges } from './apply/sharpened'
import { applyCameBack, applyFitted, applyMoved, applySentOut, applyTakenOff } from './apply/places'
import { applyLooked, applyNoticed, applyTraced } from './apply/signs'
import { applyRan, applyRetired, applyStruck } from './apply/use'
import { changedSpec } from '../profile'
import { closeDraft, openDraft, type Draft } from './draft'

type Appliers = { readonly [K in Exclude<EntryKind, 'registered' | 'specChanged' | 'corrected'>]: Applier<K> }

const appliers: Appliers = {
  retagged: (draft, { tag }) => {
    draft.tag = tag
  },
  fitted: applyFitted,
  takenOff: applyTakenOff,
  moved: applyMoved,
  sentOut: applySentOut,
  cameBack: applyCameBack,
  ran: applyRan,
  struck: applyStruck,
  measured: applyMeasured,
  sharpened: applySharpened,
  gaugesLowered: (draft, entry) => {
    lowerGauges(draft, entry)
  },
  begun: applyBegun,
  noticed: applyNoticed,
  looked: applyLooked,
  traced: applyTraced,
  inspected: applyInspected,
  retired: applyRetired,
  dutyChanged: applyDutyChanged,
  decided: applyDecided,
}

function apply(draft: Draft, entry: Entry): void {
  // A loop is registered once; its spec and corrections have had their say before the fold begins.
  if (entry.kind === 'registered' || entry.kind === 'corrected') return
  lapse(draft, entry.kind)
  if (entry.kind === 'specChanged') {
    draft.entriesCounted += 1
    draft.lastEntryAt = entry.happenedAt
    return
  }
  const applier = appliers[entry.kind] as Applier<typeof entry.kind>
  applier(draft, entry)
  draft.entriesCounted += 1
  draft.lastEntryAt = entry.happenedAt
}

/**
 * The state of a loop: a pure fold of its log. The order of `entries` does not matter; late
 * entries fall into place by when they happened, struck-out ones do not count.
 *
 * @param entries the whole log of one loop
 * @param until state at this past instant; the latest when left out
 * @returns null when the loop was not registered by then
 * @example
 * fold(log)?.sharpenings
 */
export function fold(entries: readonly Entry[], until?: Instant): LoopState | null {
  const counted = entriesThatCount(entries, until)
  const registered = counted.find((entry) => entry.kind === 'registered')
  if (registered?.kind !== 'registered') return null
  const spec = counted.reduce(
    (held, entry) => (entry.kind === 'specChanged' ? changedSpec(held, entry.changes, entry.origin) : held),
    registered.spec,
  )
  const draft = openDraft(registered, spec)
  // What is dated before it was registered says nothing of it.
  for (const entry of counted.slice(counted.indexOf(registered) + 1)) apply(draft, entry)
  if (draft.decision !== null)
    lapseIfLate(draft, until === undefined ? entries : entries.filter((one) => one.happenedAt <= until))
  return closeDraft(draft)
}
