import { isOfSaw, type AnyNewEntry, type NewPhoto } from '@undercliff/contract'
import { asWritten, sayEntry, sayMoment, saySawEntry, type SawEntry } from '@undercliff/core'
import { useShed } from '../../remote/shedStore'

/** How entries and photographs that the shed does not have yet are said. */
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

  /** What a photograph shows, of which loop or saw, and when it was taken. */
  function sayPhoto({ sawId, loopId, shows, takenAt }: NewPhoto): string {
    const tag = shed.loops.find((loop) => loop.loopId === loopId)?.tag ?? 'A loop'
    const subject = sawId === undefined ? tag : shed.sawName(sawId)
    return `${subject}: photograph${shows === '' ? '' : ` of ${shows}`}, ${sayMoment(new Date(takenAt), shed.dates)}`
  }
  const who = (entry: AnyNewEntry): string => (entry.personId === null ? '' : `, ${shed.nameOf(entry.personId)}`)
  return { say, sayPhoto, when, who }
}
