import type { Entry } from '../log'
import { OpenLog } from './admit'
import type { AdmitProblem } from './problem'

/** Entries gathered into logs, and what is wrong with those that could not join theirs. */
export interface AdmittedLogs {
  /** By loop, in the order in which they came. */
  readonly logs: ReadonlyMap<string, readonly Entry[]>
  /** With the place of the entry among those that came. */
  readonly problems: readonly (AdmitProblem & { readonly at: number })[]
}

/**
 * Many entries of any loops, each admitted to the log of those before it. The work grows as the
 * entries do: no log is folded for it.
 *
 * @param nowMs the present, milliseconds since 1970
 */
export function admitAll(entries: readonly Entry[], nowMs: number): AdmittedLogs {
  const open = new Map<string, OpenLog>()
  const problems: (AdmitProblem & { readonly at: number })[] = []
  entries.forEach((entry, at) => {
    const log = open.get(entry.loopId) ?? new OpenLog()
    open.set(entry.loopId, log)
    const found = log.problemsOf(entry, nowMs)
    if (found.length === 0) log.add(entry)
    else problems.push(...found.map((problem) => ({ ...problem, at })))
  })
  return { logs: new Map([...open].map(([loopId, log]) => [loopId, log.entries])), problems }
}
