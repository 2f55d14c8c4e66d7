import { problemDetails } from '@undercliff/contract'
import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { RequestHandler } from 'express'
import helmet from 'helmet'
import { cameByProxy, type Front } from '../front/front'
import { sendProblem } from './problems'

/** A fresh nonce for the style elements of one page. */
export const giveNonce: RequestHandler = (_request, response, next) => {
  response.locals.nonce = randomBytes(16).toString('base64')
  next()
}

const nonceSource = (_request: IncomingMessage, response: ServerResponse): string =>
  `'nonce-${String((response as ServerResponse & { locals: { nonce?: string } }).locals.nonce)}'`

/** Security headers: nothing but this server's own scripts, styles, fonts and data. */
export const securityHeaders: RequestHandler = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'", nonceSource],
      fontSrc: ["'self'"],
      imgSrc: ["'self'", 'data:'],
      connectSrc: ["'self'"],
      workerSrc: ["'self'"],
      manifestSrc: ["'self'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  strictTransportSecurity: false,
})

const hostName = (host: string): string =>
  host
    .toLowerCase()
    .replace(/:\d+$/, '')
    .replace(/^\[|\]$/g, '')

/**
 * Refuses requests that a page of another site makes: by a host name that is not ours (DNS rebinding) or with another
 * page's origin. Through a proxy that is believed, pages are of the public address, whichever host it passes on.
 */
export const refuseForeign =
  ({ hostNames, publicUrl }: Front): RequestHandler =>
  (request, response, next) => {
    // As a proxy says it, where one is believed.
    const { host = '' } = request as { host?: string }
    const byProxy = publicUrl !== null && cameByProxy(request)
    if (!hostNames.has(hostName(host)) && !(byProxy && hostName(host) === hostName(publicUrl.host))) {
      sendProblem(response, problemDetails('foreign-host', 'Open Undercliff by the address that it printed.'))
      return
    }
    const { origin } = request.headers
    const own = [`http://${host}`, `https://${host}`, ...(byProxy ? [publicUrl.origin] : [])]
    if (origin !== undefined && !own.includes(origin)) {
      sendProblem(response, problemDetails('foreign-origin', 'The request came from another site.'))
      return
    }
    next()
  }

/** Answers are this person's own, and nothing on the way keeps them. */
export const noStore: RequestHandler = (_request, response, next) => {
  response.setHeader('Cache-Control', 'private, no-store')
  next()
}

/** Takes bodies as JSON only, which other sites cannot send without asking first. */
export const jsonOnly: RequestHandler = (request, response, next) => {
  if (request.method !== 'GET' && request.method !== 'HEAD' && request.is('application/json') === false) {
    sendProblem(response, problemDetails('not-json', 'Send application/json.'))
    return
  }
  next()
}
