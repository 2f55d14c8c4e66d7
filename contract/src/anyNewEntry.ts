import { SAW_ENTRY_KINDS, type NewEntry, type NewSawEntry } from '@undercliff/core'

/** An entry in a loop's log or in a saw's, as a device sends it. Their kinds tell them apart. */
export type AnyNewEntry = NewEntry | NewSawEntry

/** Whether an entry goes into a saw's log. */
export const isOfSaw = <E extends { readonly kind: string }>(
  entry: E,
): entry is Extract<E, { kind: NewSawEntry['kind'] }> => (SAW_ENTRY_KINDS as readonly string[]).includes(entry.kind)
