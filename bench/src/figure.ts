/** Least or most that a figure should be. */
export interface Bound {
  readonly atMost?: number
  readonly atLeast?: number
}

/** A measured figure. */
export interface Figure {
  readonly name: string
  readonly value: number
  readonly unit: string
  /** What it must meet: a ratio within one run, or a size. */
  readonly limit?: Bound
  /** What it should be on an ordinary machine. Machines differ, so that it decides nothing. */
  readonly aim?: Bound
}

/** Median seconds of a run, over several. */
export function medianSeconds(run: () => void, runs: number): number {
  const times = Array.from({ length: runs }, () => {
    const start = performance.now()
    run()
    return (performance.now() - start) / 1000
  }).sort((a, b) => a - b)
  return times[times.length >> 1] ?? 0
}
