import { problemDetails, type FieldProblem, type ProblemCode, type ProblemDetails } from '@undercliff/contract'

/** Something that has a problem document of its own to answer. */
export class Answered extends Error {
  /** @param cause what may be logged of where it came from */
  constructor(
    readonly problem: ProblemDetails,
    override readonly cause?: unknown,
  ) {
    super(problem.detail)
  }
}

/** A request that is refused, with the problem document to answer. */
export class Refusal extends Answered {
  constructor(code: ProblemCode, detail: string, problems?: readonly FieldProblem[]) {
    super(problemDetails(code, detail, problems))
  }
}
