import { StartProblem } from '../database/privateDatabase'
import { WEB_DIST } from '../paths'
import { HELP, readOptions } from './options'
import { serve } from './serve'

const say = (line: string): void => {
  process.stdout.write(`${line}\n`)
}

async function main(): Promise<void> {
  const options = readOptions(process.argv.slice(2), process.env)
  if (options.help) {
    say(HELP)
    return
  }
  const running = await serve(options, WEB_DIST, say)
  say(`Undercliff is at ${running.address}`)
  let stopping = false
  const stop = (): void => {
    if (stopping) return
    stopping = true
    running.stop().then(
      () => process.exit(0),
      () => process.exit(1),
    )
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
}

main().catch((error: unknown) => {
  process.stderr.write(error instanceof StartProblem ? `${error.message}\n` : `${String((error as Error).stack ?? error)}\n`)
  process.exit(1)
})
