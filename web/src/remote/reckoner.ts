import type { Entry, HouseRules, LoopCard } from '@undercliff/core'
import type { Reckoned, ToReckon } from './reckonWorker'

interface Waiting {
  readonly resolve: (card: LoopCard | null) => void
  readonly reject: (why: Error) => void
}

let worker: Worker | null = null
let asked = 0
const waiting = new Map<number, Waiting>()

/** What could not be fetched, or broke, is begun anew when it is asked for again. */
function fail(): void {
  worker?.terminate()
  worker = null
  for (const { reject } of waiting.values()) reject(new Error('Cards cannot be worked out on this device now.'))
  waiting.clear()
}

function hear(told: Reckoned): void {
  const asker = waiting.get(told.id)
  waiting.delete(told.id)
  if ('wrong' in told) asker?.reject(new Error(told.wrong))
  else asker?.resolve(told.card)
}

function begin(): Worker {
  const fresh = new Worker(new URL('./reckonWorker.ts', import.meta.url), { type: 'module' })
  fresh.onmessage = ({ data }: MessageEvent<Reckoned>) => {
    hear(data)
  }
  fresh.onerror = fail
  return fresh
}

/**
 * What works cards out, fetched for when the server goes away.
 *
 * @returns null in a browser that has no workers, or lets none begin
 */
export function reckonerAtHand(): Worker | null {
  try {
    worker ??= begin()
  } catch {
    worker = null
  }
  return worker
}

/**
 * The card of a loop by its log, worked out beside the page, so that no tap waits for it; null where the log does not
 * begin with a loop.
 *
 * @throws where the log cannot be folded, or nothing can be worked out on this device now
 */
export const reckon = (log: readonly Entry[], rules: HouseRules): Promise<LoopCard | null> =>
  new Promise((resolve, reject) => {
    asked += 1
    waiting.set(asked, { resolve, reject })
    const reckoner = reckonerAtHand()
    if (reckoner === null) fail()
    else {
      try {
        reckoner.postMessage(plain({ id: asked, log, rules }))
      } catch (error) {
        waiting.delete(asked)
        reject(error instanceof Error ? error : new Error(String(error)))
      }
    }
  })

/** As it would come over a wire: what a page watches cannot be handed to a worker as it is. */
const plain = (one: ToReckon): ToReckon => JSON.parse(JSON.stringify(one)) as ToReckon
