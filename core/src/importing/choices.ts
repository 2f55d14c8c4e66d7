import { SEQUENCES } from '../loop'
import { CUTTER_TYPES, GAUGES_UM, PITCH_CLASSES, PITCH_PROFILES, START_MARKS } from '../profile'
import { writeMm } from '../units'
import { CUTTER_TYPE_NAMES, SEQUENCE_NAMES, SHELF_NAMES } from '../words'
import type { ImportField } from './columns'

/** One of the words that a cell can be mended to. */
export interface CellChoice {
  /** As it would stand in the cell. */
  readonly text: string
  readonly label: string
}

const same = (text: string): CellChoice => ({ text, label: text })

/** A pitch as a cell has to say it so that nothing is left to guess. */
const PITCHES: readonly CellChoice[] = PITCH_CLASSES.map((pitch) => {
  const { name } = PITCH_PROFILES[pitch]
  return { text: pitch === 'threeEighths' ? `${name} standard` : name, label: name }
})

const CHOICES: Partial<Record<ImportField, readonly CellChoice[]>> = {
  pitch: PITCHES,
  gauge: GAUGES_UM.map((um) => same(writeMm(um, 1))),
  cutterType: CUTTER_TYPES.map((type) => same(CUTTER_TYPE_NAMES[type])),
  sequence: SEQUENCES.map((sequence) => same(SEQUENCE_NAMES[sequence])),
  condition: [
    same('new'),
    { text: 'used', label: 'used, nobody has looked' },
    { text: '95 %', label: 'used, nearly all left' },
    { text: '75 %', label: 'used, about three quarters' },
    { text: '50 %', label: 'used, about half' },
    { text: '25 %', label: 'used, about a quarter' },
    { text: '0 %', label: 'used, almost none' },
  ],
  place: [...Object.values(SHELF_NAMES), 'on the saw', 'at a shop', 'retired'].map(same),
  startMark: START_MARKS.map(same),
}

/** What a cell of a field can be mended to; empty where it has to be typed. */
export const choicesFor = (field: ImportField): readonly CellChoice[] => CHOICES[field] ?? []
