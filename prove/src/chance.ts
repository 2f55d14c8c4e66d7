import type { Random } from '@undercliff/demo'

/** A normal figure by Box and Muller: its tails are as long as they should be. */
export function normal(random: Random, mean: number, sd: number): number {
  const u = 1 - random.next()
  return mean + sd * Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random.next())
}

/** A figure with heavy tails: Student's t with four degrees of freedom, brought to the deviation asked for. */
export function heavy(random: Random, mean: number, sd: number): number {
  const squares = [1, 2, 3, 4].reduce((sum) => sum + normal(random, 0, 1) ** 2, 0)
  return mean + (sd * normal(random, 0, 1)) / Math.sqrt(squares / 4) / Math.SQRT2
}

/** Weibull: with a shape above one, what lasted long is likelier to end. */
export const weibull = (random: Random, scale: number, shape: number): number =>
  scale * (-Math.log(1 - random.next())) ** (1 / shape)

/** Whether something happens that does so this often. */
export const happens = (random: Random, often: number): boolean => random.next() < often

/** By how much more or less somebody does than they mean to: heavy tails, and never more than twice or half of it. */
export const factor = (random: Random, sd: number): number =>
  Math.exp(Math.min(Math.LN2, Math.max(-Math.LN2, heavy(random, 0, sd))))
