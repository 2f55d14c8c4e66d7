import type { AdmitCode } from '@undercliff/core'

/** Every error the server answers with: its status and a title. Codes are stable. */
export const PROBLEMS = {
  'malformed-json': { status: 400, title: 'The request is not JSON that can be read' },
  'bad-request': { status: 400, title: 'The request cannot be read' },
  'not-json': { status: 415, title: 'Only application/json is taken' },
  'body-too-large': { status: 413, title: 'The request is too large' },
  invalid: { status: 422, title: 'Something in the request is not right' },
  'no-such-route': { status: 404, title: 'There is nothing at this address' },
  'no-such-loop': { status: 404, title: 'There is no such loop' },
  'no-such-saw': { status: 422, title: 'There is no such saw' },
  'no-such-person': { status: 422, title: 'There is no such person' },
  'not-admitted': { status: 422, title: 'The entry cannot join the log' },
  'id-taken': { status: 409, title: 'Something else has this id' },
  'tag-taken': { status: 409, title: 'Another loop has this tag' },
  'name-taken': { status: 409, title: 'That name is taken' },
  'saw-occupied': { status: 409, title: 'There is another loop on that saw' },
  'does-not-fit': { status: 409, title: 'The loop does not fit that saw' },
  'backup-newer': { status: 422, title: 'The backup was written by a newer Undercliff' },
  'backup-damaged': { status: 422, title: 'The backup is damaged' },
  'not-empty': { status: 409, title: 'There is something in the shed already' },
  'overrule-needed': { status: 409, title: 'The loop fits with a drawback' },
  'rules-changed': { status: 409, title: 'The house rules were changed meanwhile' },
  'rules-conflict': { status: 422, title: 'Those house rules cannot hold together' },
  'unfit-stays-out': { status: 409, title: 'The loop is not fit for use' },
  'not-signed-in': { status: 401, title: 'Nobody is signed in' },
  'wrong-sign-in': { status: 401, title: 'The name or the password is not right' },
  'too-many-tries': { status: 429, title: 'Too many tries' },
  'lead-only': { status: 403, title: 'Only a lead may do that' },
  'password-needed': { status: 403, title: 'Only with a password may this be done' },
  'no-token': { status: 403, title: 'The request does not carry its token' },
  'set-up-already': { status: 409, title: 'This Undercliff is set up already' },
  'not-shared': { status: 403, title: 'This is not a shared device' },
  'no-such-account': { status: 404, title: 'There is no such account' },
  'no-such-session': { status: 404, title: 'There is no such session' },
  'under-way-elsewhere': { status: 409, title: 'Somebody is at that loop on another device' },
  'kit-changed': { status: 409, title: 'That thing of the kit was changed meanwhile' },
  'no-such-photo': { status: 404, title: 'There is no such photograph' },
  'not-a-picture': { status: 422, title: 'That is not a picture that can be kept' },
  'photos-full': { status: 409, title: 'No more photographs can be kept' },
  'no-such-profile': { status: 404, title: 'There is no such profile' },
  'last-lead': { status: 409, title: 'The crew needs a lead who can sign in' },
  'nothing-to-print': { status: 422, title: 'There is nothing to print' },
  'foreign-origin': { status: 403, title: 'Requests from other sites are refused' },
  'foreign-host': { status: 421, title: 'This is not the address Undercliff answers to' },
  'database-away': { status: 503, title: 'The database is not answering' },
  'disk-full': { status: 507, title: 'The disk of the server is full' },
  'internal-error': { status: 500, title: 'Undercliff made a mistake' },
} as const satisfies Record<string, { status: number; title: string }>

export type ProblemCode = keyof typeof PROBLEMS

/** One field that is not right. */
export interface FieldProblem {
  /** Path within the request body, such as `entries[0].readings[3].lengthUm`. */
  readonly field: string
  readonly message: string
  readonly code?: AdmitCode
}

/** An error as it crosses the wire (RFC 9457), served as `application/problem+json`. */
export interface ProblemDetails {
  readonly type: string
  readonly title: string
  readonly status: number
  readonly code: ProblemCode
  readonly detail: string
  readonly problems?: readonly FieldProblem[]
}

export const PROBLEM_MEDIA_TYPE = 'application/problem+json'

/** A problem document for a code. */
export const problemDetails = (
  code: ProblemCode,
  detail: string,
  problems?: readonly FieldProblem[],
): ProblemDetails => ({
  type: `urn:undercliff:problem:${code}`,
  title: PROBLEMS[code].title,
  status: PROBLEMS[code].status,
  code,
  detail,
  ...(problems === undefined ? {} : { problems }),
})
