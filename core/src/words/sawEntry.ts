import { PITCH_PROFILES, type PitchClass } from '../profile'
import type { PutBack, SawDue, SawEntry, SawEntryBodies, SawEntryKind } from '../saw'
import { plural } from './text'
import { writeLength, writeMm, type LengthPreference } from '../units'

/** What is due on a saw, in words. */
export const SAW_DUE_WORDS: Readonly<Record<SawDue, string>> = {
  flipAtChange: 'Flip the bar: a loop went on since it was last flipped',
  flipByHours: 'Flip the bar: it has run a working day this way up',
  sprocketSoon: 'The sprocket has seen two loops worn out: get another in',
  sprocketNow: 'Renew the sprocket: it has seen three loops worn out',
  burrs: 'Dress the rails: they have burrs',
  grooveWorn: 'The groove is worn wide: drive links lean in it',
}

/** The part of a saw that something is due on. */
const PART_OF: Readonly<Record<SawDue, 'flip' | 'sprocket' | 'bar'>> = {
  flipAtChange: 'flip',
  flipByHours: 'flip',
  sprocketSoon: 'sprocket',
  sprocketNow: 'sprocket',
  burrs: 'bar',
  grooveWorn: 'bar',
}

/** Whether the bar is to be flipped. `isFlip('flipByHours') // true` */
export const isFlip = (due: SawDue): boolean => PART_OF[due] === 'flip'

/** What is due on a saw in a word or two, for lists. `sayDueBriefly(['flipByHours']) // 'flip the bar'` */
export function sayDueBriefly(due: readonly SawDue[]): string {
  if (due.some((one) => PART_OF[one] === 'sprocket')) return 'sprocket'
  return due.every(isFlip) ? 'flip the bar' : 'bar'
}

/** What is looked to when a loop goes back on: what to do, and what is said of it once it is done. */
export const PUT_BACK_WORDS: Readonly<Record<PutBack, { readonly what: string; readonly done: string }>> = {
  barTurned: { what: 'Bar turned over', done: 'bar turned' },
  groove: { what: 'Groove scraped', done: 'groove scraped' },
  oilHole: { what: 'Oil hole clear', done: 'oil hole clear' },
  direction: { what: 'Chain the right way round, on the sprocket, drive links in the groove', done: 'right way round' },
  tension: {
    what: 'Bar tip held up: pulled at the middle about three quarters of a drive link shows, and it snaps back',
    done: 'tensioned',
  },
  nuts: { what: 'Nuts tight', done: 'nuts tight' },
  oil: { what: 'Bar oil filled', done: 'oil filled' },
  ranIn: { what: 'Run a minute with the oil flowing, off again, tension looked at again', done: 'run in' },
}

function sayChecked(entry: SawEntryBodies['barChecked'], lengths: LengthPreference): string {
  const found = [
    entry.grooveWidthUm === undefined ? '' : `groove ${writeLength(entry.grooveWidthUm, lengths)} wide`,
    entry.grooveDepthUm === undefined ? '' : `${writeLength(entry.grooveDepthUm, lengths)} deep`,
    entry.burrs === undefined ? '' : entry.burrs ? 'rails burred' : 'no burrs',
  ]
  return `Bar checked: ${found.filter(Boolean).join(', ')}.`
}

const sayNose = (nosePitchClass: PitchClass | null): string =>
  nosePitchClass === null ? 'solid nose' : `nose ${PITCH_PROFILES[nosePitchClass].name}`

const sayGone = ({ how, to }: SawEntryBodies['sawGone']): string =>
  how === 'retired' ? 'Done with.' : `Lent out${to === undefined ? '' : ` to ${to}`}.`

function sayRead({ pitchClass, gaugeUm, driveLinks, nosePitchClass, barStamp }: SawEntryBodies['fitRead']): string {
  const read = [
    pitchClass === undefined ? '' : `pitch ${PITCH_PROFILES[pitchClass].name}`,
    gaugeUm === undefined ? '' : `groove ${writeMm(gaugeUm, 1)}`,
    driveLinks === undefined ? '' : plural(driveLinks, 'drive link'),
    nosePitchClass === undefined ? '' : sayNose(nosePitchClass),
    barStamp === undefined ? '' : `stamped ${barStamp}`,
  ]
  return `Read off it: ${read.filter(Boolean).join(', ')}.`
}

/** One line for every kind of entry: a new kind is not written before it has its words. */
const SAW_ENTRY_WORDS: {
  readonly [K in SawEntryKind]: (entry: SawEntryBodies[K], lengths: LengthPreference) => string
} = {
  barFitted: ({ gaugeUm, driveLinks, nosePitchClass, barStamp }) => {
    const stamp = barStamp === undefined ? '' : `, stamped ${barStamp}`
    return `Another bar: ${writeMm(gaugeUm, 1)}, ${driveLinks} drive links, ${sayNose(nosePitchClass)}${stamp}.`
  },
  fitRead: sayRead,
  barFlipped: () => 'Bar flipped.',
  barChecked: sayChecked,
  railsDressed: () => 'Rails dressed.',
  putBack: ({ done }) => `Put back: ${done.map((one) => PUT_BACK_WORDS[one].done).join(', ')}.`,
  tensionLooked: ({ stayed }) => (stayed ? 'Tension looked at: it stays.' : 'Tension looked at: tightened again.'),
  oilFilled: () => 'Oil filled.',
  hoursSaid: ({ tanks, hours }) => `${plural(tanks, 'tank')} came to ${plural(hours, 'hour')}.`,
  sprocketRenewed: ({ pitchClass }) => `Sprocket renewed: ${PITCH_PROFILES[pitchClass].name}.`,
  sawRenamed: ({ from, to }) => `Called ${to} from now on, no longer ${from}.`,
  sawGone: sayGone,
  sawBack: () => 'Back with the crew.',
  sawCorrected: () => 'Struck an entry out.',
}

/**
 * One line that says what was done to a saw's bar or sprocket.
 *
 * @example
 * saySawEntry({ ...base, kind: 'barFlipped' }, 'mm') // 'Bar flipped.'
 */
export const saySawEntry = (entry: SawEntry, lengths: LengthPreference): string =>
  (SAW_ENTRY_WORDS[entry.kind] as (entry: SawEntry, lengths: LengthPreference) => string)(entry, lengths)
