import type { Action, Entry, EntryBase, EntryKind, EntryOf, NewEntry } from '../log'
import type { NewSawEntry, SawEntry, SawEntryKind, SawEntryOf } from '../saw'

/** Why entries of a kind are a lead's to write; null where they are anybody's. */
type Why<E> = string | null | ((entry: E) => string | null)

const WHAT_IT_IS = 'Specs, tags, duty and retiring are a lead’s to change.'
const WHAT_FITS = 'Another bar or sprocket is a lead’s to write: it changes what fits.'
const WHOSE_IT_IS = 'Names of saws, lending and retiring them are a lead’s to write.'

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
  begun: null,
  noticed: null,
  looked: null,
  traced: null,
  inspected: null,
  // Judged by what it strikes out.
  corrected: null,
}

const LEADS_OF_SAWS: { readonly [K in SawEntryKind]: Why<SawEntryOf<K>> } = {
  barFitted: WHAT_FITS,
  fitRead: WHAT_FITS,
  sprocketRenewed: WHAT_FITS,
  barFlipped: null,
  barChecked: null,
  railsDressed: null,
  putBack: null,
  tensionLooked: null,
  oilFilled: null,
  hoursSaid: null,
  sawRenamed: WHOSE_IT_IS,
  sawGone: WHOSE_IT_IS,
  sawBack: WHOSE_IT_IS,
  sawCorrected: null,
}

const whyOf = <E>(why: Why<E>, entry: E): string | null => (typeof why === 'function' ? why(entry) : why)

/** Who asks, and when. */
export interface Asking {
  readonly personId: string | null
  /** The present, milliseconds since 1970, by the clock that says when entries were written. */
  readonly nowMs: number
}

/** Days for which a sawyer may strike out what they wrote or did. Starting value. */
export const STRIKE_DAYS = 7
const DAY_MS = 86_400_000

/** Why somebody who is no lead may not strike out an entry that was theirs to write; null when they may. */
function notTheirs(
  { writtenBy, personId, writtenAt }: Pick<EntryBase, 'writtenBy' | 'personId' | 'writtenAt'>,
  by: Asking,
): string | null {
  const theirs = by.personId !== null && (writtenBy === by.personId || personId === by.personId)
  if (!theirs) return 'Somebody else wrote that. Ask them or a lead to strike it out.'
  return by.nowMs - Date.parse(writtenAt) > STRIKE_DAYS * DAY_MS
    ? `That was written more than ${STRIKE_DAYS} days ago. Ask a lead to strike it out.`
    : null
}

/**
 * Why somebody who is no lead may not strike out an entry, in one sentence; null when they may: what
 * they wrote or did themselves, for {@link STRIKE_DAYS} days.
 */
export const whyNotStrike = (struck: Entry, by: Asking): string | null =>
  leadsOnly(struck, [], by) ?? notTheirs(struck, by)

/** The same for an entry in a saw's log. */
export const whyNotStrikeOfSaw = (struck: SawEntry, by: Asking): string | null =>
  leadsOnlyOfSaw(struck, [], by) ?? notTheirs(struck, by)

/**
 * Why an entry is not for somebody to write who is no lead, in one sentence; null where it is. Striking
 * an entry out is a lead's where writing it was, and otherwise whoever's it is.
 *
 * @param log of the loop, for what a correction strikes out
 * @example
 * leadsOnly({ ...base, kind: 'retired', reason: 'worn' }, log, { personId: 'me', nowMs: 0 })
 * // 'Specs, tags, duty and retiring are …'
 */
export function leadsOnly(entry: NewEntry | Entry, log: readonly Entry[], by: Asking): string | null {
  if (entry.kind === 'corrected') {
    const struck = log.find(({ id }) => id === entry.strikes)
    return struck === undefined ? null : whyNotStrike(struck, by)
  }
  return whyOf(LEADS[entry.kind] as Why<NewEntry | Entry>, entry)
}

/** The same for an entry in a saw's log. */
export function leadsOnlyOfSaw(entry: NewSawEntry | SawEntry, log: readonly SawEntry[], by: Asking): string | null {
  if (entry.kind === 'sawCorrected') {
    const struck = log.find(({ id }) => id === entry.strikes)
    return struck === undefined ? null : whyNotStrikeOfSaw(struck, by)
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
