import type { FitCheck, FitLevel } from '../fit'

/** How well a loop goes with a saw, in words. */
export const FIT_WORDS: Readonly<Record<FitLevel, string>> = { fits: 'fits', but: 'will run, but', mustNot: 'must not' }

/**
 * The fit in one line.
 *
 * @example
 * sayFit('M2', 'Bellwether', check) // 'M2 must not go on Bellwether: pitch is .325", the sprocket takes 3/8".'
 */
export function sayFit(tag: string, nickname: string, { level, parts }: FitCheck): string {
  const reasons = parts
    .filter((one) => one.level === level)
    .map(({ reason }) => reason)
    .join('; ')
  switch (level) {
    case 'fits':
      return `${tag} fits ${nickname}: ${reasons}.`
    case 'but':
      return `${tag} will run on ${nickname}, but ${reasons}.`
    case 'mustNot':
      return `${tag} must not go on ${nickname}: ${reasons}.`
  }
}
