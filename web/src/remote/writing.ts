import { isOfSaw, type AnyNewEntry } from '@undercliff/contract'
import type { Entry, SawEntry } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { useNotices } from './notices'
import { useOutbox } from './outbox'
import { useSession } from './sessionStore'

/** What is said of entries besides that they were logged. */
const BECAME = {
  sent: '',
  kept: '; kept on this device until the shed answers',
  held: '; NOT kept, since this device keeps nothing: leave this page open until the shed answers',
} as const

/** Writes entries of loops and saws, tells what became of them, and takes them back again. */
export const useWriting = defineStore('writing', () => {
  const outbox = useOutbox()
  const notices = useNotices()
  const session = useSession()

  /** Entries that strike others out, the last first, a millisecond apart so that they count in this order. */
  function corrections(entries: readonly (AnyNewEntry | Entry | SawEntry)[]): AnyNewEntry[] {
    const at = Date.now()
    const personId = session.me?.personId ?? null
    return [...entries].reverse().map((entry, i): AnyNewEntry => {
      const base = { id: nanoid(), happenedAt: new Date(at + i).toISOString(), personId, strikes: entry.id }
      return isOfSaw(entry)
        ? { ...base, sawId: entry.sawId, kind: 'sawCorrected' }
        : { ...base, loopId: entry.loopId, kind: 'corrected' }
    })
  }

  /** What an undo cannot strike out: corrections, and the entry that a loop begins with. */
  const stays = ({ kind }: AnyNewEntry): boolean =>
    kind === 'corrected' || kind === 'sawCorrected' || kind === 'registered'

  /**
   * Writes entries and says so, with an undo of those that were taken.
   *
   * @param said what the notice says of so many entries, without its full stop
   * @param undo what takes it back, where that is more than striking out what was taken
   * @returns null when all are written or kept, or the sentence that says why they are not
   */
  async function write(
    entries: readonly AnyNewEntry[],
    said: string | ((taken: number) => string),
    undo?: () => unknown,
  ): Promise<string | null> {
    const sent = await outbox.send(entries)
    const { taken } = sent
    if (taken.length > 0) {
      const text = typeof said === 'string' ? said : said(taken.length)
      const kept = sent.outcome === 'refused' ? '' : BECAME[sent.outcome]
      const back = undo ?? (taken.every(stays) ? undefined : () => strikeOut(taken, 'Undone'))
      notices.say(`${text}${kept}.`, back)
    }
    return sent.outcome === 'refused' ? sent.why : null
  }

  /** Strikes entries out; they stay in the log with the corrections beside them. */
  async function strikeOut(entries: readonly (AnyNewEntry | Entry | SawEntry)[], said = 'Struck out'): Promise<void> {
    const wrong = await write(corrections(entries), said)
    if (wrong !== null) notices.say(wrong)
  }

  return { write, strikeOut }
})
