/** A person does not type two keys within this, in ms; a scanner does. */
const FAST_MS = 60

/** What a key turned out to be part of. */
export type Outcome =
  /** Of a person's typing, as far as can be told. */
  | { readonly kind: 'typing' }
  /** The code's prefix is complete: it is a scanner. */
  | { readonly kind: 'prefix' }
  /** Of a code that a scanner is typing. */
  | { readonly kind: 'scanning' }
  /** The code is complete. */
  | { readonly kind: 'code'; readonly text: string }

/**
 * Tells a scanner that types from a person: by the prefix of the code, typed faster than hands can.
 *
 * @example
 * const burst = new KeyBurst('UNDERCLIFF:')
 * burst.take('U', 0) // { kind: 'typing' } so far
 */
export class KeyBurst {
  private text = ''
  private lastMs = -Infinity

  constructor(private readonly prefix: string) {}

  get isEmpty(): boolean {
    return this.text === ''
  }

  /**
   * Takes one key.
   *
   * @param key as the browser names it
   * @param atMs when it was pressed
   */
  take(key: string, atMs: number): Outcome {
    // A scanner holds Shift for capitals; that is no character of the code.
    if (key === 'Shift' || key === 'CapsLock') return { kind: 'typing' }
    if (atMs - this.lastMs > FAST_MS) this.text = ''
    this.lastMs = atMs
    const scanning = this.text.length >= this.prefix.length
    if (key === 'Enter' || key === 'Tab') {
      const text = this.text
      this.text = ''
      return scanning ? { kind: 'code', text } : { kind: 'typing' }
    }
    if (key.length !== 1) {
      this.text = ''
      return { kind: 'typing' }
    }
    this.text += key
    if (scanning) return { kind: 'scanning' }
    if (!this.prefix.toUpperCase().startsWith(this.text.toUpperCase())) {
      // The key may be the first of a code all the same.
      this.text = this.prefix.toUpperCase().startsWith(key.toUpperCase()) ? key : ''
      return { kind: 'typing' }
    }
    return this.text.length === this.prefix.length ? { kind: 'prefix' } : { kind: 'typing' }
  }
}
