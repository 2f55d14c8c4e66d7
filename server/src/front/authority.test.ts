import { execFile } from 'node:child_process'
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { authorityOf, certifyServer, fingerprintOf, isCurrent, type Authority } from './authority'
import { byAuthority, fromFiles, renewCertificates } from './certificates'

const NOW = new Date()
const days = (n: number): Date => new Date(NOW.getTime() + n * 86_400_000)
const NAMES = ['192.168.1.20', 'fd00::20', 'shed.local']

const dirs: string[] = []
const folder = (): string => {
  const dir = mkdtempSync(join(tmpdir(), 'undercliff-authority-'))
  dirs.push(dir)
  return dir
}
afterAll(() => {
  for (const dir of dirs) rmSync(dir, { recursive: true, force: true })
})

/** What openssl, which is not ours, says of a server's certificate that a browser would check for a name. */
async function verified({ certificate }: Authority, server: string, name: string, at = NOW): Promise<string> {
  const dir = folder()
  writeFileSync(join(dir, 'authority'), certificate)
  writeFileSync(join(dir, 'server'), server)
  const asked = /^[\d.]+$|:/.test(name) ? ['-verify_ip', name] : ['-verify_hostname', name]
  const time = ['-attime', String(Math.floor(at.getTime() / 1000))]
  return promisify(execFile)('openssl', [
    ...['verify', '-x509_strict', '-purpose', 'sslserver', ...time, ...asked],
    ...['-CAfile', join(dir, 'authority'), join(dir, 'server')],
  ]).then(
    () => 'ok',
    (error: unknown) => (error as { stderr: string }).stderr,
  )
}

let authority: Authority
beforeAll(async () => {
  authority = (await authorityOf(folder(), 'Heron Isle crew', NAMES, NOW)).authority
})

describe('the authority of a crew', () => {
  test('vouches for each of its names and addresses', async () => {
    const { certificate } = await certifyServer(authority, NAMES, NOW)
    for (const name of NAMES) expect(await verified(authority, certificate, name), name).toBe('ok')
  })

  test.each([
    ['another address', '192.168.1.21'],
    ['another address of the new kind', 'fd00::21'],
    ['another name', 'bank.example'],
    ['a name that ends alike', 'notshed.local'],
  ])('opens no other door with its key stolen: %s', async (_what, name) => {
    const { certificate } = await certifyServer(authority, [name], NOW)
    expect(await verified(authority, certificate, name)).toContain('permitted subtree violation')
  })

  test.each([
    ['only an address', ['192.168.1.20'], 'bank.example'],
    ['only a name', ['shed.local'], '192.168.1.21'],
    ['only a name', ['shed.local'], 'fd00::1'],
  ])('with %s it vouches for nothing of another kind', async (_what, names, other) => {
    const { authority: narrow } = await authorityOf(folder(), 'Heron Isle crew', names, NOW)
    const { certificate } = await certifyServer(narrow, [other], NOW)
    expect(await verified(narrow, certificate, other)).toContain('permitted subtree violation')
  })

  test('lies in the data folder for its owner’s eyes alone, and is the same after every start', async () => {
    const dir = folder()
    const first = await authorityOf(dir, 'Heron Isle crew', NAMES, NOW)
    expect(first.isNew).toBe('first')
    const kept = join(dir, 'authority')
    expect(statSync(kept).mode & 0o777).toBe(0o700)
    for (const file of readdirSync(kept)) expect(statSync(join(kept, file)).mode & 0o777, file).toBe(0o600)
    const second = await authorityOf(dir, 'Heron Isle crew', ['shed.local'], NOW)
    expect(second).toEqual({ authority: first.authority, isNew: false })
  })

  test('is made anew for a name that is not among its own, before it runs out, and where half was lost', async () => {
    const dir = folder()
    const { authority: first } = await authorityOf(dir, 'Heron Isle crew', ['192.168.1.20'], NOW)
    const moved = await authorityOf(dir, 'Heron Isle crew', ['192.168.1.77'], NOW)
    expect(moved.isNew).toBe('again')
    // A router that gives the old address back sends no phone anew.
    expect(await authorityOf(dir, 'Heron Isle crew', ['192.168.1.20'], NOW)).toMatchObject({ isNew: false })
    expect((await authorityOf(dir, 'Heron Isle crew', ['192.168.1.20'], days(3500))).isNew).toBe('again')
    writeFileSync(join(dir, 'authority', 'authority.key'), first.key)
    expect((await authorityOf(dir, 'Heron Isle crew', ['192.168.1.20'], days(3500))).isNew).toBe('again')
  })

  test('is named for the crew, whatever the crew is called', async () => {
    const odd = await authorityOf(folder(), 'Söl & Sø $ENV::HOME\n[req]\nCN=bank "x" \\', ['shed.local'], NOW)
    expect(new X509Certificate(odd.authority.certificate).subject).toBe('CN=Söl Sø ENV HOME req CN bank x (Undercliff)')
  })

  test('shows a fingerprint as phones do', () => {
    expect(fingerprintOf(authority.certificate)).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/)
  })
})

describe('the certificate of the server', () => {
  test('is renewed by itself half way, for clocks a little behind too, and then shown', async () => {
    const certificates = byAuthority(authority, NAMES)
    const first = await certificates.current(NOW)
    expect(await verified(authority, first.certificate, 'shed.local', days(-0.5))).toBe('ok')
    expect(await verified(authority, first.certificate, 'shed.local', days(31))).toContain('expired')
    const shown: string[] = []
    let now = NOW
    const renewal = renewCertificates(certificates, first, {
      show: ({ certificate }) => shown.push(certificate),
      say: (line) => shown.push(line),
      clock: () => now,
    })
    await renewal.ask()
    expect(shown).toEqual([])
    now = days(20)
    await renewal.ask()
    renewal.stop()
    expect(shown).toHaveLength(1)
    expect(await verified(authority, shown[0] ?? '', 'shed.local', days(45))).toBe('ok')
  })

  test('is not current for other names, or before its time', async () => {
    const made = await certifyServer(authority, NAMES, NOW)
    expect(isCurrent(made, NAMES, NOW)).toBe(true)
    expect(isCurrent(made, ['shed.local'], NOW)).toBe(false)
    expect(isCurrent(made, ['shed.local', 'fd00::20', '192.168.1.21'], NOW)).toBe(false)
    expect(isCurrent(made, NAMES, days(-3))).toBe(false)
  })
})

describe('a certificate that somebody else makes', () => {
  const files = async (): Promise<{ crt: string; key: string }> => {
    const dir = folder()
    const made = await certifyServer(authority, NAMES, NOW)
    const [crt, key] = [join(dir, 'crt'), join(dir, 'key')]
    writeFileSync(crt, made.certificate)
    writeFileSync(key, made.key)
    return { crt, key }
  }

  test('is read again when it is renewed; a half that came first changes nothing, and is said', async () => {
    const [old, next] = [await files(), await files()]
    const certificates = fromFiles(old.crt, old.key)
    const first = await certificates.current(NOW)
    const [shown, said]: string[][] = [[], []]
    const renewal = renewCertificates(certificates, first, {
      show: ({ certificate }) => shown?.push(certificate),
      say: (line) => said?.push(line),
      clock: () => NOW,
    })
    writeFileSync(old.crt, readFileSync(next.crt))
    await renewal.ask()
    expect([shown, said?.length]).toEqual([[], 1])
    writeFileSync(old.key, readFileSync(next.key))
    await renewal.ask()
    renewal.stop()
    expect(shown).toEqual([readFileSync(next.crt, 'utf8')])
  })

  test('that cannot be shown is refused with a sentence', async () => {
    const [one, other] = [await files(), await files()]
    writeFileSync(join(folder(), 'x'), '')
    const ask = (crt: string, key: string, at = NOW) => fromFiles(crt, key).current(at)
    await expect(ask('/nowhere', one.key)).rejects.toThrow('--tls-cert /nowhere cannot be read: ENOENT.')
    await expect(ask(one.crt, other.key)).rejects.toThrow('is not the one of the certificate')
    await expect(ask(one.key, one.key)).rejects.toThrow('is no certificate in PEM form')
    await expect(ask(one.crt, one.crt)).rejects.toThrow('is no private key')
    await expect(ask(one.crt, one.key, days(60))).rejects.toThrow('ran out on')
  })
})
