import type { ReachAnswer } from '@undercliff/contract'
import type { Request, RequestHandler } from 'express'

/** How Undercliff stands to those who ask: what it answers to, and whom it believes about who asks. */
export interface Front {
  /** Host names that it answers to. */
  readonly hostNames: ReadonlySet<string>
  /** How phones get to it. */
  readonly reach: ReachAnswer
  /** Where people reach it through a proxy; null where there is none. */
  readonly publicUrl: URL | null
  /** Addresses of proxies that are believed about host, scheme and address of who asks. */
  readonly proxies: readonly string[]
  /** Whether every page of its host may be asked for by https alone. */
  readonly httpsAlone: boolean
}

/** What answers on this machine alone. */
export const LOOPBACK_FRONT: Front = {
  hostNames: new Set(['127.0.0.1', 'localhost', '::1']),
  reach: { by: 'machine' },
  publicUrl: null,
  proxies: [],
  httpsAlone: false,
}

type Trust = (address: string | undefined, hop: number) => boolean

/** Whether a request came by a proxy that is believed. */
export function cameByProxy(request: Request): boolean {
  const trust = request.app.get('trust proxy fn') as Trust
  return trust(request.socket.remoteAddress, 0)
}

/** Whether what is between the browser and the last thing that is known to be ours is encrypted. */
export const isSecure = (request: Request): boolean =>
  request.secure || (request.app.get('public https') === true && cameByProxy(request))

/** A picture of nothing. A page of another origin that sees it come knows that the browser trusts this one. */
export const sendTrusted: RequestHandler = (_request, response) => {
  response.setHeader('Cross-Origin-Resource-Policy', 'cross-origin')
  response.setHeader('Cache-Control', 'no-store')
  response.type('svg').send('<svg xmlns="http://www.w3.org/2000/svg" width="1" height="1"/>')
}

/** Browsers are told so for half a year at a time. */
const HTTPS_ALONE = `max-age=${180 * 86_400}`

/** Has browsers ask by https alone, where nothing on this host needs anything else. */
export const askByHttps =
  ({ httpsAlone }: Front): RequestHandler =>
  (request, response, next) => {
    if (httpsAlone && isSecure(request)) response.setHeader('Strict-Transport-Security', HTTPS_ALONE)
    next()
  }
