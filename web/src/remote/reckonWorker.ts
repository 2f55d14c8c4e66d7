import { cardOf, fold, type Entry, type HouseRules, type LoopCard } from '@undercliff/core'

/** A log that a card is to be worked out from. */
export interface ToReckon {
  readonly id: number
  readonly log: readonly Entry[]
  readonly rules: HouseRules
}

/** What came of it; why not where nothing did. */
export type Reckoned = { readonly id: number } & ({ readonly card: LoopCard | null } | { readonly wrong: string })

self.onmessage = ({ data: { id, log, rules } }: MessageEvent<ToReckon>) => {
  let reckoned: Reckoned
  try {
    const state = fold(log)
    reckoned = { id, card: state === null ? null : cardOf(state, rules) }
  } catch (error) {
    reckoned = { id, wrong: String(error) }
  }
  self.postMessage(reckoned)
}
