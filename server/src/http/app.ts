import { problemDetails } from '@undercliff/contract'
import compression from 'compression'
import express, { type Express } from 'express'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import { healthRoutes } from '../routes/health'
import { allRoutes } from '../routes'
import { askByHttps, sendTrusted, type Front } from '../front/front'
import { TRUSTED_PATH } from '../front/gatePage'
import { Tries } from '../store/tries'
import type { Connected } from '../database/connect'
import type { Workers } from '../work/workers'
import { mountRoutes } from './access'
import { webPages } from './page'
import { answerProblems, sendProblem } from './problems'
import { giveNonce, noStore, refuseForeign, securityHeaders } from './security'

/** What the HTTP side is built from. */
export interface AppParts {
  readonly connected: Pick<Connected, 'db' | 'writes'>
  readonly workers: Workers
  readonly logger: Logger
  /** The present, as the machine has it. */
  readonly clock: () => Date
  /** A clock for limits and sessions that no setting of the machine's moves, in ms. */
  readonly steadyMs: () => number
  readonly front: Front
  /** The built web application; null serves the API alone. */
  readonly webDist: string | null
}

/** The whole HTTP side, from security headers to problem documents. */
export function createApp({ connected, workers, logger, clock, steadyMs, front, webDist }: AppParts): Express {
  const { db, writes } = connected
  const tries = new Tries(db, steadyMs)
  const app = express()
  app.disable('x-powered-by')
  app.set('etag', false)
  app.set('trust proxy', [...front.proxies])
  app.set('public https', front.publicUrl?.protocol === 'https:')
  app.use(
    pinoHttp({
      logger,
      // No address, no header, no body: what a request was about stays out of the log.
      serializers: {
        req: ({ method, url }: { method: string; url: string }) => ({ method, path: url.split('?')[0] }),
        res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
      },
      autoLogging: { ignore: ({ url }) => url.startsWith('/assets') || url === '/healthz' },
    }),
  )
  app.use(giveNonce, securityHeaders, askByHttps(front), compression())
  app.use(healthRoutes(db))
  app.use(refuseForeign(front))
  app.get(TRUSTED_PATH, sendTrusted)
  app.use(
    '/api',
    noStore,
    mountRoutes(
      { db, clock, steadyMs },
      allRoutes({ db, writes, workers, clock, steadyMs, tries, reach: front.reach }),
    ),
  )
  app.use('/api', (_request, response) => {
    sendProblem(response, problemDetails('no-such-route', 'There is nothing at this address.'))
  })
  if (webDist !== null) app.use(webPages(webDist))
  app.use((_request, response) => {
    sendProblem(response, problemDetails('no-such-route', 'There is nothing at this address.'))
  })
  app.use(answerProblems)
  return app
}
