/** A person does not type two keys within this, in ms; a scanner does. */
const FAST_MS = 80

/** What a key turned out to be part of. */
export type Outcome =
  /** Of a person's typing, as far as can be told. */
  | { readonly kind: 'typing' }
  /** It is a scanner: this and what follows is no input for the screen. */
  | { readonly kind: 'scanning'; readonly first: boolean }
  /** The code is complete. */
  | { readonly kind: 'code'; readonly text: string }

/**
 * Tells a scanner that types from a person: by the beginning of the code, faster than hands can.
 *
 * @example
 * const burst = new KeyBurst('QUC')
 * burst.take('Q', 0) // { kind: 'typing' } so far; once 'U' and 'C' have followed it is scanning
 */
export class KeyBurst {
  private text = ''
  private lastMs = -Infinity

  constructor(private readonly prefix: string) {}

  /** Whether the next key would be the first of a code. */
  isIdleAt(atMs: number): boolean {
    return this.text === '' || atMs - this.lastMs > FAST_MS
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
    if (this.isIdleAt(atMs)) this.text = ''
    this.lastMs = atMs
    const scanning = this.text.length >= this.prefix.length
    if (key === 'Enter' || key === 'Tab') {
      const { text } = this
      this.text = ''
      return scanning ? { kind: 'code', text } : { kind: 'typing' }
    }
    if (key.length !== 1) {
      this.text = ''
      return { kind: 'typing' }
    }
    this.text += key
    if (scanning) return { kind: 'scanning', first: false }
    if (!this.prefix.toUpperCase().startsWith(this.text.toUpperCase())) {
      // The key may be the first of a code all the same.
      this.text = this.prefix.toUpperCase().startsWith(key.toUpperCase()) ? key : ''
      return { kind: 'typing' }
    }
    return this.text.length === this.prefix.length ? { kind: 'scanning', first: true } : { kind: 'typing' }
  }
}
