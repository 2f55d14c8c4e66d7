import { CONDITIONS, type Conditions } from '../../log'
import { beyondAnyEdge } from '../../wear/sharpness'
import type { Draft } from '../draft'

const mostOf = (tanks: Record<Conditions, number>): Conditions =>
  CONDITIONS.reduce((most, one) => (tanks[one] > tanks[most] ? one : most), 'clean')

/** Ends the time a loop was sharp, if it ran at all; a spell ends once. */
export function endSpell(draft: Draft, dulled: boolean): void {
  if (draft.spellOver || draft.tanksSinceSharpened <= 0) return
  draft.spellOver = true
  // Somebody forgot to write a sharpening down: how long it stayed sharp nobody knows.
  if (beyondAnyEdge(draft)) return
  draft.spells.push({
    tanks: draft.tanksSinceSharpened,
    wearTanks: draft.wearTanksSinceSharpened,
    dulled,
    conditions: mostOf(draft.spellTanks),
  })
}

/** A sharpening begins the next spell. */
export function beginSpell(draft: Draft): void {
  draft.spellOver = false
  draft.untaughtTanks = 0
  draft.spellTanks = { clean: 0, gritty: 0, soil: 0 }
  draft.tanksSinceSharpened = 0
  draft.wearTanksSinceSharpened = 0
}
