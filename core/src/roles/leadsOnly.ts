import type { Action, Entry, EntryKind, EntryOf, NewEntry } from '../log'
import type { NewSawEntry, SawEntry, SawEntryKind, SawEntryOf } from '../saw'

/** Why entries of a kind are a lead's to write; null where they are anybody's. */
type Why<E> = string | null | ((entry: E) => string | null)

const WHAT_IT_IS = 'Specs, tags, duty and retiring are a lead’s to change.'
const WHAT_FITS = 'Another bar or sprocket is a lead’s to write: it changes what fits.'

/** What a loop is, what goes for good, money, and going against a verdict are a lead's; work is anybody's. */
const LEADS: { readonly [K in EntryKind]: Why<Omit<EntryOf<K>, 'writtenAt' | 'writtenBy'>> } = {
  registered: WHAT_IT_IS,
  specChanged: WHAT_IT_IS,
  retagged: WHAT_IT_IS,
  retired: WHAT_IT_IS,
  dutyChanged: WHAT_IT_IS,
  cameBack: ({ costMinor }) => (costMinor === undefined ? null : 'What a shop took is for a lead to write.'),
  decided: ({ overruled }) => (overruled === undefined ? null : 'Going against a verdict is for a lead to settle.'),
  fitted: null,
  takenOff: null,
  moved: null,
  sentOut: null,
  ran: null,
  struck: null,
  measured: null,
  sharpened: null,
  gaugesLowered: null,
  inspected: null,
  // Judged by what it strikes out.
  corrected: null,
}

const LEADS_OF_SAWS: { readonly [K in SawEntryKind]: Why<SawEntryOf<K>> } = {
  barFitted: WHAT_FITS,
  sprocketRenewed: WHAT_FITS,
  barFlipped: null,
  barChecked: null,
  railsDressed: null,
  sawCorrected: null,
}

const whyOf = <E>(why: Why<E>, entry: E): string | null => (typeof why === 'function' ? why(entry) : why)

/**
 * Why an entry is a lead's to write, in one sentence; null where it is anybody's. Striking an entry
 * out is a lead's where writing it was.
 *
 * @param log of the loop, for what a correction strikes out
 * @example
 * leadsOnly({ ...base, kind: 'retired', reason: 'worn' }, log) // 'Specs, tags, duty and retiring are …'
 */
export function leadsOnly(entry: NewEntry | Entry, log: readonly Entry[]): string | null {
  if (entry.kind === 'corrected') {
    const struck = log.find(({ id }) => id === entry.strikes)
    return struck === undefined ? null : leadsOnly(struck, [])
  }
  return whyOf(LEADS[entry.kind] as Why<NewEntry | Entry>, entry)
}

/** The same for an entry in a saw's log. */
export function leadsOnlyOfSaw(entry: NewSawEntry | SawEntry, log: readonly SawEntry[]): string | null {
  if (entry.kind === 'sawCorrected') {
    const struck = log.find(({ id }) => id === entry.strikes)
    return struck === undefined ? null : leadsOnlyOfSaw(struck, [])
  }
  return whyOf(LEADS_OF_SAWS[entry.kind] as Why<NewSawEntry | SawEntry>, entry)
}

/** Jobs that only a lead begins, since the entry with which they end is a lead's. */
const LEADS_JOBS: Readonly<Partial<Record<Action, EntryKind>>> = { retire: 'retired', dirtyDuty: 'dutyChanged' }

/** Whether only a lead begins a job. `isLeadsJob('retire') // true` */
export const isLeadsJob = (action: Action): boolean => {
  const kind = LEADS_JOBS[action]
  return kind !== undefined && LEADS[kind] !== null
}
