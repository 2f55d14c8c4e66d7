import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { setTimeout as sleep } from 'node:timers/promises'
import type { BrowserContext } from '@playwright/test'
import { DEMO_SIGN_INS } from '@undercliff/demo'
import { copyTemplate } from './copyTemplate'

export type DemoLogin = (typeof DEMO_SIGN_INS)[number]['login']

const START = fileURLToPath(new URL('../../server/dist/start.js', import.meta.url))

export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address()
      const port = typeof address === 'object' && address !== null ? address.port : 0
      probe.close(() => {
        resolve(port)
      })
    })
  })

const isFree = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer()
      .once('error', () => {
        resolve(false)
      })
      .listen(port, '127.0.0.1', () =>
        probe.close(() => {
          resolve(true)
        }),
      )
  })

/** As foreign as any address of a network, and yet of this machine alone. */
export const BEYOND = '127.0.0.2'

/** An Undercliff of a test's own, as a person would start it, on a data folder that goes with it. */
export class Undercliff {
  private child: ChildProcess | null = null
  private constructor(
    readonly dataDir: string,
    readonly port: number,
    private readonly flags: readonly string[],
  ) {}

  static async start(...flags: string[]): Promise<Undercliff> {
    return Undercliff.startAt(await freePort(), ...flags)
  }

  /** One that is reached by https from elsewhere, by a name that only a browser of a test knows. */
  static async startSecure(name: string): Promise<Undercliff> {
    // It takes two that lie side by side.
    let port = await freePort()
    while (!(await isFree(port + 1))) port = await freePort()
    return Undercliff.startAt(port, '--host', BEYOND, '--name', name)
  }

  static async startAt(port: number, ...flags: string[]): Promise<Undercliff> {
    const dataDir = mkdtempSync(join(tmpdir(), 'undercliff-e2e-'))
    copyTemplate(flags, dataDir)
    const made = new Undercliff(dataDir, port, flags)
    await made.up()
    return made
  }

  /** One that runs already, at an address. */
  static at(address: string): Undercliff {
    return new Undercliff('', Number(new URL(address).port), [])
  }

  /** Where this machine itself reaches it. */
  get address(): string {
    return `http://127.0.0.1:${this.flags.includes(BEYOND) ? this.port + 1 : this.port}`
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

  private readonly cookies = new Map<string, { cookie: string; csrfToken: string }>()

  /** The session of a demo person, opened once. */
  async session(who: DemoLogin = 'maren'): Promise<{ cookie: string; csrfToken: string }> {
    const known = this.cookies.get(who)
    if (known !== undefined) return known
    const { login, password } = DEMO_SIGN_INS.find((one) => one.login === who) ?? DEMO_SIGN_INS[0]
    const response = await fetch(`${this.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ login, password }),
    })
    if (response.status !== 201) throw new Error(`${who} was not let in: ${response.status} ${await response.text()}`)
    const { csrfToken } = (await response.json()) as { csrfToken: string }
    const cookie = (response.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
    const session = { cookie, csrfToken }
    this.cookies.set(who, session)
    return session
  }

  /** Signs a browser in as a demo person. */
  async enter(context: BrowserContext, who: DemoLogin = 'maren'): Promise<void> {
    const { cookie } = await this.session(who)
    const [name = '', value = ''] = cookie.split('=')
    await context.addCookies([{ name, value, url: this.address, httpOnly: true, sameSite: 'Strict' }])
  }

  async json<T>(path: string): Promise<T> {
    const { cookie } = await this.session()
    const response = await fetch(this.address + path, { headers: { cookie } })
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
    return (await response.json()) as T
  }

  /** Sends a change as a program would, signed in as a demo person. */
  async send(
    method: 'POST' | 'PUT' | 'DELETE',
    path: string,
    body: unknown,
    who: DemoLogin = 'maren',
  ): Promise<{ status: number; code: string }> {
    const { cookie, csrfToken } = await this.session(who)
    const response = await fetch(this.address + path, {
      method,
      headers: { cookie, 'x-csrf-token': csrfToken, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    const text = await response.text()
    return { status: response.status, code: text === '' ? '' : ((JSON.parse(text) as { code?: string }).code ?? '') }
  }

  /** Stops everything in good order, and leaves the data folder as it is. */
  async leave(): Promise<void> {
    const { child } = this
    if (child !== null && child.exitCode === null && child.signalCode === null) {
      const gone = new Promise((resolve) => child.once('exit', resolve))
      child.kill('SIGTERM')
      await gone
    }
  }

  /** Stops everything in good order and clears the data folder away. */
  async stop(): Promise<void> {
    await this.leave()
    rmSync(this.dataDir, { recursive: true, force: true })
  }
}
