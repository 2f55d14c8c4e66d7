import { PROBLEM_MEDIA_TYPE, type ProblemDetails } from '@undercliff/contract'
import type { ErrorRequestHandler, Response } from 'express'
import { problemOf } from '../store/problemOf'
import { loggable } from './loggable'

/** Answers with a problem document. */
export function sendProblem(response: Response, problem: ProblemDetails): void {
  response.status(problem.status).type(PROBLEM_MEDIA_TYPE).send(JSON.stringify(problem))
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
