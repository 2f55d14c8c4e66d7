import { decideFile, problemDetails, type ProblemDetails } from '@undercliff/contract'
import { readFile } from 'node:fs/promises'

/** Exit code for a file that is not right. */
const BAD_FILE = 2

/** What a command writes, and what it ends with. */
export interface CommandAnswer {
  readonly out: string
  readonly err: string
  readonly code: number
}

const written = (document: unknown): string => `${JSON.stringify(document, null, 1)}\n`

const refused = (problem: ProblemDetails): CommandAnswer => ({
  out: written(problem),
  err: `${problem.title}: ${problem.detail}\n`,
  code: BAD_FILE,
})

/**
 * The decision on a loop file, or a problem document where it is none.
 *
 * @param path the file that is named; what comes in when none is, or `-`
 */
export async function answerDecide(path: string | undefined, readInput: () => Promise<string>): Promise<CommandAnswer> {
  try {
    const text = await (path === undefined || path === '-' ? readInput() : readFile(path, 'utf8'))
    const decided = decideFile(JSON.parse(text))
    return decided.ok ? { out: written(decided.decision), err: '', code: 0 } : refused(decided.problem)
  } catch (error) {
    if (error instanceof SyntaxError) return refused(problemDetails('malformed-json', error.message))
    if (error instanceof Error && 'code' in error)
      return refused(problemDetails('bad-request', `${path ?? 'standard input'} cannot be read: ${error.message}`))
    throw error
  }
}
