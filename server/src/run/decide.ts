import { decideFile, problemDetails, type ProblemDetails } from '@undercliff/contract'
import { readFile } from 'node:fs/promises'
import { text } from 'node:stream/consumers'

/** Exit code for a file that is not right. */
const BAD_FILE = 2

function refuse(problem: ProblemDetails): void {
  process.stdout.write(`${JSON.stringify(problem, null, 1)}\n`)
  process.stderr.write(`${problem.title}: ${problem.detail}\n`)
  process.exitCode = BAD_FILE
}

/** Reads the file that is named, or what comes in when none is, or `-`. */
const readText = (path: string | undefined): Promise<string> =>
  path === undefined || path === '-' ? text(process.stdin) : readFile(path, 'utf8')

const [path] = process.argv.slice(2)
try {
  const decided = decideFile(JSON.parse(await readText(path)))
  if (decided.ok) process.stdout.write(`${JSON.stringify(decided.decision, null, 1)}\n`)
  else refuse(decided.problem)
} catch (error) {
  if (error instanceof SyntaxError) refuse(problemDetails('malformed-json', error.message))
  else if (error instanceof Error && 'code' in error)
    refuse(problemDetails('bad-request', `${path ?? 'standard input'} cannot be read: ${error.message}`))
  else throw error
}
