import { problemDetails, type FieldProblem, type ProblemCode, type ProblemDetails } from '@undercliff/contract'

/** A request that is refused, with the problem document to answer. */
export class Refusal extends Error {
  readonly problem: ProblemDetails

  constructor(code: ProblemCode, detail: string, problems?: readonly FieldProblem[]) {
    super(detail)
    this.problem = problemDetails(code, detail, problems)
  }
}
