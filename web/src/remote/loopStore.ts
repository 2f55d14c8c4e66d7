import { admit, asWritten, fold, type Entry, type LoopState, type NewEntry } from '@undercliff/core'
import { isOfSaw, type EntriesAnswer } from '@undercliff/contract'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { fetchLoop, ServerRefusal } from './api'
import { keptLog } from './keptLogs'
import { useOutbox } from './outbox'
import { useShed } from './shedStore'
import { useWriting } from './writing'

type NewBody<T> = T extends NewEntry ? Omit<T, 'id' | 'loopId' | 'happenedAt'> & { happenedAt?: string } : never

/** What a screen gives; id, loop and time are filled in. */
export type EntryDraft = NewBody<NewEntry>

/** The loop on screen: its log as written, what of it still waits to be sent, and its state. */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useLoop = defineStore('loop', () => {
  const outbox = useOutbox()
  const shed = useShed()
  const writing = useWriting()
  const loopId = ref<string | null>(null)
  const written = shallowRef<readonly Entry[]>([])
  const status = ref<'loading' | 'ready' | 'missing' | 'away'>('loading')

  const waiting = computed<Entry[]>(() => {
    const known = new Set(written.value.map(({ id }) => id))
    return outbox.waiting
      .flatMap(({ entries }) => entries)
      .filter((entry) => !isOfSaw(entry))
      .filter((entry) => entry.loopId === loopId.value && !known.has(entry.id))
      .map((entry) => asWritten(entry))
  })
  /** Everything that counts for this device, written or not. */
  const entries = computed<readonly Entry[]>(() => [...written.value, ...waiting.value])
  const state = computed<LoopState | null>(() => fold(entries.value))

  /**
   * Takes entries that the server has written. Logs only grow, so an answer that was on its way
   * while something was written takes nothing back.
   */
  function learn(fresh: EntriesAnswer['entries']): void {
    const known = new Set(written.value.map(({ id }) => id))
    const mine = fresh.filter(
      (entry): entry is Entry => 'loopId' in entry && entry.loopId === loopId.value && !known.has(entry.id),
    )
    if (mine.length > 0) written.value = [...written.value, ...mine]
  }

  outbox.onWritten(({ entries: fresh }) => {
    learn(fresh)
  })

  /** Brings a loop up by the tag in the address. */
  async function open(tag: string): Promise<void> {
    if (shed.loopByTag(tag) === undefined) await shed.load()
    const card = shed.loopByTag(tag)
    if (card === undefined) {
      // Only a shed that answered can say that it has no such loop.
      status.value = shed.loaded && !shed.away ? 'missing' : 'away'
      return
    }
    if (loopId.value !== card.loopId) {
      written.value = []
      loopId.value = card.loopId
      status.value = 'loading'
    }
    const wanted = card.loopId
    // What is known to be away is not waited for.
    if (shed.away && (await openKept(wanted))) return
    try {
      const answer = await fetchLoop(wanted)
      if (loopId.value !== wanted) return
      learn(answer.entries)
      status.value = 'ready'
    } catch (error) {
      if (error instanceof ServerRefusal) status.value = 'missing'
      else if (!(await openKept(wanted))) status.value = written.value.length > 0 ? 'ready' : 'away'
    }
  }

  /** Brings a loop up as this device has kept it. @returns whether it has */
  async function openKept(wanted: string): Promise<boolean> {
    const kept = await keptLog(wanted)
    if (kept.length === 0 || loopId.value !== wanted) return false
    learn(kept)
    status.value = 'ready'
    return true
  }

  /** A draft as an entry of this loop. */
  const entryOf = (draft: EntryDraft): NewEntry => {
    const happenedAt = draft.happenedAt ?? new Date().toISOString()
    return { ...draft, id: nanoid(), loopId: loopId.value ?? '', happenedAt }
  }

  /** An entry as it would stand in the log, for looking ahead without writing it. */
  const provisional = (draft: EntryDraft): Entry => asWritten(entryOf(draft))

  /**
   * Writes an entry: checked here, kept on this device, sent, with an undo.
   *
   * @param said what the notice says, such as `Sharpening logged`
   * @returns null when it is written or kept, or the sentence that says what is wrong
   */
  async function write(draft: EntryDraft, said: string): Promise<string | null> {
    const entry = entryOf(draft)
    const [problem] = admit(entry, entries.value, Date.now())
    return problem === undefined ? writing.write([entry], said) : problem.message
  }

  /** Strikes an entry out; it stays in the log with the correction beside it. */
  async function strikeOut(entryId: string): Promise<void> {
    const entry = entries.value.find(({ id }) => id === entryId)
    if (entry !== undefined) await writing.strikeOut([entry])
  }

  return { loopId, entries, waiting, state, status, open, write, strikeOut, provisional }
})
