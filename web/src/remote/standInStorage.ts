/** A stand-in for the device's storage; its keys are its own, as the browser's are. */
export class StandInStorage {
  getItem(key: string): string | null {
    return (this as unknown as Record<string, string>)[key] ?? null
  }
  setItem(key: string, value: string): void {
    ;(this as unknown as Record<string, string>)[key] = value
  }
  removeItem(key: string): void {
    Reflect.deleteProperty(this, key)
  }
}

/** One that has no room for anything, or for anything longer than so many characters. */
export class FullStorage extends StandInStorage {
  constructor(private readonly longest = 0) {
    super()
    Object.defineProperty(this, 'longest', { enumerable: false })
  }
  override setItem(key: string, value: string): void {
    if (value.length > this.longest) throw new DOMException('The quota has been exceeded.', 'QuotaExceededError')
    super.setItem(key, value)
  }
}
