/** Numbers from a seed, the same on every machine. */
export interface Random {
  /** From 0 up to 1. */
  next(): number
  between(low: number, high: number): number
  whole(low: number, high: number): number
  /** Normal, by the sum of twelve uniforms. */
  normal(mean: number, sd: number): number
  pick<T>(values: readonly [T, ...T[]]): T
  id(): string
}

const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789'

/** Mulberry32, a 32-bit generator (Tommy Ettinger, public domain, from memory). */
export function seeded(seed: number): Random {
  let state = seed >>> 0
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
  const whole = (low: number, high: number): number => low + Math.floor(next() * (high - low + 1))
  return {
    next,
    whole,
    between: (low, high) => low + next() * (high - low),
    normal: (mean, sd) => mean + sd * (Array.from({ length: 12 }, next).reduce((a, b) => a + b, 0) - 6),
    pick: (values) => values[whole(0, values.length - 1)] ?? values[0],
    id: () => Array.from({ length: 16 }, () => LETTERS[whole(0, LETTERS.length - 1)] ?? 'a').join(''),
  }
}
