import type { Saw } from '@undercliff/contract'
import { fetchLogs, fetchSaw } from './api'
import { keepLogs, keepSaw, keptPlace, keptSaw } from './keptLogs'
import { hearToday } from './todaysEntries'

let keeping: Promise<boolean> | null = null
/** Whose logs are to be read on once the reading that is under way has ended; null for nobody's. */
let next: string | null = null

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

/** Reads on until nobody has asked again meanwhile. @returns whether all of the last one's are kept now */
async function readAsAsked(first: string): Promise<boolean> {
  let kept = false
  for (let crewId: string | null = first; crewId !== null; crewId = next) {
    next = null
    kept = await readOn(crewId).then(
      () => true,
      () => false,
    )
  }
  return kept
}

/**
 * Reads what was written to the crew's logs since they were last kept on this device, while nobody waits for it. What
 * cannot be read or kept now is read the next time; one reading goes on at a time.
 *
 * @returns whether all of them are kept now
 */
export function keepUpWithLogs(crewId: string): Promise<boolean> {
  if (keeping === null) keeping = readAsAsked(crewId).finally(() => (keeping = null))
  else next = crewId
  return keeping
}

/**
 * Reads the logs of saws of which the shed says something else than when they were last read, one by one, while nobody
 * waits for them.
 *
 * @returns whether all of them are kept now
 */
export async function keepUpWithSaws(saws: readonly Saw[]): Promise<boolean> {
  try {
    for (const saw of saws) {
      const said = JSON.stringify(saw)
      if ((await keptSaw(saw.id))?.said !== said) await keepSaw(await fetchSaw(saw.id), said)
    }
    return true
  } catch {
    return false
  }
}
