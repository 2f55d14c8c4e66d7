import { join } from 'node:path'
import { createServer } from 'vite'
import { ROOT } from '../paths'
import { readOptions } from './options'
import { failToStart } from './failToStart'
import { serve } from './serve'

const say = (line: string): void => {
  process.stdout.write(`${line}\n`)
}

/** The API on the asked port plus one, and Vite with hot reload in front of it on the asked port. */
async function main(): Promise<void> {
  const options = readOptions(process.argv.slice(2), process.env)
  const running = await serve({ ...options, port: options.port + 1 }, null, say)
  const vite = await createServer({
    root: join(ROOT, 'web'),
    server: { port: options.port, strictPort: true, host: '127.0.0.1', proxy: { '/api': running.address } },
  })
  await vite.listen()
  say(`Undercliff for developers is at http://127.0.0.1:${options.port}`)
  const stop = (): void => {
    void vite
      .close()
      .then(() => running.stop())
      .finally(() => process.exit(0))
  }
  process.once('SIGINT', stop)
  process.once('SIGTERM', stop)
}

main().catch(failToStart)
