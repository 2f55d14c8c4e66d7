import { eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { clock } from '../database/schema'

/** At most this much of a time in which nothing ran is counted, in ms: a machine's clock may be wrong. */
const MOST_AWAY_MS = 7 * 86_400_000
/** How often the clock is written down, in ms. */
const SAVE_EVERY_MS = 60_000
const ROW = 1

/** A clock that only ever goes on, in ms. */
export interface SteadyClock {
  readonly nowMs: () => number
  /** Writes it down for the last time. */
  readonly stop: () => Promise<void>
}

/**
 * A clock for limits and sessions. It goes by the machine's running time and never by its calendar, so
 * that setting the date forgives no tries and ends no sessions; over a stop it goes on by what the
 * calendar says has passed, at least nothing and at most a week.
 *
 * @param wallMs the calendar, in ms since 1970
 * @param runningMs the machine's running time, in ms
 */
export async function openSteadyClock(
  db: Database,
  wallMs: () => number = () => Date.now(),
  runningMs: () => number = () => performance.now(),
): Promise<SteadyClock> {
  const [kept] = await db.select().from(clock).where(eq(clock.id, ROW))
  const awayMs = kept === undefined ? 0 : Math.min(MOST_AWAY_MS, Math.max(0, wallMs() - kept.wallMs))
  const beganMs = (kept?.steadyMs ?? wallMs()) + awayMs
  const startedMs = runningMs()
  const nowMs = (): number => Math.round(beganMs + runningMs() - startedMs)
  const save = async (): Promise<void> => {
    const row = { steadyMs: nowMs(), wallMs: wallMs() }
    await db
      .insert(clock)
      .values({ id: ROW, ...row })
      .onDuplicateKeyUpdate({ set: row })
  }
  await save()
  // A database that is away is written to the next time.
  const saving = setInterval(() => void save().catch(() => undefined), SAVE_EVERY_MS)
  saving.unref()
  return {
    nowMs,
    stop: async () => {
      clearInterval(saving)
      await save().catch(() => undefined)
    },
  }
}
