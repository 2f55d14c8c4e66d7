import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { problemDetails } from '@undercliff/contract'
import { Router, type RequestHandler } from 'express'
import staticGzip from 'express-static-gzip'
import { sendProblem } from './problems'

const NONCE_PLACE = '__NONCE__'

/** Each file is served as the build compressed it. */
const AS_BUILT = { enableBrotli: true, orderPreference: ['br'], index: false }

/** Serves the built web application; any path that is not a file is a place within it. */
export function webPages(dist: string): Router {
  const page = readFileSync(join(dist, 'index.html'), 'utf8')
  const router = Router()
  router.use(
    '/assets',
    staticGzip(join(dist, 'assets'), { ...AS_BUILT, serveStatic: { immutable: true, maxAge: '1y' } }),
  )
  router.use('/assets', (_request, response) => {
    // A build that replaced this version took the file away.
    response.removeHeader('Content-Encoding')
    sendProblem(
      response,
      problemDetails('no-such-route', 'There is no such file in this version. Load the page again.'),
    )
  })
  const sendPage: RequestHandler = (_request, response) => {
    response.setHeader('Cache-Control', 'no-store')
    response.type('html').send(page.replaceAll(NONCE_PLACE, String(response.locals.nonce)))
  }
  // The service worker keeps this one, with the policy that its nonce belongs to, for when nothing answers.
  router.get('/index.html', sendPage)
  router.use(staticGzip(dist, AS_BUILT))
  router.get(/.*/, (request, response, next) => {
    if (request.accepts('html') === false) next()
    else sendPage(request, response, next)
  })
  return router
}
