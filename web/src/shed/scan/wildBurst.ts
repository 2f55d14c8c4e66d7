/** Hands do not press two keys within this, in ms, but where fingers roll. Starting value. */
const HANDS_MS = 45
/** So many keys in a row, each so soon after the one before, no hand presses. Starting value. */
const BURST_KEYS = 4

/** What becomes of a key outside a field. */
export type Caught =
  /** Nothing that types by itself: it goes on its way. */
  | 'through'
  /** It waits for what follows. */
  | 'held'
  /** Its code is complete, and is named. */
  | 'ended'

/**
 * Keeps what types by itself, a barcode of a pack or a web address, from being taken for commands: outside a field
 * each key waits until none follows at once. Few are given back then; many were no hand's.
 */
export class WildBurst<E> {
  private held: { readonly key: string; readonly event: E }[] = []
  private timer: ReturnType<typeof setTimeout> | undefined
  private lastMs = -Infinity

  constructor(
    /** Takes what hands pressed after all. */
    private readonly giveBack: (events: readonly E[]) => void,
    /** Is told of what was swallowed. */
    private readonly foreign: (text: string) => void,
  ) {}

  /** @param atMs when the key was pressed, not when a busy page came to it: keys that queued up were no burst */
  take(key: string, event: E, atMs: number): Caught {
    if (atMs - this.lastMs > HANDS_MS) this.settle()
    this.lastMs = atMs
    const ends = key === 'Enter' || key === 'Tab'
    if (ends && this.held.length < BURST_KEYS) {
      this.settle()
      return 'through'
    }
    if (ends) {
      this.settle()
      return 'ended'
    }
    // What was pressed before goes first.
    if (key.length !== 1) {
      this.settle()
      return 'through'
    }
    // The space bar presses what is under the focus, and pedals send it; within a burst it is part of that.
    if (key === ' ' && this.held.length === 0) return 'through'
    this.held.push({ key, event })
    clearTimeout(this.timer)
    this.timer = setTimeout(() => {
      this.settle()
    }, HANDS_MS)
    return 'held'
  }

  /** What waits turned out to be the beginning of something else: a tag of ours. */
  drop(): void {
    clearTimeout(this.timer)
    this.held = []
  }

  private settle(): void {
    const { held } = this
    this.drop()
    if (held.length >= BURST_KEYS) this.foreign(held.map(({ key }) => key).join(''))
    else if (held.length > 0) this.giveBack(held.map(({ event }) => event))
  }
}
