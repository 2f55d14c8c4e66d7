import type { Express } from 'express'
import { createServer, type RequestListener, type Server } from 'node:http'
import { createServer as createSecureServer, type Server as SecureServer } from 'node:https'
import { StartProblem } from '../database/startProblem'
import type { StartOptions } from '../run/options'
import { renewCertificates } from './certificates'
import { gate } from './gate'
import { isEveryAddress, isLoopback } from './names'
import { plainPortOf, type Prepared } from './prepare'

/** What listens, and how it is ended. */
export interface Doors {
  close(): Promise<void>
}

interface Place {
  readonly host: string
  readonly port: number
}

export const portTaken = (port: number, asked: number): StartProblem =>
  new StartProblem(
    port === asked
      ? `Port ${port} is taken by another program. Choose another: ./start --port ${port + 1}`
      : `Port ${port}, for phones that come for the first time, is taken by another program. ` +
          `Choose another pair: ./start --port ${port + 1}`,
  )

function listen(server: Server | SecureServer, { host, port }: Place, asked: number): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE') reject(portTaken(port, asked))
      else if (error.code === 'EACCES' || error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND') {
        reject(new StartProblem(`Cannot listen on ${host} port ${port}: ${error.code}.`))
      } else reject(error)
    })
    server.listen(port, host, resolve)
  })
}

/** Answers no new request, and waits a little for those that are under way. */
async function close(server: Server | SecureServer): Promise<void> {
  const closed = new Promise((resolve) => server.close(resolve))
  server.closeIdleConnections()
  setTimeout(() => {
    server.closeAllConnections()
  }, 3000).unref()
  await closed
}

/** By plain http: the whole of it to this machine itself, and to any other the page that hands out the authority. */
const plainListener =
  (app: RequestListener, page: RequestListener): RequestListener =>
  (request, response) => {
    const from = request.socket.remoteAddress?.replace(/^::ffff:/, '') ?? ''
    const host = (request.headers.host ?? '').replace(/:\d+$/, '').replace(/^\[|\]$/g, '')
    ;(isLoopback(from) && isLoopback(host) ? app : page)(request, response)
  }

/**
 * Opens what Undercliff answers at: one port, or two where it has an authority of its own.
 *
 * @throws StartProblem when one of them cannot be listened on
 */
export async function openDoors(
  { host, port }: StartOptions,
  { front, certificates, authority }: Prepared,
  app: Express,
  { say, clock }: { say: (line: string) => void; clock: () => Date },
): Promise<Doors> {
  const open: (Server | SecureServer)[] = []
  const closeAll = async (): Promise<void> => {
    await Promise.all(open.map(close))
  }
  const door = async (server: Server | SecureServer, place: Place): Promise<void> => {
    await listen(server, place, port)
    open.push(server)
  }
  try {
    if (certificates === null) {
      await door(createServer(app), { host, port })
      return { close: closeAll }
    }
    const shown = await certificates.current(clock())
    const asTls = (of: typeof shown) => ({ cert: of.certificate, key: of.key, minVersion: 'TLSv1.2' as const })
    const secure = createSecureServer(asTls(shown), app)
    await door(secure, { host, port })
    if (authority !== null && front.reach.by === 'authority') {
      const plain = plainListener(app, gate(authority, front.reach, front))
      const plainPort = plainPortOf({ port })
      await door(createServer(plain), { host, port: plainPort })
      if (!isEveryAddress(host)) await door(createServer(plain), { host: '127.0.0.1', port: plainPort })
    }
    const renewal = renewCertificates(certificates, shown, {
      say,
      clock,
      show: (next) => {
        secure.setSecureContext(asTls(next))
      },
    })
    return {
      close: async () => {
        renewal.stop()
        await closeAll()
      },
    }
  } catch (error) {
    await closeAll()
    throw error
  }
}
