import { admit, fold, type Entry, type LoopState, type NewEntry } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { fetchLoop, ServerRefusal } from './api'
import { useNotices } from './notices'
import { useOutbox } from './outbox'
import { useShed } from './shedStore'

type NewBody<T> = T extends NewEntry ? Omit<T, 'id' | 'loopId' | 'happenedAt'> & { happenedAt?: string } : never

/** What a screen gives; id, loop and time are filled in. */
export type EntryDraft = NewBody<NewEntry>

/** The loop on screen: its log as written, what of it still waits to be sent, and its state. */
export const useLoop = defineStore('loop', () => {
  const outbox = useOutbox()
  const shed = useShed()
  const notices = useNotices()
  const loopId = ref<string | null>(null)
  const written = shallowRef<readonly Entry[]>([])
  const status = ref<'loading' | 'ready' | 'missing' | 'away'>('loading')

  const waiting = computed<Entry[]>(() => {
    const known = new Set(written.value.map(({ id }) => id))
    return outbox.waiting
      .flatMap(({ entries }) => entries)
      .filter((entry) => entry.loopId === loopId.value && !known.has(entry.id))
      .map((entry) => ({ ...entry, writtenAt: entry.happenedAt, writtenBy: null }) as Entry)
  })
  /** Everything that counts for this device, written or not. */
  const entries = computed<readonly Entry[]>(() => [...written.value, ...waiting.value])
  const state = computed<LoopState | null>(() => fold(entries.value))

  /**
   * Takes entries that the server has written. Logs only grow, so an answer that was on its way
   * while something was written takes nothing back.
   */
  function learn(fresh: readonly Entry[]): void {
    const known = new Set(written.value.map(({ id }) => id))
    const mine = fresh.filter((entry) => entry.loopId === loopId.value && !known.has(entry.id))
    if (mine.length > 0) written.value = [...written.value, ...mine]
  }

  outbox.onWritten((fresh) => {
    learn(fresh)
    void shed.load()
  })

  /** Brings a loop up by the tag in the address. */
  async function open(tag: string): Promise<void> {
    if (shed.loopByTag(tag) === undefined) await shed.load()
    const card = shed.loopByTag(tag)
    if (card === undefined) {
      status.value = shed.away ? 'away' : 'missing'
      return
    }
    if (loopId.value !== card.loopId) {
      written.value = []
      loopId.value = card.loopId
      status.value = 'loading'
    }
    const wanted = card.loopId
    try {
      const answer = await fetchLoop(wanted)
      if (loopId.value !== wanted) return
      learn(answer.entries)
      status.value = 'ready'
    } catch (error) {
      status.value = error instanceof ServerRefusal ? 'missing' : written.value.length > 0 ? 'ready' : 'away'
    }
  }

  /** An entry as it would stand in the log, for looking ahead without writing it. */
  const provisional = (draft: EntryDraft): Entry => {
    const happenedAt = draft.happenedAt ?? new Date().toISOString()
    return {
      ...draft,
      id: nanoid(),
      loopId: loopId.value ?? '',
      happenedAt,
      writtenAt: happenedAt,
      writtenBy: null,
    } as Entry
  }

  /**
   * Writes an entry: checked here, kept on this device, sent, with an undo.
   *
   * @param said what the notice says, such as `Sharpening logged`
   * @returns null when it is written or kept, or the sentence that says what is wrong
   */
  async function write(draft: EntryDraft, said: string, before: readonly NewEntry[] = []): Promise<string | null> {
    const { writtenAt: _writtenAt, writtenBy: _writtenBy, ...entry } = provisional(draft)
    const newEntry = entry as NewEntry
    const [problem] = admit(newEntry, entries.value, Date.now())
    if (problem !== undefined) return problem.message
    const result = await outbox.send([...before, newEntry])
    if (result.outcome === 'refused') return result.why
    const undo = newEntry.kind === 'corrected' ? undefined : () => strikeOut(newEntry.id, 'Undone')
    notices.say(result.outcome === 'sent' ? `${said}.` : `${said}; kept on this device until the shed answers.`, undo)
    return null
  }

  /** Strikes an entry out; it stays in the log with the correction beside it. */
  async function strikeOut(entryId: string, said = 'Struck out'): Promise<void> {
    const wrong = await write({ kind: 'corrected', strikes: entryId, personId: null }, said)
    if (wrong !== null) notices.say(wrong)
  }

  return { loopId, entries, waiting, state, status, open, write, strikeOut, provisional }
})
