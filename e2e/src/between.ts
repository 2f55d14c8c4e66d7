import { createServer, request, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'

/** What happens to a request on its way: it goes through, is cut off half way there, or its answer never comes. */
export type Fate = 'through' | 'cutThere' | 'cutBack'

/**
 * A poor line between a browser and an Undercliff: it cuts what it is told to, and changes what is served, as a new
 * version of the application would.
 */
export class Between {
  private server: Server | null = null
  /** What becomes of each request to write entries. */
  fate: Fate = 'through'
  /** Requests to write entries that met another fate than going through. */
  cut = 0
  /** Changes a file of the application that is served; null serves it as it is. */
  change: ((path: string, text: string) => string) | null = null

  private constructor(private readonly to: number) {}

  static async before(port: number): Promise<Between> {
    const made = new Between(port)
    made.server = createServer((asked, answer) => {
      made.pass(asked, answer)
    }).listen(0, '127.0.0.1')
    await new Promise((resolve) => made.server?.once('listening', resolve))
    return made
  }

  get address(): string {
    return `http://127.0.0.1:${(this.server?.address() as AddressInfo).port}`
  }

  close(): void {
    this.server?.closeAllConnections()
    this.server?.close()
  }

  private pass(asked: IncomingMessage, answer: ServerResponse): void {
    const { url: path = '/', method, headers } = asked
    const fate = method === 'POST' && path === '/api/entries' ? this.fate : 'through'
    if (fate !== 'through') this.cut += 1
    // What is changed on the way is never what the browser has already, and comes as plain text.
    if (this.change !== null)
      for (const name of ['if-none-match', 'if-modified-since', 'accept-encoding'])
        Reflect.deleteProperty(headers, name)
    const onward = request({ host: '127.0.0.1', port: this.to, path, method, headers }, (came) => {
      if (fate === 'cutBack') {
        // The server has written it by now; nobody hears of it.
        came.resume()
        answer.destroy()
        return
      }
      this.serve(path, came, answer)
    })
    onward.on('error', () => {
      answer.destroy()
    })
    if (fate === 'cutThere') {
      asked.once('data', (bytes: Buffer) => {
        onward.write(bytes.subarray(0, bytes.length >> 1), () => {
          onward.destroy()
          answer.destroy()
        })
      })
      return
    }
    asked.pipe(onward)
  }

  private serve(path: string, came: IncomingMessage, answer: ServerResponse): void {
    const { change } = this
    if (change === null || path.startsWith('/api') || !/javascript|html/.test(came.headers['content-type'] ?? '')) {
      answer.writeHead(came.statusCode ?? 502, came.headers)
      came.pipe(answer)
      return
    }
    const parts: Buffer[] = []
    came.on('data', (part: Buffer) => parts.push(part))
    came.on('end', () => {
      const { 'content-length': _length, 'content-encoding': _encoding, etag: _etag, ...headers } = came.headers
      answer.writeHead(came.statusCode ?? 502, headers)
      answer.end(change(path, Buffer.concat(parts).toString()))
    })
  }
}
