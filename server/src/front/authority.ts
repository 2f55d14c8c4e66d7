import { createPrivateKey, generateKeyPairSync, X509Certificate } from 'node:crypto'
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { isIP, isIPv4 } from 'node:net'
import { join } from 'node:path'
import { certify, type Signer } from './openssl'

/** A crew's own certificate authority: what a phone takes once, to know this Undercliff from any other. */
export interface Authority {
  readonly certificate: string
  readonly key: string
  /** Names and addresses that it can vouch for; for nothing else. */
  readonly names: readonly string[]
}

const DAY_MS = 86_400_000
/** A phone takes it once. */
const AUTHORITY_DAYS = 3650
/** What is left when another is made: longer than anybody leaves a phone in a drawer. */
const AUTHORITY_LEFT_DAYS = 180
/** Short, since nobody could take one back; renewed by itself long before. */
const SERVER_DAYS = 30
const SERVER_LEFT_DAYS = 15
/** Clocks of phones are a little behind. */
const BACKDATED_DAYS = 1
/** Most names that one vouches for, those of the past among them. */
const MOST_NAMES = 24
/** Stands for every name where there is none: a kind of name without limits would be free to take. RFC 2606 */
const NO_NAME = 'undercliff.invalid'
const NO_ADDRESS = '0.0.0.0'

const newKey = (): string =>
  generateKeyPairSync('ec', { namedCurve: 'P-256' }).privateKey.export({ type: 'pkcs8', format: 'pem' }).toString()

const FULL_V4 = '255.255.255.255'
const FULL_V6 = Array.from({ length: 8 }, () => 'FFFF').join(':')

/** What it may vouch for, kind by kind: RFC 5280, 4.2.1.10. */
function limits(names: readonly string[]): string {
  const addresses = names.filter((name) => isIP(name) !== 0)
  const words = names.filter((name) => isIP(name) === 0)
  return [
    ...(addresses.length === 0 ? [NO_ADDRESS] : addresses).map(
      (address, i) => `permitted;IP.${i} = ${address}/${isIPv4(address) ? FULL_V4 : FULL_V6}`,
    ),
    ...(words.length === 0 ? [NO_NAME] : words).map((word, i) => `permitted;DNS.${i} = ${word}`),
  ].join('\n')
}

const daysFrom = (now: Date, days: number): Date => new Date(now.getTime() + days * DAY_MS)

/** Makes an authority of a crew's own. */
export async function makeAuthority(crewName: string, names: readonly string[], now: Date): Promise<Authority> {
  const key = newKey()
  const certificate = await certify(
    {
      commonName: `${crewName} (Undercliff)`,
      from: daysFrom(now, -BACKDATED_DAYS),
      to: daysFrom(now, AUTHORITY_DAYS),
      extensions: `basicConstraints = critical, CA:TRUE, pathlen:0
keyUsage = critical, keyCertSign, cRLSign
extendedKeyUsage = serverAuth
subjectKeyIdentifier = hash
nameConstraints = critical, @limits
[limits]
${limits(names)}`,
    },
    key,
    null,
  )
  return { certificate, key, names }
}

/** What a server shows: its certificate and key, as PEM. */
export interface ServerCertificate {
  readonly certificate: string
  readonly key: string
}

/** A certificate for this server, by the crew's authority. */
export async function certifyServer(
  authority: Authority,
  names: readonly string[],
  now: Date,
): Promise<ServerCertificate> {
  const key = newKey()
  const signer: Signer = authority
  const alternatives = names.map((name, i) => `${isIP(name) === 0 ? 'DNS' : 'IP'}.${i} = ${name}`)
  const certificate = await certify(
    {
      commonName: 'Undercliff',
      from: daysFrom(now, -BACKDATED_DAYS),
      to: daysFrom(now, SERVER_DAYS),
      extensions: `basicConstraints = critical, CA:FALSE
keyUsage = critical, digitalSignature
extendedKeyUsage = serverAuth
subjectKeyIdentifier = hash
authorityKeyIdentifier = keyid:always
subjectAltName = @names
[names]
${alternatives.join('\n')}`,
    },
    key,
    signer,
  )
  return { certificate, key }
}

const daysLeft = (certificate: string, now: Date): number =>
  (new Date(new X509Certificate(certificate).validTo).getTime() - now.getTime()) / DAY_MS

/** Whether a server's certificate is for these names, and not to be renewed yet. */
export function isCurrent({ certificate }: ServerCertificate, names: readonly string[], now: Date): boolean {
  const { subjectAltName = '', validFrom } = new X509Certificate(certificate)
  const said = subjectAltName.split(', ').length
  const left = daysLeft(certificate, now)
  const matches = (name: string): boolean => {
    const made = new X509Certificate(certificate)
    return isIP(name) === 0 ? made.checkHost(name) !== undefined : made.checkIP(name) !== undefined
  }
  return said === names.length && names.every(matches) && left > SERVER_LEFT_DAYS && new Date(validFrom) <= now
}

/** SHA-256 of a certificate as phones show it: pairs with colons between. */
export const fingerprintOf = (certificate: string): string => new X509Certificate(certificate).fingerprint256

/** A certificate as phones take it. */
export const derOf = (certificate: string): Buffer => new X509Certificate(certificate).raw

/** Folder of the authority within the data folder; no backup has it. */
const FOLDER = 'authority'
const FILES = { certificate: 'authority.crt', key: 'authority.key', names: 'names.json' } as const

async function readKept(dir: string): Promise<Authority | null> {
  try {
    const [certificate, key, names] = await Promise.all(
      [FILES.certificate, FILES.key, FILES.names].map((file) => readFile(join(dir, file), 'utf8')),
    )
    if (certificate === undefined || key === undefined || names === undefined) return null
    return { certificate, key, names: JSON.parse(names) as string[] }
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT' || error instanceof SyntaxError) return null
    throw error
  }
}

async function keep(dir: string, authority: Authority): Promise<void> {
  const write = async (file: string, text: string): Promise<void> => {
    const part = join(dir, `${file}.part`)
    await writeFile(part, text, { mode: 0o600 })
    await rename(part, join(dir, file))
  }
  // One that was cut short has no names, and is made anew.
  await write(FILES.key, authority.key)
  await write(FILES.certificate, authority.certificate)
  await write(FILES.names, JSON.stringify(authority.names))
}

const isUsable = (authority: Authority, names: readonly string[], now: Date): boolean => {
  const made = new X509Certificate(authority.certificate)
  return (
    // A change that was cut short leaves two halves that are of different pairs.
    made.checkPrivateKey(createPrivateKey(authority.key)) &&
    names.every((name) => authority.names.includes(name)) &&
    daysLeft(authority.certificate, now) > AUTHORITY_LEFT_DAYS &&
    new Date(made.validFrom) <= now
  )
}

/**
 * The authority of a data folder, made on first use: again when it is asked to vouch for a name that it cannot, or has
 * nearly run out, which every phone has to be told of.
 *
 * @param names what this Undercliff is reached by
 */
export async function authorityOf(
  dataDir: string,
  crewName: string,
  names: readonly string[],
  now: Date,
): Promise<{ authority: Authority; isNew: 'first' | 'again' | false }> {
  const dir = join(dataDir, FOLDER)
  await mkdir(dir, { recursive: true, mode: 0o700 })
  const kept = await readKept(dir)
  if (kept !== null && isUsable(kept, names, now)) return { authority: kept, isNew: false }
  // A router that gives one address today and the old one tomorrow does not send every phone back.
  const both = [...new Set([...names, ...(kept?.names ?? [])])].slice(0, Math.max(MOST_NAMES, names.length))
  const authority = await makeAuthority(crewName, both, now)
  await keep(dir, authority)
  return { authority, isNew: kept === null ? 'first' : 'again' }
}
