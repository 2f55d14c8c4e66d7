import type { EntryKind, EntryOf } from '../../log'
import type { Draft } from '../draft'

/** How an entry of one kind changes a loop. */
export type Applier<K extends EntryKind> = (draft: Draft, entry: EntryOf<K>) => void
