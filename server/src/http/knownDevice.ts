import { parse } from 'cookie'
import type { Request, Response } from 'express'
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto'

/** Whose sign-in a device is to be remembered for. */
export interface Known {
  readonly personId: string
  /** Another password makes every device a stranger again. */
  readonly passwordHash: string
}

const KNOWN_DAYS = 400
const MARK = /^([A-Za-z0-9_-]{22})\.([0-9a-f]{64})$/

const cookieOf = ({ personId }: Known): string =>
  `undercliff_known_${createHash('sha256').update(personId).digest('hex').slice(0, 16)}`
const macOf = ({ passwordHash }: Known, nonce: string): Buffer =>
  createHmac('sha256', passwordHash).update(`known device:${nonce}`).digest()

/** Leaves a mark on a device on which somebody signed in, by which it is told from a stranger's. */
export function markDevice(request: Request, response: Response, known: Known): void {
  const nonce = randomBytes(16).toString('base64url')
  response.cookie(cookieOf(known), `${nonce}.${macOf(known, nonce).toString('hex')}`, {
    httpOnly: true,
    sameSite: 'strict',
    path: '/api/session',
    secure: request.secure,
    maxAge: KNOWN_DAYS * 86_400_000,
  })
}

/** What a device is called on which this person has signed in before; null for a stranger's. */
export function knownDevice(request: Request, known: Known): string | null {
  const [, nonce, mac] = MARK.exec(parse(request.headers.cookie ?? '')[cookieOf(known)] ?? '') ?? []
  if (nonce === undefined || mac === undefined) return null
  return timingSafeEqual(Buffer.from(mac, 'hex'), macOf(known, nonce)) ? nonce : null
}
