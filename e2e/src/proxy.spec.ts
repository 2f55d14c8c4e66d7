import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { DEMO_SIGN_INS } from '@undercliff/demo'
import { certifyServer, makeAuthority, type Authority } from '@undercliff/server'
import type { Page } from '@playwright/test'
import { Phone } from './phone'
import { expect, logOf, test } from './testing'
import { BEYOND, freePort, Undercliff } from './undercliff'

const NAME = 'crew.test'
const [MAREN] = DEMO_SIGN_INS

/** Debian's nginx with a certificate, in front of an Undercliff. */
class Nginx {
  private readonly dir = mkdtempSync(join(tmpdir(), 'undercliff-nginx-'))
  private child: ChildProcess | null = null

  constructor(
    private readonly authority: Authority,
    readonly port: number,
  ) {}

  /** @param passes lines that say what it passes on of who asks */
  async start(upstream: number, passes: readonly string[]): Promise<void> {
    const at = (name: string): string => join(this.dir, name)
    const { certificate, key } = await certifyServer(this.authority, [NAME], new Date())
    writeFileSync(at('crt'), certificate)
    writeFileSync(at('key'), key, { mode: 0o600 })
    const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
      (kind) => `${kind}_temp_path ${at(kind)};`,
    )
    writeFileSync(
      at('conf'),
      `daemon off; user root; worker_processes 1; pid ${at('pid')}; error_log ${at('error')};
events {}
http {
  access_log off; ${temporary.join(' ')}
  server {
    listen ${BEYOND}:${this.port} ssl; server_name ${NAME};
    ssl_certificate ${at('crt')}; ssl_certificate_key ${at('key')};
    client_max_body_size 200m;
    location / {
      proxy_pass http://127.0.0.1:${upstream};
      ${passes.map((line) => `proxy_set_header ${line};`).join(' ')}
    }
  }
}`,
    )
    // It lies where only the system looks.
    const env = { ...process.env, PATH: `${process.env.PATH ?? ''}:/usr/sbin` }
    this.child = spawn('nginx', ['-c', at('conf'), '-p', this.dir, '-e', at('error')], { stdio: 'inherit', env })
    for (let tries = 0; tries < 200 && !(await answers(this.port)); tries += 1) await sleep(25)
  }

  async stop(): Promise<void> {
    const { child } = this
    if (child !== null && child.exitCode === null) {
      const gone = new Promise((resolve) => child.once('exit', resolve))
      child.kill('SIGTERM')
      await gone
    }
  }

  clear(): void {
    rmSync(this.dir, { recursive: true, force: true })
  }
}

const answers = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = connect(port, BEYOND, () => {
      probe.destroy()
      resolve(true)
    }).on('error', () => {
      resolve(false)
    })
  })

async function signIn(page: Page): Promise<void> {
  await page.getByLabel('Sign-in name').fill(MAREN.login)
  await page.getByLabel('Password', { exact: true }).fill(MAREN.password)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByRole('link', { name: MAREN.name })).toBeVisible()
}

const CLIENT = ['X-Forwarded-For $remote_addr', 'X-Forwarded-Proto $scheme']
const WAYS = [
  { passes: 'the host as it was asked for', lines: ['Host $http_host', ...CLIENT] },
  { passes: 'its own name for us, and the host beside', lines: ['X-Forwarded-Host $http_host', ...CLIENT] },
] as const

test('through a proxy with a certificate, whichever way it passes the host on', async () => {
  test.setTimeout(180_000)
  const authority = await makeAuthority('Heron Isle crew', [NAME], new Date())
  const port = await freePort()
  const address = `https://${NAME}:${port}`
  const undercliff = await Undercliff.start('--public-url', address, '--proxy', '127.0.0.1')
  const phone = new Phone(NAME)
  phone.trust(authority.certificate)
  const nginx = new Nginx(authority, port)
  const browser = await phone.open()
  try {
    for (const { passes, lines } of WAYS) {
      await test.step(passes, async () => {
        await nginx.start(undercliff.port, lines)
        const context = await browser.newContext({ serviceWorkers: 'allow' })
        const page = await context.newPage()
        await page.goto(`${address}/loops/K5/note/ran`)
        await signIn(page)
        await page.getByRole('button', { name: /^Log/ }).click()
        await expect.poll(async () => (await logOf(undercliff, 'K5')).at(-1)?.kind).toBe('ran')
        const [cookie] = (await context.cookies()).filter(({ httpOnly }) => httpOnly)
        expect(cookie).toMatchObject({ secure: true, domain: NAME })
        await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
        await context.close()
        await nginx.stop()
      })
    }
  } finally {
    await phone.lose()
    await nginx.stop()
    nginx.clear()
    await undercliff.stop()
  }
})

test('where the address is not secure, the wood says in a line what is missing and who can mend it', async () => {
  const port = await freePort()
  const undercliff = await Undercliff.startAt(
    port,
    '--public-url',
    `http://${NAME}:${port}`,
    '--proxy',
    '127.0.0.1',
    '--host',
    '127.0.0.1',
  )
  const phone = new Phone(NAME)
  const page = await (await phone.open('--host-resolver-rules=MAP crew.test 127.0.0.1')).newPage()
  await page.goto(`http://${NAME}:${port}/wood`)
  await signIn(page)
  await expect(page.getByText('At this address Undercliff does not open out of range')).toBeVisible()
  await page.getByRole('link', { name: 'House, Phones' }).click()
  await expect(page.getByText('That address is not secure')).toBeVisible()
  await expect(page.getByText('The address is not secure: nothing of the rest can be.')).toBeVisible()
  await phone.lose()
  await undercliff.stop()
})
