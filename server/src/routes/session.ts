import {
  passwordSchema,
  pinSchema,
  setUpSchema,
  sharedSchema,
  signInSchema,
  switchSchema,
  type PasswordChange,
  type PinChange,
  type SessionAnswer,
  type SetUp,
  type SharedChange,
  type SignIn,
  type Switch,
} from '@undercliff/contract'
import { DEMO_SIGN_INS } from '@undercliff/demo'
import type { Request, Response } from 'express'
import { setSessionCookie, type Route } from '../http/access'
import { changePassword, changePin, checkPin, checkSignIn, hasAccounts, isDemo, setUp } from '../store/accounts'
import {
  describeSession,
  deviceOf,
  endSession,
  findSession,
  listSessions,
  markShared,
  openSession,
  revokeSession,
  type Opening,
  type Present,
  type Session,
} from '../store/sessions'
import { pathId, readBody } from '../http/body'
import { knownDevice, markDevice } from '../http/knownDevice'
import { Refusal } from '../store/refusal'
import type { RouteParts } from './parts'

const addressOf = (request: Request): string => request.ip ?? 'unknown'
const presentOf = ({ clock, steadyMs }: RouteParts): Present => ({ now: clock(), steadyMs: steadyMs() })

/** Opens a session, ends the one before it on this device, marks the device after a password and tells the page. */
async function enter(
  parts: RouteParts,
  request: Request,
  response: Response,
  { passwordHash, ...opening }: Omit<Opening, 'device'> & { readonly passwordHash?: string },
  before: string | null,
): Promise<void> {
  const { db } = parts
  if (before !== null) await endSession(db, before)
  const device = deviceOf(request.headers['user-agent'])
  const token = await openSession(db, { ...opening, device }, presentOf(parts))
  setSessionCookie(request, response, token)
  if (passwordHash !== undefined) markDevice(request, response, { personId: opening.personId, passwordHash })
  const session = await findSession(db, token, presentOf(parts))
  if (session === null) throw new Error('a session that was just opened is there')
  response.status(201).json(await describeSession(db, session))
}

async function sessionAnswer({ db }: RouteParts, session: Session | null): Promise<SessionAnswer> {
  if (session !== null) return describeSession(db, session)
  if (!(await hasAccounts(db))) return { state: 'setUp' }
  return { state: 'signedOut', demo: (await isDemo(db)) ? DEMO_SIGN_INS : [] }
}

/** Coming in: setting up, signing in, taking over a shared device, and who is here. */
const comingIn = (parts: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/session',
    access: 'open',
    handle: async (_request, response, session) => {
      response.json(await sessionAnswer(parts, session))
    },
  },
  {
    method: 'post',
    path: '/setup',
    access: 'open',
    handle: async (request, response, session) => {
      const { writes, tries } = parts
      const { passwordHash, ...opening } = await setUp(
        writes,
        tries,
        readBody<SetUp>(setUpSchema, request.body),
        addressOf(request),
      )
      await enter(parts, request, response, { ...opening, passwordHash }, session?.token ?? null)
    },
  },
  {
    method: 'post',
    path: '/session',
    access: 'open',
    handle: async (request, response, session) => {
      const { db, tries } = parts
      const { passwordHash, ...who } = await checkSignIn(db, tries, readBody<SignIn>(signInSchema, request.body), {
        address: addressOf(request),
        knownDevice: (known) => knownDevice(request, known),
      })
      // A device that the crew shares stays shared when somebody signs in on it anew.
      const shared = session?.shared === true && session.crewId === who.crewId
      await enter(parts, request, response, { ...who, shared, passwordHash }, session?.token ?? null)
    },
  },
  {
    method: 'post',
    path: '/session/switch',
    access: 'signedIn',
    handle: async (request, response, session) => {
      const wanted = readBody<Switch>(switchSchema, request.body)
      await checkPin(parts.db, parts.tries, session, wanted, addressOf(request))
      const opening = { crewId: session.crewId, personId: wanted.personId, shared: true, byPin: true }
      await enter(parts, request, response, opening, session.token)
    },
  },
]

/** Sessions that are open: this one, and the others of a person or a crew. */
const openSessions = ({ db }: RouteParts): Route[] => [
  {
    method: 'put',
    path: '/session/shared',
    access: 'lead',
    handle: async (request, response, session) => {
      const { shared } = readBody<SharedChange>(sharedSchema, request.body)
      await markShared(db, session, shared)
      response.json(await describeSession(db, { ...session, shared }))
    },
  },
  {
    method: 'delete',
    path: '/session',
    access: 'signedIn',
    handle: async (request, response, session) => {
      await endSession(db, session.token)
      setSessionCookie(request, response, null)
      response.status(204).end()
    },
  },
  {
    method: 'get',
    path: '/sessions',
    access: 'signedIn',
    handle: async (_request, response, session) => {
      response.json({ sessions: await listSessions(db, session) })
    },
  },
  {
    method: 'delete',
    path: '/sessions/:id',
    access: 'signedIn',
    handle: async (request, response, session) => {
      const id = pathId(request, 'id')
      if (id === null) throw new Refusal('no-such-session', 'There is no such session.')
      await revokeSession(db, session, id)
      response.status(204).end()
    },
  },
]

/** What a person may do about their own sign-in. */
const ownSignIn = ({ db, tries }: RouteParts): Route[] => [
  {
    method: 'put',
    path: '/password',
    access: 'password',
    handle: async (request, response, session) => {
      const { current, next } = readBody<PasswordChange>(passwordSchema, request.body)
      const passwordHash = await changePassword(db, tries, session, { current, next, address: addressOf(request) })
      markDevice(request, response, { personId: session.personId, passwordHash })
      response.status(204).end()
    },
  },
  {
    method: 'put',
    path: '/pin',
    access: 'password',
    handle: async (request, response, session) => {
      const { pin } = readBody<PinChange>(pinSchema, request.body)
      await changePin(db, tries, session, pin)
      response.json(await describeSession(db, { ...session, hasPin: pin !== null }))
    },
  },
]

/** Signing in and out, and what a person may do about their own sign-in. */
export const sessionRoutes = (parts: RouteParts): Route[] => [
  ...comingIn(parts),
  ...openSessions(parts),
  ...ownSignIn(parts),
]
