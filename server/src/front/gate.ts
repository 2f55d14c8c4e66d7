import express, { type Express } from 'express'
import helmet from 'helmet'
import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { ReachAnswer } from '@undercliff/contract'
import { derOf, type Authority } from './authority'
import type { Front } from './front'
import { AUTHORITY_PATH, GATE_SCRIPT, gatePage, SCRIPT_PATH } from './gatePage'

type OwnReach = Extract<ReachAnswer, { by: 'authority' }>

const nonceOf = (response: ServerResponse): string =>
  (response as ServerResponse & { locals: { nonce: string } }).locals.nonce

/** What answers by plain http beside the secure address: one page that hands the authority to a phone. */
export function gate(authority: Authority, reach: OwnReach, { hostNames }: Front): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64')
    response.setHeader('Cache-Control', 'no-store')
    next()
  })
  /** The secure address by the name under which the phone came, where that is one of ours. */
  const secureFor = (hostname: string): string => {
    const secure = new URL(reach.address)
    if (hostNames.has(hostname)) secure.hostname = hostname
    return secure.origin
  }
  app.use((request, response, next) => {
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: [(_request: IncomingMessage, answered: ServerResponse) => `'nonce-${nonceOf(answered)}'`],
          imgSrc: [secureFor(request.hostname)],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
      // Of no use without https, and said to be so by browsers.
      crossOriginOpenerPolicy: false,
      originAgentCluster: false,
    })(request, response, next)
  })
  app.get('/', (request, response) => {
    const { firstCode: code, fingerprint, names } = reach
    const words = { address: secureFor(request.hostname), code, fingerprint, names }
    response.type('html').send(gatePage(words, nonceOf(response)))
  })
  app.get(SCRIPT_PATH, (_request, response) => {
    response.type('text/javascript').send(GATE_SCRIPT)
  })
  app.get(AUTHORITY_PATH, (_request, response) => {
    response.type('application/x-x509-ca-cert').send(derOf(authority.certificate))
  })
  app.use((_request, response) => {
    response.redirect(302, '/')
  })
  return app
}
