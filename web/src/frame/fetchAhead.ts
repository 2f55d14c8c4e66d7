import { keep, keptJson } from '../remote/device'

/** The files of a version, as the build lists them. */
interface Files {
  readonly version: string
  readonly files: readonly string[]
}

/** What this device fetched ahead, and when. */
interface Fetched {
  readonly version: string
  readonly at: number
}

const FETCHED = 'undercliff:fetched'
/** So long what a browser has fetched is surely still in its cache: a day's work. Starting value. */
const STAYS_MS = 12 * 3_600_000

const isFetched = ({ version }: Files, now: number): boolean => {
  const before = keptJson<Fetched>(FETCHED)
  return before?.version === version && now >= before.at && now - before.at < STAYS_MS
}

/** Has the browser fetch a file into its cache. @returns whether it has it */
async function fetchFile(file: string): Promise<boolean> {
  const response = await fetch(file, { priority: 'low' })
  if (response.ok) await response.arrayBuffer()
  return response.ok
}

/**
 * Has the browser fetch every other screen, once for a version and a day, while nobody waits for one: so that work can
 * be logged when the server has gone away in the meantime. Nothing of them runs before it is opened. Where the browser
 * keeps the whole application, they are there already.
 */
export async function fetchAhead(now = Date.now()): Promise<void> {
  if ('serviceWorker' in navigator && navigator.serviceWorker.controller !== null) return
  try {
    const answer = await fetch('/screens.json', { cache: 'no-cache' })
    const list = (await answer.json()) as Files
    if (isFetched(list, now)) return
    for (const file of list.files) if (!(await fetchFile(file))) return
    await keep(FETCHED, JSON.stringify({ version: list.version, at: now } satisfies Fetched))
  } catch {
    // The server is away: a screen that is not there is asked for when it is opened, and told of then.
  }
}
