import { WEB_DIST } from '../paths'
import { HELP, readOptions } from './options'
import { failToStart } from './failToStart'
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
  // A signal that comes while things are still starting waits until they can be stopped in order.
  const starting = serve(options, WEB_DIST, say)
  const signalled = new Promise<void>((resolve) => {
    process.once('SIGINT', resolve)
    process.once('SIGTERM', resolve)
    process.once('SIGHUP', resolve)
  })
  const running = await starting
  say(`Undercliff is at ${running.address}`)
  await signalled
  await running.stop()
  process.exit(0)
}

main().catch(failToStart)
