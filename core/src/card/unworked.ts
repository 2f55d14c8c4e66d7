import { CUTTER_DAMAGE, PART_DAMAGE, type DamageEffect, type DamageKind } from '../damage'
import type { CutterReading, NewEntry } from '../log'
import { otherHand, type Hand } from '../loop'
import type { Reason } from '../verdict'
import type { LoopCard } from './card'

/** What of the entries that wait keeps a loop off, whatever else they come to. */
interface KeptOff {
  /** Something was struck, and nobody has looked since. */
  readonly struck: boolean
  /** A sharpening was begun, or ended after one side: the side that waits. */
  readonly waits: Hand | null
  /** What was found that no loop cuts with. */
  readonly found: { readonly kind: DamageKind; readonly cutter?: number } | null
}

const NO_CUTTING_WITH: ReadonlySet<DamageEffect> = new Set<DamageEffect>(['ends', 'unfit', 'attention'])

/** Damage among readings that no loop cuts with; null for none. */
function graveOf(readings: readonly CutterReading[]): KeptOff['found'] {
  for (const { cutter, damage = [] } of readings)
    for (const { kind } of damage) if (NO_CUTTING_WITH.has(CUTTER_DAMAGE[kind].effect)) return { kind, cutter }
  return null
}

/** Whether a look at the whole loop found it sound, or no worse than dulled: what was struck is seen to then. */
const isSound = ({ parts, readings }: Extract<NewEntry, { kind: 'inspected' }>): boolean =>
  parts.length === 0 && readings.every(({ damage = [] }) => damage.every(({ kind }) => kind === 'dirtDulled'))

function after(kept: KeptOff, entry: NewEntry): KeptOff {
  switch (entry.kind) {
    case 'struck':
      return { ...kept, struck: true }
    case 'begun':
      return kept.waits === null ? { ...kept, waits: otherHand(entry.side) } : kept
    case 'sharpened': {
      const { onlySide } = entry
      return { ...kept, waits: onlySide === undefined || onlySide === kept.waits ? null : otherHand(onlySide) }
    }
    case 'measured':
      return { ...kept, found: graveOf(entry.readings) ?? kept.found }
    case 'inspected': {
      const part = entry.parts.find(({ kind }) => NO_CUTTING_WITH.has(PART_DAMAGE[kind].effect))
      const found = graveOf(entry.readings) ?? (part === undefined ? null : { kind: part.kind })
      return { ...kept, struck: kept.struck && !isSound(entry), found }
    }
    default:
      return kept
  }
}

/** The gravest of what keeps it off; null for nothing. */
function whyOff({
  struck,
  waits,
  found,
}: KeptOff): { readonly action: 'inspect' | 'stop'; readonly why: Reason } | null {
  if (found !== null) {
    const { kind, ...where } = found
    return { action: 'stop', why: { rule: 'unfitDamage', damage: kind, ...where, limitFrom: 'trade' } }
  }
  if (waits !== null) return { action: 'stop', why: { rule: 'sideWaits', hand: waits, limitFrom: 'trade' } }
  const value = { unit: 'strikes', amount: 1 } as const
  return struck ? { action: 'inspect', why: { rule: 'struckUnseen', value, limitFrom: 'trade' } } : null
}

function placed(card: LoopCard, entry: NewEntry): LoopCard {
  switch (entry.kind) {
    case 'fitted':
      return { ...card, sawId: entry.sawId, place: { at: 'saw', sawId: entry.sawId } }
    case 'takenOff':
      return { ...card, sawId: null, place: { at: entry.to ?? 'bench' } }
    case 'moved':
      return { ...card, sawId: null, place: { at: entry.to } }
    default:
      return card
  }
}

/**
 * The card of a loop where its log cannot be worked out on this device: the rules that keep people safe are applied to
 * it without that. What was struck is looked over before it cuts, what was begun on one side waits for the other, and
 * what was found cracked, loose or missing does not cut. One that was unfit as it was last told stays so: what lets it
 * cut again is left to whoever can work it out.
 *
 * @param card as it was last told
 * @param waiting what was logged of it since, in its order
 */
export function cardWithoutWork(card: LoopCard, waiting: readonly NewEntry[]): LoopCard {
  const here = waiting.reduce(placed, card)
  const off = whyOff(waiting.reduce(after, { struck: false, waits: null, found: null }))
  if (off === null) return here
  const { action, why: reason } = off
  return { ...here, action, also: [], fitForUse: false, reason, runnerUp: null, settled: false }
}
