/** A measured figure and what it must meet. */
export interface Figure {
  readonly name: string
  readonly value: number
  readonly unit: string
  readonly limit?: { readonly atMost?: number; readonly atLeast?: number }
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
