import type { Database } from '../database/connect'
import { countOutdated, renewOutdated } from '../store/refold'

/** Work that goes on beside the requests. */
export interface Renewal {
  /** Settles when all is worked out again. */
  readonly done: Promise<void>
  /** Ends it after the batch in hand; the next start goes on from there. */
  stop(): Promise<void>
}

/** Renewals are told of in steps of at least this many loops. */
const SAY_EVERY = 250

async function renew(db: Database, say: (line: string) => void, goesOn: () => boolean): Promise<void> {
  const outdated = await countOutdated(db)
  if (outdated === 0) return
  say(`Working out ${outdated} loops again for this version; everything can be used meanwhile.`)
  let told = 0
  const done = await renewOutdated(db, (soFar) => {
    if (soFar - told >= SAY_EVERY && soFar < outdated) {
      told = soFar
      say(`Worked out ${soFar} of ${outdated}.`)
    }
    return goesOn()
  })
  if (goesOn()) say(`Worked out ${done} loops again for this version.`)
}

/**
 * Works out again, beside the requests, whatever an older version stored. Lists are right meanwhile:
 * what is outdated in them is worked out as it is read.
 */
export function renewInBackground(db: Database, say: (line: string) => void): Renewal {
  let stopped = false
  const done = renew(db, say, () => !stopped).catch((error: unknown) => {
    // The database went away: the next start goes on from there.
    if (!stopped) say(`Not everything could be worked out again: ${(error as Error).message}`)
  })
  return {
    done,
    stop: () => {
      stopped = true
      return done
    },
  }
}
