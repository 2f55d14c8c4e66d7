import { isOfSaw, type AnyNewEntry } from '@undercliff/contract'
import { asWritten, sayEntry, sayMoment, saySawEntry, type SawEntry } from '@undercliff/core'
import { useShed } from '../../remote/shedStore'

/** How entries that the shed does not have yet are said. */
export function useSayWaiting() {
  const shed = useShed()

  /** What an entry says, and of which loop or saw. */
  function say(entry: AnyNewEntry): string {
    if (isOfSaw(entry)) {
      const written: SawEntry = { ...entry, writtenAt: entry.happenedAt, writtenBy: null }
      return `${shed.sawName(entry.sawId)}: ${saySawEntry(written, shed.lengths)}`
    }
    const tag = shed.loops.find(({ loopId }) => loopId === entry.loopId)?.tag ?? 'A loop'
    return `${tag}: ${sayEntry(asWritten(entry), shed.figures, shed.sawName)}`
  }
  const when = (entry: AnyNewEntry): string => sayMoment(new Date(entry.happenedAt), shed.dates)
  const who = (entry: AnyNewEntry): string => (entry.personId === null ? '' : `, ${shed.nameOf(entry.personId)}`)
  return { say, when, who }
}
