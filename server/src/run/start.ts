import { StartProblem } from '../database/privateDatabase'
import { WEB_DIST } from '../paths'
import { HELP, readOptions } from './options'
import { serve, type Running } from './serve'

const say = (line: string): void => {
  process.stdout.write(`${line}\n`)
}

async function main(): Promise<void> {
  const options = readOptions(process.argv.slice(2), process.env)
  if (options.help) {
    say(HELP)
    return
  }
  // A signal that comes while things are still starting waits until they can be stopped in order.
  let stopping = false
  let running: Running | null = null
  const stop = (): void => {
    stopping = true
    const stopped = running?.stop()
    running = null
    stopped?.then(
      () => process.exit(0),
      () => process.exit(1),
    )
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
  running = await serve(options, WEB_DIST, say)
  if (stopping) stop()
  else say(`Undercliff is at ${running.address}`)
}

main().catch((error: unknown) => {
  process.stderr.write(
    error instanceof StartProblem ? `${error.message}\n` : `${String((error as Error).stack ?? error)}\n`,
  )
  process.exit(1)
})
