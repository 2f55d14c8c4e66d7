import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { useCaliper } from './caliper'

/** A serial port that sends what a test gives it, piece by piece. */
function fakePort() {
  let send: ReadableStreamDefaultController<Uint8Array> | undefined
  const readable = new ReadableStream<Uint8Array>({
    start(controller) {
      send = controller
    },
  })
  const port = { readable, open: vi.fn(() => Promise.resolve()), close: vi.fn(() => Promise.resolve()) }
  return {
    port,
    send: (text: string) => send?.enqueue(new TextEncoder().encode(text)),
    end: () => send?.close(),
    pull: () => send?.error(new Error('The device has been lost.')),
  }
}

/** A browser that knows Web Serial, where a person chooses that port. */
function withSerial(requestPort: () => Promise<unknown>): void {
  vi.stubGlobal('navigator', { serial: { requestPort } })
}

beforeEach(() => {
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.unstubAllGlobals()
})

/** The store with a port open, and what it hands over. */
async function connected() {
  const fake = fakePort()
  withSerial(() => Promise.resolve(fake.port))
  const caliper = useCaliper()
  const taken: number[] = []
  caliper.taker = (um) => taken.push(um)
  await caliper.connectSerial()
  return { ...fake, caliper, taken }
}

describe('a caliper over a cable', () => {
  test('lines come over whole, however the port cuts them up', async () => {
    const { port, send, caliper, taken } = await connected()
    expect(port.open).toHaveBeenCalledWith({ baudRate: 9600 })
    expect(caliper.how).toBe('serial')
    for (const piece of ['+000', '7.46 m', 'm\r\n+00.2', '950 in LOW\r\n']) send(piece)
    await vi.waitFor(() => {
      expect(taken).toEqual([7460, 7493])
    })
    expect(caliper.lowBattery).toBe(true)
  })

  test('what comes garbled, or as an error, is said and not taken', async () => {
    const { send, caliper, taken } = await connected()
    send('+0007.4\r\n')
    await vi.waitFor(() => {
      expect(caliper.said).toMatch(/cut short/)
    })
    send('ERR 3\r\n')
    await vi.waitFor(() => {
      expect(caliper.said).toMatch(/could not measure/)
    })
    expect(taken).toEqual([])
  })

  test('a cable that comes off is said, and the port is closed; what was read before stays', async () => {
    const { port, send, pull, caliper, taken } = await connected()
    send('+0007.46 mm\r\n')
    await vi.waitFor(() => {
      expect(taken).toEqual([7460])
    })
    pull()
    await vi.waitFor(() => {
      expect(caliper.said).toMatch(/cable came off/)
    })
    expect(caliper.how).toBe('none')
    expect(port.close).toHaveBeenCalledOnce()
  })

  test('taken off by hand it lets go of the port and says nothing', async () => {
    const { port, caliper } = await connected()
    await caliper.disconnect()
    await vi.waitFor(() => {
      expect(port.close).toHaveBeenCalledOnce()
    })
    expect(caliper.how).toBe('none')
    expect(caliper.said).toBe('')
  })

  test('nothing chosen, a port in use, and a browser without Web Serial are said', async () => {
    const caliper = useCaliper()
    withSerial(() => Promise.reject(new DOMException('No port selected by the user.', 'NotFoundError')))
    await caliper.connectSerial()
    expect(caliper.said).toBe('No caliper was chosen.')
    const { port } = fakePort()
    withSerial(() => Promise.resolve({ ...port, open: () => Promise.reject(new Error('it is in use')) }))
    await caliper.connectSerial()
    expect(caliper.said).toBe('The caliper cannot be opened: it is in use.')
    vi.stubGlobal('navigator', {})
    setActivePinia(createPinia())
    expect(useCaliper().canSerial).toBe(false)
  })
})
