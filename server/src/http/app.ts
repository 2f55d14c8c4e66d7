import { problemDetails } from '@undercliff/contract'
import express, { type Express } from 'express'
import type { Pool } from 'mysql2/promise'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import type { Database } from '../database/connect'
import { healthRoutes } from '../routes/health'
import { allRoutes } from '../routes'
import { Tries } from '../store/tries'
import { mountRoutes } from './access'
import { webPages } from './page'
import { answerProblems, sendProblem } from './problems'
import { giveNonce, refuseForeign, securityHeaders } from './security'

/** What the HTTP side is built from. */
export interface AppParts {
  readonly db: Database
  readonly pool: Pool
  readonly logger: Logger
  readonly clock: () => Date
  /** Host names it answers to. */
  readonly hostNames: ReadonlySet<string>
  /** The built web application; null serves the API alone. */
  readonly webDist: string | null
}

/** The whole HTTP side, from security headers to problem documents. */
export function createApp({ db, pool, logger, clock, hostNames, webDist }: AppParts): Express {
  const app = express()
  app.disable('x-powered-by')
  app.set('etag', false)
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
  app.use(giveNonce, securityHeaders)
  app.use(healthRoutes(db))
  app.use(refuseForeign(hostNames))
  app.use('/api', mountRoutes(db, clock, allRoutes({ db, clock, tries: new Tries(pool) })))
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
