import { PROBLEM_MEDIA_TYPE, problemDetails, type ProblemDetails } from '@undercliff/contract'
import type { ErrorRequestHandler, Response } from 'express'
import { isDatabaseAway } from '../database/errors'
import { Refusal } from '../store/refusal'
import { loggable } from './loggable'

/** Answers with a problem document. */
export function sendProblem(response: Response, problem: ProblemDetails): void {
  response.status(problem.status).type(PROBLEM_MEDIA_TYPE).send(JSON.stringify(problem))
}

/** What the body parser and router throw carries a type and a status of its own. */
function ofRequest(error: unknown): ProblemDetails | null {
  if (typeof error !== 'object' || error === null) return null
  const { type, status } = error as { type?: unknown; status?: unknown }
  if (type === 'entity.too.large') return problemDetails('body-too-large', 'Send fewer entries at once.')
  if (type === 'entity.parse.failed') return problemDetails('malformed-json', 'The body is not JSON that can be read.')
  if (status === 404) return problemDetails('no-such-route', 'There is nothing at this address.')
  if (typeof status === 'number' && status >= 400 && status < 500) {
    return problemDetails('bad-request', 'The request cannot be read.')
  }
  return null
}

/** What an error answers with. */
function problemOf(error: unknown): ProblemDetails {
  if (error instanceof Refusal) return error.problem
  if (isDatabaseAway(error)) {
    return problemDetails('database-away', 'Nothing was written. It is tried again by itself in a moment.')
  }
  return ofRequest(error) ?? problemDetails('internal-error', 'Nothing was written. The log of the server says more.')
}

/** Turns whatever a route throws into a problem document; never a stack. */
export const answerProblems: ErrorRequestHandler = (error: unknown, request, response, next) => {
  const problem = problemOf(error)
  if (problem.status >= 500) request.log.error({ cause: loggable(error) }, problem.code)
  if (response.headersSent) {
    next(error)
    return
  }
  if (problem.status === 503) response.setHeader('Retry-After', '1')
  sendProblem(response, problem)
}
