import { decideFile, problemDetails, type ProblemDetails } from '@undercliff/contract'
import { readFileSync } from 'node:fs'

/** Exit code for a file that is not right. */
const BAD_FILE = 2

function refuse(problem: ProblemDetails): void {
  process.stdout.write(`${JSON.stringify(problem, null, 1)}\n`)
  process.stderr.write(`${problem.title}: ${problem.detail}\n`)
  process.exitCode = BAD_FILE
}

/** Reads the file that is named, or what comes in when none is, or `-`. */
function readText(path: string | undefined): string {
  return readFileSync(path === undefined || path === '-' ? 0 : path, 'utf8')
}

const [path] = process.argv.slice(2)
try {
  const decided = decideFile(JSON.parse(readText(path)))
  if (decided.ok) process.stdout.write(`${JSON.stringify(decided.decision, null, 1)}\n`)
  else refuse(decided.problem)
} catch (error) {
  if (error instanceof SyntaxError) refuse(problemDetails('malformed-json', error.message))
  else if (error instanceof Error && 'code' in error) refuse(problemDetails('bad-request', `${path ?? 'standard input'} cannot be read: ${error.message}`))
  else throw error
}
