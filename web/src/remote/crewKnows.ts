import type { KnownBite, PaceGroup } from '@undercliff/core'
import { keptRef } from './keptRef'
import { fetchWear } from './api'

const NOTHING: { readonly known: KnownBite | null; readonly pace: readonly PaceGroup[] } = { known: null, pace: [] }

/**
 * What the crew's sharpenings have shown of its hands and of its pace, as it was last heard, so that the next loop
 * and the wood know it too. Where nobody answers, what was heard before stands.
 */
export function useCrewKnows() {
  const knows = keptRef('undercliff:crew-knows', NOTHING)
  void fetchWear().then(
    ({ known, pace }) => {
      knows.value = { known: known ?? null, pace }
    },
    // Out of range: it is asked for again when the next page needs it.
    () => undefined,
  )
  return knows
}
