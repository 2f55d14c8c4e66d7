import { createPrivateKey, X509Certificate } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { StartProblem } from '../database/startProblem'
import { certifyServer, isCurrent, type Authority, type ServerCertificate } from './authority'

/** Where the certificate that a server shows comes from, and comes anew from. */
export interface Certificates {
  /**
   * The one to show now.
   *
   * @throws StartProblem when there is none that can be shown
   */
  current(now: Date): Promise<ServerCertificate>
}

/** Certificates by the crew's own authority, each made when the one before has half run out. */
export function byAuthority(authority: Authority, names: readonly string[]): Certificates {
  let made: ServerCertificate | null = null
  return {
    async current(now) {
      if (made === null || !isCurrent(made, names, now)) made = await certifyServer(authority, names, now)
      return made
    },
  }
}

/** A certificate that somebody else renews: read again each time. */
export function fromFiles(certificateFile: string, keyFile: string): Certificates {
  const read = (what: string, file: string): Promise<string> =>
    readFile(file, 'utf8').catch((error: unknown) => {
      throw new StartProblem(`${what} ${file} cannot be read: ${(error as NodeJS.ErrnoException).code ?? 'unknown'}.`)
    })
  return {
    async current(now) {
      const certificate = await read('--tls-cert', certificateFile)
      const key = await read('--tls-key', keyFile)
      checkPair(certificate, key, { certificateFile, keyFile }, now)
      return { certificate, key }
    },
  }
}

function checkPair(
  certificate: string,
  key: string,
  { certificateFile, keyFile }: { certificateFile: string; keyFile: string },
  now: Date,
): void {
  let made: X509Certificate
  let ours: boolean
  try {
    made = new X509Certificate(certificate)
  } catch {
    throw new StartProblem(`${certificateFile} is no certificate in PEM form.`)
  }
  try {
    ours = made.checkPrivateKey(createPrivateKey(key))
  } catch {
    throw new StartProblem(`${keyFile} is no private key in PEM form without a passphrase.`)
  }
  if (!ours) throw new StartProblem(`The key in ${keyFile} is not the one of the certificate in ${certificateFile}.`)
  if (new Date(made.validTo) <= now)
    throw new StartProblem(`The certificate in ${certificateFile} ran out on ${made.validTo}.`)
}

/** How often it is asked whether there is a new one. */
const ASK_MS = 3_600_000

/**
 * Has a server show each new certificate when there is one, without a connection being cut.
 *
 * @param show told of the one to show from now on
 * @param say told what is wrong with a new one; the one before is shown until that is mended
 */
export function renewCertificates(
  certificates: Certificates,
  shown: ServerCertificate,
  { show, say, clock }: { show: (next: ServerCertificate) => void; say: (line: string) => void; clock: () => Date },
): { stop: () => void; ask: () => Promise<void> } {
  let last = shown
  const ask = async (): Promise<void> => {
    try {
      const next = await certificates.current(clock())
      if (next.certificate === last.certificate) return
      show(next)
      last = next
    } catch (error) {
      say(`The certificate was not renewed. ${(error as Error).message}`)
    }
  }
  const timer = setInterval(() => void ask(), ASK_MS).unref()
  return {
    ask,
    stop: () => {
      clearInterval(timer)
    },
  }
}
