import { problemDetails, type ProblemDetails } from '@undercliff/contract'
import { isDatabaseAway, isDiskFull } from '../database/errors'
import { Answered } from './refusal'

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
export function problemOf(error: unknown): ProblemDetails {
  if (error instanceof Answered) return error.problem
  const asked = ofRequest(error)
  if (asked !== null) return asked
  if (isDiskFull(error)) {
    const detail = 'Nothing was written: the disk of the server is full. Make room on it; it is tried again by itself.'
    return problemDetails('disk-full', detail)
  }
  if (isDatabaseAway(error)) {
    return problemDetails('database-away', 'Nothing was written. It is tried again by itself in a moment.')
  }
  return problemDetails('internal-error', 'Nothing was written. The log of the server says more.')
}
