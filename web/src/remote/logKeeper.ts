import type { Saw } from '@undercliff/contract'
import { fetchLogs, fetchSaw } from './api'
import { keepLogs, keepSaw, keptPlace, keptSaw } from './keptLogs'
import { hearToday } from './todaysEntries'

let keeping: Promise<boolean> | null = null
let again = false

async function readOn(crewId: string): Promise<void> {
  let place = await keptPlace(crewId)
  for (;;) {
    const answer = await fetchLogs(place)
    hearToday(answer.entries)
    await keepLogs(crewId, answer)
    // A place that stands still would be asked for ever.
    if (!answer.more || answer.place === place) return
    place = answer.place
  }
}

/**
 * Reads what was written to the crew's logs since they were last kept on this device, while nobody waits for it. What
 * cannot be read or kept now is read the next time; one reading goes on at a time.
 *
 * @returns whether all of them are kept now
 */
export function keepUpWithLogs(crewId: string): Promise<boolean> {
  if (keeping !== null) {
    again = true
    return keeping
  }
  keeping = readOn(crewId)
    .then(
      () => true,
      () => false,
    )
    .finally(() => {
      keeping = null
      if (!again) return
      again = false
      void keepUpWithLogs(crewId)
    })
  return keeping
}

/**
 * Reads the logs of saws of which the shed says something else than when they were last read, one by one, while nobody
 * waits for them.
 */
export async function keepUpWithSaws(saws: readonly Saw[]): Promise<void> {
  for (const saw of saws) {
    const said = JSON.stringify(saw)
    if ((await keptSaw(saw.id))?.said === said) continue
    try {
      await keepSaw(await fetchSaw(saw.id), said)
    } catch {
      return
    }
  }
}
