import { PITCH_PROFILES, writeLength, writeMm, type LengthPreference, type SawEntry } from '@undercliff/core'

/** One line that says what was done to a saw's bar or sprocket. */
export function saySawEntry(entry: SawEntry, lengths: LengthPreference): string {
  switch (entry.kind) {
    case 'barFitted':
      return `Another bar: ${writeMm(entry.gaugeUm, 1)}, ${entry.driveLinks} drive links, ${entry.nosePitchClass === null ? 'solid nose' : `nose ${PITCH_PROFILES[entry.nosePitchClass].name}`}.`
    case 'barFlipped':
      return 'Bar flipped.'
    case 'barChecked': {
      const found = [
        entry.grooveWidthUm === undefined ? '' : `groove ${writeLength(entry.grooveWidthUm, lengths)} wide`,
        entry.grooveDepthUm === undefined ? '' : `${writeLength(entry.grooveDepthUm, lengths)} deep`,
        entry.burrs === undefined ? '' : entry.burrs ? 'rails burred' : 'no burrs',
      ]
      return `Bar checked: ${found.filter(Boolean).join(', ')}.`
    }
    case 'railsDressed':
      return 'Rails dressed.'
    case 'sprocketRenewed':
      return `Sprocket renewed: ${PITCH_PROFILES[entry.pitchClass].name}.`
    case 'sawCorrected':
      return 'Struck an entry out.'
  }
}
