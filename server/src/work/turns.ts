/**
 * Has work done in turns: so much at once, and so much of each person's; whose turn was longest ago comes next. One who
 * asks for twelve things waits for their own, and somebody else for one of them at most.
 */
export class Turns {
  /** Who waits, the next first, with what they want begun. */
  private readonly waiting = new Map<string, (() => void)[]>()
  private readonly underWay = new Map<string, number>()
  private busy = 0

  /**
   * @param atOnce how much is under way at the same time
   * @param each how much of that may be one person's
   */
  constructor(
    private readonly atOnce: number,
    private readonly each: number,
  ) {}

  /** Does it when it is the turn of whoever wants it. */
  async run<T>(who: string, work: () => Promise<T>): Promise<T> {
    await new Promise<void>((begin) => {
      this.waiting.set(who, [...(this.waiting.get(who) ?? []), begin])
      this.beginNext()
    })
    try {
      return await work()
    } finally {
      this.busy -= 1
      const left = (this.underWay.get(who) ?? 1) - 1
      if (left === 0) this.underWay.delete(who)
      else this.underWay.set(who, left)
      this.beginNext()
    }
  }

  private beginNext(): void {
    if (this.busy >= this.atOnce) return
    for (const [who, [begin, ...later]] of this.waiting) {
      const ofTheirs = this.underWay.get(who) ?? 0
      if (begin === undefined || ofTheirs >= this.each) continue
      // To the end of those who wait.
      this.waiting.delete(who)
      if (later.length > 0) this.waiting.set(who, later)
      this.busy += 1
      this.underWay.set(who, ofTheirs + 1)
      begin()
      this.beginNext()
      return
    }
  }
}
