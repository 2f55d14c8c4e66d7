import { LineReader, readCaliperLine, type Um } from '@undercliff/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

/** Where the stand-in speaks, and a caliper is listened to. */
export const STAND_IN_CHANNEL = 'undercliff-caliper'

/** What of Web Serial is used; the browser's own types know nothing of it. */
interface SerialPort {
  readonly readable: ReadableStream<Uint8Array> | null
  open(options: { baudRate: number }): Promise<void>
  close(): Promise<void>
}
const serial = (): { requestPort(): Promise<SerialPort> } | undefined =>
  (navigator as { serial?: { requestPort(): Promise<SerialPort> } }).serial

/** Takes a reading; whoever shows a field that it belongs to. */
export type TakeReading = (um: Um) => void

const WHY = {
  error: 'The caliper says that it could not measure. Close it on the cutter again.',
  garbled: 'That reading came cut short, and was not taken. Send it again.',
} as const

/** Reads a port until it ends or comes off, and closes it. */
async function readPort(
  port: SerialPort,
  reader: ReadableStreamDefaultReader<Uint8Array>,
  heard: (lines: readonly string[]) => void,
): Promise<'ended' | 'cameOff'> {
  const lines = new LineReader()
  const text = new TextDecoder()
  try {
    for (;;) {
      const { done, value } = await reader.read()
      if (done) return 'ended'
      heard(lines.take(text.decode(value, { stream: true })))
    }
  } catch {
    return 'cameOff'
  } finally {
    reader.releaseLock()
    await port.close().catch(() => undefined)
  }
}

/** Listens to the stand-in in the other tabs. */
function openStandIn(heard: (lines: readonly string[]) => void): () => void {
  const lines = new LineReader()
  const channel = new BroadcastChannel(STAND_IN_CHANNEL)
  channel.onmessage = ({ data }: MessageEvent<unknown>) => {
    if (typeof data === 'string') heard(lines.take(data))
  }
  return () => {
    channel.close()
  }
}

/** Opens a port that a person chooses; null where the browser has none. */
async function openPort() {
  const port = await serial()?.requestPort()
  if (port === undefined) return null
  await port.open({ baudRate: 9600 })
  const reader = port.readable?.getReader()
  if (reader === undefined) throw new Error('it sends nothing')
  return { port, reader }
}

/** A caliper that sends lines: over a serial cable, or the stand-in in another tab. */
export const useCaliper = defineStore('caliper', () => {
  const how = ref<'none' | 'serial' | 'standIn'>('none')
  const said = ref('')
  const lowBattery = ref(false)
  const last = ref<Um | null>(null)
  const taker = shallowRef<TakeReading | null>(null)
  const canSerial = computed(() => serial() !== undefined)
  let stop: () => Promise<void> | void = () => undefined

  function heard(lines: readonly string[]): void {
    for (const line of lines) {
      const read = readCaliperLine(line)
      if (!read.ok) {
        said.value = WHY[read.why]
        continue
      }
      said.value = ''
      lowBattery.value = read.lowBattery
      last.value = read.um
      taker.value?.(read.um)
    }
  }

  async function connectSerial(): Promise<void> {
    await disconnect()
    try {
      const open = await openPort()
      if (open === null) return
      how.value = 'serial'
      said.value = ''
      stop = () => open.reader.cancel()
      void readPort(open.port, open.reader, heard).then((end) => {
        if (end === 'cameOff') said.value = 'The cable came off. Connect it again, or type what it reads.'
        if (how.value === 'serial') how.value = 'none'
      })
    } catch (error) {
      const { name, message } = error as Error
      said.value = name === 'NotFoundError' ? 'No caliper was chosen.' : `The caliper cannot be opened: ${message}.`
    }
  }

  async function connectStandIn(): Promise<void> {
    await disconnect()
    stop = openStandIn(heard)
    how.value = 'standIn'
    said.value = ''
  }

  async function disconnect(): Promise<void> {
    const ending = stop
    stop = () => undefined
    how.value = 'none'
    lowBattery.value = false
    await ending()
  }

  return { how, said, lowBattery, last, taker, canSerial, connectSerial, connectStandIn, disconnect }
})
