import { Z95, type Forecast, type LoopState, type SideBalance } from '@undercliff/core'
import type { TrueLoop } from './truth'

/** A figure over crews with its 95 % interval. */
export interface Figure {
  readonly mean: number
  readonly low: number
  readonly high: number
}

/** Mean and 95 % interval of a figure over crews, each of which is one draw. */
export function figureOver(values: readonly number[]): Figure {
  const n = values.length
  const mean = values.reduce((sum, one) => sum + one, 0) / Math.max(1, n)
  const variance = values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, n - 1)
  const half = 1.96 * Math.sqrt(variance / Math.max(1, n))
  return { mean, low: mean - half, high: mean + half }
}

/** Counts how often something is so. */
export class Share {
  hits = 0
  of = 0

  note(hit: boolean): void {
    this.of += 1
    if (hit) this.hits += 1
  }

  add({ hits, of }: Share): void {
    this.hits += hits
    this.of += of
  }

  get part(): number | null {
    return this.of === 0 ? null : this.hits / this.of
  }
}

const APART_UM = 400
const ALIKE_UM = 120

/** How well sides that differ are told from sides that do not. */
export class Sides {
  /** True differences beyond 0.4 mm that were said by the second look at the bench. */
  readonly said = new Share()
  /** Sides within 0.12 mm of each other that were called different. */
  readonly falseAlarms = new Share()
  private looks = 0

  note(truth: TrueLoop, balance: SideBalance | null): void {
    if (balance === null) return
    const apart = Math.abs(truth.sideDifferenceUm)
    if (apart < ALIKE_UM) this.falseAlarms.note(balance.beyond)
    if (apart <= APART_UM) this.looks = 0
    else {
      this.looks += 1
      if (balance.beyond || this.looks === 2) {
        this.said.note(balance.beyond)
        this.looks = 0
      }
    }
  }
}

/** How often 95 % ranges hold the truth. */
export class Coverage {
  readonly lengths = new Share()
  readonly sides = new Share()
  readonly sharpenings = new Share()

  /** @param left how many sharpenings the loop really has in it, in the mix that it gets */
  note(truth: TrueLoop, state: LoopState, ahead: Forecast, left: number): void {
    for (const [i, { lengthUm }] of truth.cutters.entries()) {
      const known = state.cutters[i]?.length
      if (known !== undefined) this.lengths.note(Math.abs(lengthUm - known.um) <= Z95 * known.sdUm)
    }
    const { difference } = ahead.summary
    if (difference !== null)
      this.sides.note(truth.sideDifferenceUm >= difference.low && truth.sideDifferenceUm <= difference.high)
    const { low, high } = ahead.sharpeningsLeft
    this.sharpenings.note(left >= low && left <= high)
  }
}
