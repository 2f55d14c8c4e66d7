import { failToStart } from './failToStart'
import { HELP, readOptions } from './options'
import { serve } from './serve'

const say = (line: string): void => {
  process.stdout.write(`${line}\n`)
}

async function run(webDist: string | null): Promise<void> {
  const options = readOptions(process.argv.slice(2), process.env)
  if (options.help) {
    say(HELP)
    return
  }
  // A signal that comes while things are still starting waits until they can be stopped in order.
  const starting = serve(options, webDist, say)
  const signalled = new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.once(signal, resolve)
  })
  const running = await starting
  say(`Undercliff is at ${running.address}`)
  await signalled
  await running.stop()
  process.exit(0)
}

/**
 * The start command: serves until it is told to stop.
 *
 * @param webDist the built web application; null serves the API alone
 */
export const main = (webDist: string | null): void => {
  run(webDist).catch(failToStart)
}
