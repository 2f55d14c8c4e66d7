import { problemDetails } from '@undercliff/contract'
import { parse } from 'cookie'
import { timingSafeEqual } from 'node:crypto'
import express, { Router, type Request, type RequestHandler, type Response } from 'express'
import type { Database } from '../database/connect'
import { csrfTokenOf, findSession, SESSION_DAYS, type Session } from '../store/sessions'
import { isSecure } from '../front/front'
import { sendProblem } from './problems'
import { jsonOnly } from './security'

/** Largest request body unless a route says otherwise. A whole loop's readings are a tenth of it. */
const BODY_LIMIT = '256kb'

export const SESSION_COOKIE = 'undercliff_session'
const CSRF_HEADER = 'x-csrf-token'

type Method = 'get' | 'post' | 'put' | 'delete'

interface RouteBase {
  readonly method: Method
  /** Below `/api`. */
  readonly path: string
  readonly bodyLimit?: string
  /** The body is left as bytes, and read in the thread that does the work. */
  readonly bytes?: true
}

/**
 * A route and who may call it. Routes exist in no other form, so none can be without the check;
 * a suite walks all of them.
 */
export type Route =
  | (RouteBase & {
      readonly access: 'open'
      readonly handle: (request: Request, response: Response, session: Session | null) => Promise<void>
    })
  | (RouteBase & {
      /** `password`: whoever signed in with their password, not by PIN. */
      readonly access: 'signedIn' | 'password' | 'lead'
      readonly handle: (request: Request, response: Response, session: Session) => Promise<void>
    })

/** Gives the browser its session, or takes it away. */
export function setSessionCookie(request: Request, response: Response, token: string | null): void {
  const common = { httpOnly: true, sameSite: 'strict', path: '/', secure: isSecure(request) } as const
  if (token === null) response.clearCookie(SESSION_COOKIE, common)
  else response.cookie(SESSION_COOKIE, token, { ...common, maxAge: SESSION_DAYS * 86_400_000 })
}

function sameText(a: string, b: string): boolean {
  const [left, right] = [Buffer.from(a), Buffer.from(b)]
  return left.length === right.length && timingSafeEqual(left, right)
}

/** Whether a change carries the token that only a page of this site could read. */
function carriesToken(request: Request, { token }: Session): boolean {
  const sent = request.headers[CSRF_HEADER]
  return typeof sent === 'string' && sameText(sent, csrfTokenOf(token))
}

const sessionOf = async ({ db, clock, steadyMs }: Guarding, request: Request): Promise<Session | null> => {
  const token = parse(request.headers.cookie ?? '')[SESSION_COOKIE]
  return token === undefined || token.length > 100
    ? null
    : findSession(db, token, { now: clock(), steadyMs: steadyMs() })
}

/** What the guard finds sessions with. */
interface Guarding {
  readonly db: Database
  readonly clock: () => Date
  readonly steadyMs: () => number
}

const BY_PIN = 'Sign in with your password for this; a PIN is for logging work.'

/** What stands before a route's own work: who it is, whether they may, and only then the body. */
function guard(on: Guarding, route: Route): RequestHandler {
  return async (request, response, next) => {
    const session = await sessionOf(on, request)
    const changes = route.method !== 'get'
    if (route.access !== 'open') {
      if (session === null) {
        sendProblem(response, problemDetails('not-signed-in', 'Sign in first.'))
        return
      }
      if (changes && !carriesToken(request, session)) {
        sendProblem(response, problemDetails('no-token', 'Open Undercliff again and repeat it.'))
        return
      }
      if (route.access === 'password' && session.byPin) {
        sendProblem(response, problemDetails('password-needed', BY_PIN))
        return
      }
      if (route.access === 'lead' && session.role !== 'lead') {
        sendProblem(response, problemDetails('lead-only', session.byPin ? BY_PIN : 'Ask a lead to do this.'))
        return
      }
    }
    response.locals.session = session
    next()
  }
}

const work =
  (route: Route): RequestHandler =>
  async (request, response) => {
    const session = response.locals.session as Session | null
    if (route.access === 'open') await route.handle(request, response, session)
    else if (session !== null) await route.handle(request, response, session)
  }

/** A router that has these routes and no other. */
export function mountRoutes(on: Guarding, routes: readonly Route[]): Router {
  const router = Router()
  for (const route of routes) {
    const limit = route.bodyLimit ?? BODY_LIMIT
    const body = route.bytes === true ? express.raw({ limit, type: 'application/json' }) : express.json({ limit })
    router[route.method](route.path, jsonOnly, guard(on, route), body, work(route))
  }
  return router
}
