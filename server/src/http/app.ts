import { problemDetails } from '@undercliff/contract'
import express, { type Express } from 'express'
import type { Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import type { Database } from '../database/connect'
import { entriesRoutes } from '../routes/entries'
import { filesRoutes } from '../routes/files'
import { healthRoutes } from '../routes/health'
import { shedRoutes } from '../routes/shed'
import { webPages } from './page'
import { answerProblems, sendProblem } from './problems'
import { giveNonce, jsonOnly, refuseForeign, securityHeaders } from './security'

/** Largest request body. A whole loop's readings with damage are a tenth of it. */
export const BODY_LIMIT = '256kb'

/** What the HTTP side is built from. */
export interface AppParts {
  readonly db: Database
  /** The crew that this installation serves. */
  readonly crewId: string
  readonly logger: Logger
  readonly clock: () => Date
  /** Host names it answers to. */
  readonly hostNames: ReadonlySet<string>
  /** The built web application; null serves the API alone. */
  readonly webDist: string | null
}

/** The whole HTTP side, from security headers to problem documents. */
export function createApp({ db, crewId, logger, clock, hostNames, webDist }: AppParts): Express {
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
      autoLogging: { ignore: ({ url }) => url?.startsWith('/assets') === true || url === '/healthz' },
    }),
  )
  app.use(giveNonce, securityHeaders)
  app.use(healthRoutes(db))
  app.use(refuseForeign(hostNames))
  // Before the common body limit: a backup is larger than any entry.
  app.use('/api', jsonOnly, filesRoutes(db, crewId, clock))
  app.use('/api', express.json({ limit: BODY_LIMIT }))
  app.use('/api', shedRoutes(db, crewId), entriesRoutes(db, crewId, clock))
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
