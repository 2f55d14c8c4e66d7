import type { SessionListed, SignedIn } from '@undercliff/contract'
import type { Role } from '@undercliff/core'
import { createHash, randomBytes } from 'node:crypto'
import { and, eq, isNotNull, lt, type SQL } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import type { Database, Transaction } from '../database/connect'
import { accounts, crews, people, sessions } from '../database/schema'
import type { Caller } from './caller'
import { Refusal } from './refusal'

/** Days without a request after which a session ends. */
export const SESSION_DAYS = 30
/** A session's last use is written down at most this often, in ms. */
const SEEN_EVERY_MS = 5 * 60_000
const DAY_MS = 86_400_000

const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex')

/** What goes back in a header with every change; only pages of this site can read it. */
export const csrfTokenOf = (token: string): string => sha256(`csrf:${token}`)

/** A caller with the session that brought them. */
export interface Session extends Caller {
  readonly sessionId: string
  readonly token: string
  readonly name: string
  readonly shared: boolean
  readonly byPin: boolean
  readonly hasPin: boolean
  /** The crew's revision when the session was looked up. */
  readonly revision: number
}

/** The present: by the machine's calendar, to be shown, and by the steady clock, which decides. */
export interface Present {
  readonly now: Date
  readonly steadyMs: number
}

/** What a new session is opened with. */
export interface Opening {
  readonly crewId: string
  readonly personId: string
  /** What the browser calls itself. */
  readonly device: string
  readonly shared?: boolean
  readonly byPin?: boolean
}

/** A browser and system in two words, as far as it says. */
export function deviceOf(userAgent: string | undefined): string {
  if (userAgent === undefined || !userAgent.startsWith('Mozilla/')) return 'a program'
  const browser = /Firefox/.test(userAgent)
    ? 'Firefox'
    : /Edg/.test(userAgent)
      ? 'Edge'
      : /Chrom/.test(userAgent)
        ? 'Chromium'
        : /Safari/.test(userAgent)
          ? 'Safari'
          : 'a browser'
  const system = /Android/.test(userAgent)
    ? 'Android'
    : /iPhone|iPad/.test(userAgent)
      ? 'iOS'
      : /Windows/.test(userAgent)
        ? 'Windows'
        : /Mac OS/.test(userAgent)
          ? 'macOS'
          : /Linux/.test(userAgent)
            ? 'Linux'
            : 'another system'
  return `${browser} on ${system}`
}

/** Opens a session under a fresh token and returns the token, which is kept nowhere here. */
export async function openSession(
  db: Database | Transaction,
  { crewId, personId, device, shared = false, byPin = false }: Opening,
  { now, steadyMs }: Present,
): Promise<string> {
  const token = randomBytes(32).toString('base64url')
  const at = now.toISOString()
  await db.insert(sessions).values({
    tokenHash: sha256(token),
    id: nanoid(),
    crewId,
    personId,
    device,
    startedAt: at,
    seenAt: at,
    seenSteadyMs: Math.round(steadyMs),
    shared,
    byPin,
  })
  await db.delete(sessions).where(lt(sessions.seenSteadyMs, Math.round(steadyMs - SESSION_DAYS * DAY_MS)))
  return token
}

/** The session of a token; null when it is none, was ended or is too old. */
export async function findSession(db: Database, token: string, { now, steadyMs }: Present): Promise<Session | null> {
  const tokenHash = sha256(token)
  const [row] = await db
    .select({
      id: sessions.id,
      crewId: sessions.crewId,
      personId: sessions.personId,
      seenSteadyMs: sessions.seenSteadyMs,
      shared: sessions.shared,
      byPin: sessions.byPin,
      name: people.name,
      role: people.role,
      pinHash: accounts.pinHash,
      revision: crews.revision,
    })
    .from(sessions)
    .innerJoin(crews, eq(crews.id, sessions.crewId))
    .innerJoin(people, and(eq(people.crewId, sessions.crewId), eq(people.id, sessions.personId)))
    .innerJoin(accounts, and(eq(accounts.crewId, sessions.crewId), eq(accounts.personId, sessions.personId)))
    .where(eq(sessions.tokenHash, tokenHash))
  if (row === undefined) return null
  const idleMs = row.seenSteadyMs === null ? Infinity : steadyMs - row.seenSteadyMs
  if (row.seenSteadyMs !== null && idleMs > SESSION_DAYS * DAY_MS) return null
  if (idleMs > SEEN_EVERY_MS) {
    const seen = { seenAt: now.toISOString(), seenSteadyMs: Math.round(steadyMs) }
    await db.update(sessions).set(seen).where(eq(sessions.tokenHash, tokenHash))
  }
  const { id, crewId, personId, shared, byPin, name, pinHash, revision } = row
  // Four digits are not enough to be a lead by.
  const role: Role = byPin ? 'sawyer' : row.role
  return { sessionId: id, token, crewId, personId, role, name, shared, byPin, hasPin: pinHash !== null, revision }
}

/** Ends a session. */
export const endSession = async (db: Database | Transaction, token: string): Promise<void> => {
  await db.delete(sessions).where(eq(sessions.tokenHash, sha256(token)))
}

/** Marks a session as that of a bench device that people take over by PIN, or not. */
export const markShared = async (db: Database, { token }: Session, shared: boolean): Promise<void> => {
  await db
    .update(sessions)
    .set({ shared })
    .where(eq(sessions.tokenHash, sha256(token)))
}

/** What a page is told of the session it is in. */
export async function describeSession(db: Database, session: Session): Promise<SignedIn> {
  const { crewId, personId, name, role, token, shared, byPin, hasPin } = session
  const switchable = shared
    ? await db
        .select({ personId: people.id, name: people.name })
        .from(accounts)
        .innerJoin(people, and(eq(people.crewId, accounts.crewId), eq(people.id, accounts.personId)))
        .where(and(eq(accounts.crewId, crewId), isNotNull(accounts.pinHash)))
        .orderBy(people.name)
    : []
  return {
    state: 'signedIn',
    personId,
    name,
    role,
    crewId,
    csrfToken: csrfTokenOf(token),
    shared,
    byPin,
    hasPin,
    switchable,
  }
}

/** The sessions that somebody may see and end: a lead the crew's, others their own, by PIN only those by PIN. */
function within({ crewId, personId, role, byPin }: Session): SQL | undefined {
  const own = role === 'lead' ? undefined : eq(sessions.personId, personId)
  return and(eq(sessions.crewId, crewId), own, byPin ? eq(sessions.byPin, true) : undefined)
}

/** Where somebody is signed in; a lead sees the whole crew's. */
export async function listSessions(db: Database, session: Session): Promise<SessionListed[]> {
  const rows = await db
    .select({
      id: sessions.id,
      personId: sessions.personId,
      name: people.name,
      device: sessions.device,
      startedAt: sessions.startedAt,
      seenAt: sessions.seenAt,
      shared: sessions.shared,
    })
    .from(sessions)
    .innerJoin(people, and(eq(people.crewId, sessions.crewId), eq(people.id, sessions.personId)))
    .where(within(session))
    .orderBy(sessions.seenAt)
  return rows.map((row) => ({ ...row, current: row.id === session.sessionId })).reverse()
}

/**
 * Ends another session: one's own, or as a lead any of the crew's.
 *
 * @throws Refusal when there is none such to end
 */
export async function revokeSession(db: Database, session: Session, id: string): Promise<void> {
  const [{ affectedRows }] = await db.delete(sessions).where(and(within(session), eq(sessions.id, id)))
  if (affectedRows === 0) throw new Refusal('no-such-session', 'There is no such session.')
}
