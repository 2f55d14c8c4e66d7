import {
  admitAll,
  byQuestion,
  decideFully,
  fold,
  rulesConflicts,
  sayReason,
  sayTurn,
  withHousePlate,
  type Entry,
  schoolWords,
  type FullDecision,
  type Question,
  type SchoolOutcome,
  type LoopState,
  type Reason,
} from '@undercliff/core'
import { readLoopFile } from './loopFile'
import { problemDetails, type FieldProblem, type ProblemDetails } from './problem'

/** One school as it would turn out, with what people call it. */
export interface NamedOutcome extends SchoolOutcome {
  readonly name: string
}

/** Everything that a loop file comes to. `docs/house/formats.md` describes it. */
export interface DecisionFile extends Omit<FullDecision, 'conflicts' | 'schools'> {
  readonly schools: Readonly<Record<Question, readonly NamedOutcome[]>>
  readonly format: 'undercliff-decision'
  readonly version: 1
  readonly tag: string
  readonly now: string
  readonly state: LoopState
  /** The verdict's reasons as data, each with the sentence that people read. */
  readonly reasons: readonly (Reason & { readonly said: string })[]
  /** What would change the verdict, as sentences. */
  readonly turnsSaid: readonly string[]
}

/** What is wrong with each entry, given those before it. */
const notAdmitted = (entries: readonly Entry[], nowMs: number): FieldProblem[] =>
  // The first entry of the file is the registration that its spec makes.
  admitAll(entries, nowMs).problems.map(({ at, field, ...rest }) => ({
    ...rest,
    field: at === 0 ? 'spec' : `log[${at - 1}].${field}`,
  }))

/** What every school comes to, with what people call it. */
const namedSchools = (schools: FullDecision['schools']): DecisionFile['schools'] =>
  byQuestion((question) =>
    schools[question].map((outcome) => ({ name: schoolWords(question, outcome.id).name, ...outcome })),
  )

/**
 * State, options, verdict and reasons for a loop in the exchange format.
 *
 * @param value the parsed JSON of a loop file
 * @returns the decision, or a problem document that names every field that is not right
 */
export function decideFile(
  value: unknown,
): { readonly ok: true; readonly decision: DecisionFile } | { readonly ok: false; readonly problem: ProblemDetails } {
  const read = readLoopFile(value)
  const refuse = (problems: readonly FieldProblem[]) =>
    ({
      ok: false,
      problem: problemDetails(
        'invalid',
        `${problems[0]?.field ?? ''}: ${problems[0]?.message ?? 'not right'}`,
        problems,
      ),
    }) as const
  if (!read.ok) return refuse(read.problems)
  const { rules, now } = read
  const entries = read.entries.map((entry) => withHousePlate(entry, rules))
  const conflicts = rulesConflicts(rules)
  const [conflict] = conflicts
  if (conflict !== undefined) {
    const problems = conflicts.flatMap(({ fields, message }) =>
      fields.map((field) => ({ field: `rules.${field}`, message })),
    )
    return { ok: false, problem: problemDetails('rules-conflict', conflict.message, problems) }
  }
  try {
    const problems = notAdmitted(entries, Date.parse(now))
    if (problems.length > 0) return refuse(problems)
    const state = fold(entries, now)
    if (state === null) return refuse([{ field: 'log', message: 'Nothing of this log had happened by then.' }])
    const { conflicts: _none, ...full } = decideFully(state, rules, now)
    const figures = { lengths: 'mm', currency: rules.currency } as const
    return {
      ok: true,
      decision: {
        format: 'undercliff-decision',
        version: 1,
        tag: state.tag,
        now,
        state,
        ...full,
        schools: namedSchools(full.schools),
        reasons: full.verdict.reasons.map((reason) => ({ ...reason, said: sayReason(reason, figures) })),
        turnsSaid: full.turns.map((turn) => sayTurn(turn, full.verdict.advised, figures)),
      },
    }
  } catch (error) {
    // A spec that no loop can have, such as a mark above the new length.
    if (error instanceof RangeError) return refuse([{ field: 'spec', message: error.message }])
    throw error
  }
}
