import { layoutLoop } from '../loop'
import { compareEntries, entriesThatCount, type Entry, type Instant } from '../log'
import { changedSpec, pitchUmOf, type LoopSpec } from '../profile'

/** What of a loop decides whether an entry may join its log: nothing that has to be worked out from readings. */
export interface Standing {
  readonly tag: string
  readonly spec: LoopSpec
  readonly registeredAt: Instant
  /** When it was retired; null when it was not. */
  readonly retiredAt: Instant | null
  /** The shop it is at; null when it is at none. */
  readonly shop: string | null
  /** How many cutters such a loop has. */
  readonly cutters: number
  /** The highest cutter that the log speaks of; 0 when it speaks of none. */
  readonly spokenOf: number
}

const cuttersOf = (spec: LoopSpec): number => layoutLoop({ ...spec, pitchUm: pitchUmOf(spec) }).cutters.length

/** The highest cutter that an entry speaks of; 0 when it speaks of none. */
function spokenOf(entry: Entry): number {
  switch (entry.kind) {
    case 'measured':
    case 'inspected':
      return Math.max(0, ...entry.readings.map(({ cutter }) => cutter))
    case 'sharpened':
      return Math.max(0, ...(entry.pairs ?? []).map(({ cutter }) => cutter))
    case 'struck':
      return Math.max(0, ...(entry.cutters ?? []))
    default:
      return 0
  }
}

function shopAfter(entry: Entry, before: string | null): string | null {
  switch (entry.kind) {
    case 'sentOut':
      return entry.shop
    case 'fitted':
    case 'takenOff':
    case 'moved':
    case 'cameBack':
    case 'retired':
      return null
    default:
      return before
  }
}

/** What one more entry, later than all before it, makes of it. Another spec is not for here. */
function afterOne(before: Standing, entry: Entry): Standing {
  return {
    ...before,
    tag: entry.kind === 'retagged' ? entry.tag : before.tag,
    retiredAt: entry.kind === 'retired' ? entry.happenedAt : before.retiredAt,
    shop: shopAfter(entry, before.shop),
    spokenOf: Math.max(before.spokenOf, spokenOf(entry)),
  }
}

/**
 * How a loop stands after its log; null when it is not registered.
 *
 * @throws Error when no loop can be as the log says this one is
 */
export function standingOf(entries: readonly Entry[]): Standing | null {
  const counted = entriesThatCount(entries)
  const registered = counted.find((entry) => entry.kind === 'registered')
  if (registered?.kind !== 'registered') return null
  const spec = counted.reduce(
    (held, entry) => (entry.kind === 'specChanged' ? changedSpec(held, entry.changes, entry.origin) : held),
    registered.spec,
  )
  const first: Standing = {
    tag: registered.tag,
    spec,
    registeredAt: registered.happenedAt,
    retiredAt: null,
    shop: null,
    cutters: cuttersOf(spec),
    spokenOf: 0,
  }
  return counted.slice(counted.indexOf(registered) + 1).reduce(afterOne, first)
}

/** The same, kept up as entries join one after the other; what comes in order costs nothing to add. */
export class RunningStanding {
  private known: Standing | null | undefined
  private last: Entry | undefined
  private struck: ReadonlySet<string> = new Set()

  constructor(private readonly entries: readonly Entry[]) {}

  /** How the loop stands. */
  now(): Standing | null {
    if (this.known === undefined) {
      this.known = standingOf(this.entries)
      this.last = entriesThatCount(this.entries).at(-1)
      this.struck = new Set(this.entries.flatMap((entry) => (entry.kind === 'corrected' ? [entry.strikes] : [])))
    }
    return this.known
  }

  /** An entry has joined the end of the log. */
  joined(entry: Entry): void {
    const { known, last } = this
    const inOrder = last !== undefined && compareEntries(last, entry) <= 0
    const plain = entry.kind !== 'corrected' && entry.kind !== 'specChanged' && entry.kind !== 'registered'
    // What strikes an entry out may have come before it.
    if (known == null || !inOrder || !plain || this.struck.has(entry.id)) {
      this.known = undefined
      return
    }
    this.known = afterOne(known, entry)
    this.last = entry
  }
}
