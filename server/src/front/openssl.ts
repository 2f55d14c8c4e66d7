import { execFile } from 'node:child_process'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { StartProblem } from '../database/startProblem'

const run = promisify(execFile)

/** What a certificate says. */
export interface Wanted {
  /** Whom it is of, in plain words. */
  readonly commonName: string
  readonly from: Date
  readonly to: Date
  /** Lines of an extension section, and sections that they name: see x509v3_config(5). */
  readonly extensions: string
}

/** The certificate and key of whoever signs, as PEM; null for one that signs itself. */
export type Signer = { readonly certificate: string; readonly key: string } | null

/** A date as ASN.1 has it: `YYYYMMDDHHMMSSZ`. */
const generalizedTime = (date: Date): string => `${date.toISOString().replace(/[-:T]/g, '').slice(0, 14)}Z`

/** Letters, figures and a few signs: nothing that its configuration would read as more than a name. */
const plain = (name: string): string =>
  name
    .replace(/[^\p{L}\p{M}\p{N} .,'()-]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 60)

const configuration = ({ commonName, extensions }: Wanted, dir: string): string => `
[req]
distinguished_name = name
prompt = no
utf8 = yes
string_mask = utf8only
[name]
CN = ${plain(commonName)}
[ca]
default_ca = signing
[signing]
database = ${dir}/index
new_certs_dir = ${dir}
rand_serial = yes
default_md = sha256
unique_subject = no
policy = name_policy
utf8 = yes
string_mask = utf8only
[name_policy]
commonName = supplied
[extensions]
${extensions}
`

/**
 * A certificate for a key, made by the openssl command.
 *
 * @param key the private key that it is for, as PEM
 * @returns it as PEM
 * @throws StartProblem when there is no openssl, or it will not
 */
export async function certify(wanted: Wanted, key: string, signer: Signer): Promise<string> {
  // Keys lie there for as long as it takes, where nobody else can read.
  const dir = await mkdtemp(join(tmpdir(), 'undercliff-certificate-'))
  const at = (name: string): string => join(dir, name)
  try {
    const files = {
      ...{ configuration: configuration(wanted, dir), index: '', key },
      ...{ signer: signer?.certificate ?? '', signerKey: signer?.key ?? key },
    }
    for (const [name, text] of Object.entries(files)) await writeFile(at(name), text, { mode: 0o600 })
    const config = ['-config', at('configuration')]
    await run('openssl', ['req', '-new', ...config, '-key', at('key'), '-out', at('request')])
    await run('openssl', [
      ...['ca', '-batch', '-notext', ...config, '-in', at('request'), '-out', at('made')],
      ...['-startdate', generalizedTime(wanted.from), '-enddate', generalizedTime(wanted.to)],
      ...['-extensions', 'extensions', '-keyfile', at('signerKey')],
      ...(signer === null ? ['-selfsign'] : ['-cert', at('signer')]),
    ])
    return await readFile(at('made'), 'utf8')
  } catch (error) {
    if (
      (error as NodeJS.ErrnoException).code === 'ENOENT' &&
      (error as NodeJS.ErrnoException).syscall?.includes('openssl')
    )
      throw new StartProblem(
        'openssl is missing, which makes the certificates. Install it with: apt-get install openssl',
      )
    throw error
  } finally {
    await rm(dir, { recursive: true, force: true })
  }
}
