import type { FitCheck, FitLevel } from '../fit'
import { PITCH_PROFILES } from '../profile'
import type { FitField, SawFit } from '../saw'
import { writeMm } from '../units'

/** What each part of a saw's fit is called, in the middle of a sentence. */
export const FIT_FIELD_NAMES: Readonly<Record<FitField, string>> = {
  pitchClass: 'the pitch of its sprocket',
  gaugeUm: 'the gauge of its groove',
  driveLinks: 'how many drive links its bar takes',
}

/**
 * What a saw takes on one line, as `specLine` says it of a loop; what nobody has read off says so.
 *
 * @example
 * saySawFit({ pitchClass: 'p325', gaugeUm: null, driveLinks: 64 }) // '.325" · gauge not known · 64 links'
 */
export const saySawFit = ({ pitchClass, gaugeUm, driveLinks }: Pick<SawFit, FitField>): string =>
  [
    pitchClass === null ? 'pitch not known' : PITCH_PROFILES[pitchClass].name,
    gaugeUm === null ? 'gauge not known' : writeMm(gaugeUm, 1),
    driveLinks === null ? 'drive links not known' : `${driveLinks} links`,
  ].join(' · ')

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
