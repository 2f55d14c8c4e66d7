import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { setTimeout as sleep } from 'node:timers/promises'

const START = fileURLToPath(new URL('../../server/dist/start.js', import.meta.url))

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address()
      const port = typeof address === 'object' && address !== null ? address.port : 0
      probe.close(() => {
        resolve(port)
      })
    })
  })

/** An Undercliff of a test's own, as a person would start it, on a data folder that goes with it. */
export class Undercliff {
  private child: ChildProcess | null = null
  private constructor(
    readonly dataDir: string,
    readonly port: number,
    private readonly flags: readonly string[],
  ) {}

  static async start(...flags: string[]): Promise<Undercliff> {
    const made = new Undercliff(mkdtempSync(join(tmpdir(), 'undercliff-e2e-')), await freePort(), flags)
    await made.up()
    return made
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** Starts the server and waits until it prints its address. */
  async up(): Promise<void> {
    const child = spawn(process.execPath, [START, '--data', this.dataDir, '--port', String(this.port), ...this.flags], {
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    this.child = child
    let said = ''
    child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
    child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
    const until = Date.now() + 90_000
    while (!said.includes('Undercliff is at')) {
      if (child.exitCode !== null || Date.now() > until) throw new Error(`Undercliff did not start:\n${said}`)
      await sleep(50)
    }
  }

  /** Kills the server where it stands, as a power cut would. */
  async kill(): Promise<void> {
    const { child } = this
    if (child === null) return
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGKILL')
    await gone
  }

  /** Kills the database where it stands. */
  killDatabase(): void {
    process.kill(this.databasePid(), 'SIGKILL')
  }

  databasePid(): number {
    return Number(readFileSync(join(this.dataDir, 'mariadb', 'mariadb.pid'), 'utf8').trim())
  }

  async json<T>(path: string): Promise<T> {
    return (await (await fetch(this.address + path)).json()) as T
  }

  /** Stops everything in good order and clears the data folder away. */
  async stop(): Promise<void> {
    const { child } = this
    if (child !== null && child.exitCode === null && child.signalCode === null) {
      const gone = new Promise((resolve) => child.once('exit', resolve))
      child.kill('SIGTERM')
      await gone
    }
    rmSync(this.dataDir, { recursive: true, force: true })
  }
}
