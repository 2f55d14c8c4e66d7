import type { EntryDraft } from '../../remote/loopStore'

type Body<T> = T extends EntryDraft ? Omit<T, 'personId' | 'note' | 'happenedAt'> : never

/** What a page logs, without who, when and the note, which every page has. */
export type NoteBody = Body<EntryDraft>
