import type { Entry } from '../log'
import { admit } from './admit'
import type { AdmitProblem } from './problem'

/** Entries gathered into logs, and what is wrong with those that could not join theirs. */
export interface AdmittedLogs {
  /** By loop, in the order in which they came. */
  readonly logs: ReadonlyMap<string, readonly Entry[]>
  /** With the place of the entry among those that came. */
  readonly problems: readonly (AdmitProblem & { readonly at: number })[]
}

/**
 * Many entries of any loops, each admitted to the log of those before it.
 *
 * @param nowMs the present, milliseconds since 1970
 */
export function admitAll(entries: readonly Entry[], nowMs: number): AdmittedLogs {
  const logs = new Map<string, Entry[]>()
  const problems: (AdmitProblem & { readonly at: number })[] = []
  entries.forEach((entry, at) => {
    const log = logs.get(entry.loopId) ?? []
    logs.set(entry.loopId, log)
    const found = admit(entry, log, nowMs)
    if (found.length === 0) log.push(entry)
    else problems.push(...found.map((problem) => ({ ...problem, at })))
  })
  return { logs, problems }
}
