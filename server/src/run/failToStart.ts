import { StartProblem } from '../database/startProblem'

/** Ends the process with one sentence; where a mistake of ours came from is said when it is asked for. */
export function failToStart(error: unknown): never {
  const known = error instanceof StartProblem
  const message = error instanceof Error ? error.message.split('\n')[0] : String(error)
  const asked = process.env.LOG_LEVEL === 'debug' || process.env.LOG_LEVEL === 'trace'
  const said = known ? error.message : `Undercliff could not start: ${message ?? ''}. LOG_LEVEL=debug says more.`
  process.stderr.write(`${said}\n`)
  if (!known && asked && error instanceof Error) process.stderr.write(`${error.stack ?? ''}\n`)
  process.exit(1)
}
