import type { KnownBite } from '@undercliff/core'
import { keptRef } from './keptRef'
import { fetchWear } from './api'

const NOTHING: { readonly known: KnownBite | null } = { known: null }

/**
 * What the crew's sharpenings have shown of its hands, as it was last heard, so that the next loop and the wood know
 * it too. Where nobody answers, what was heard before stands.
 */
export function useCrewKnows() {
  const knows = keptRef('undercliff:crew-knows', NOTHING)
  void fetchWear().then(
    ({ known }) => {
      knows.value = { known: known ?? null }
    },
    // Out of range: it is asked for again when the next page needs it.
    () => undefined,
  )
  return knows
}
