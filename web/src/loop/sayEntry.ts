import {
  ACTION_WORDS,
  CUTTER_TYPE_NAMES,
  damageName,
  ORIGIN_WORDS,
  PITCH_PROFILES,
  SHARPEN_METHOD_NAMES,
  SHELF_NAMES,
  SEQUENCE_NAMES,
  specLine,
  writeFile,
  writeLength,
  type CutterReading,
  type Entry,
  type LengthPreference,
  type SpecField,
  type SpecValues,
} from '@undercliff/core'

const CONDITION_WORDS = { clean: 'clean wood', gritty: 'gritty bark', soil: 'soil' } as const
const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`

function sayReadings(readings: readonly CutterReading[]): string {
  const lengths = readings.filter(({ lengthUm }) => lengthUm !== undefined).length
  const damaged = readings.filter(({ damage }) => (damage?.length ?? 0) > 0)
  const kinds = [...new Set(damaged.flatMap(({ damage }) => damage?.map(({ kind }) => damageName(kind)) ?? []))]
  return [
    lengths > 0 ? `${count(lengths, 'cutter')} read` : '',
    damaged.length > 0 ? `${kinds.join(', ')} on ${count(damaged.length, 'cutter')}` : '',
  ]
    .filter(Boolean)
    .join('; ')
}

export const SPEC_FIELD_NAMES: Record<SpecField, string> = {
  pitchClass: 'pitch',
  gaugeUm: 'gauge',
  driveLinks: 'drive links',
  sequence: 'sequence',
  cutterType: 'cutters',
  firstHand: 'hand of cutter 1',
  newLengthUm: 'new cutter',
  markLengthUm: 'reading at the mark',
  settingUm: 'gauge setting',
  fileUm: 'file',
  topPlateAngleDeg: 'top plate angle',
  startMark: 'start mark',
}

/** A value of a spec in words. */
export function saySpecValue(values: Partial<SpecValues>, field: SpecField, lengths: LengthPreference): string {
  switch (field) {
    case 'pitchClass':
      return values.pitchClass === undefined ? '' : PITCH_PROFILES[values.pitchClass].name
    case 'sequence':
      return values.sequence === undefined ? '' : SEQUENCE_NAMES[values.sequence]
    case 'cutterType':
      return values.cutterType === undefined ? '' : CUTTER_TYPE_NAMES[values.cutterType]
    case 'topPlateAngleDeg':
      return `${values.topPlateAngleDeg ?? ''}°`
    case 'driveLinks':
    case 'firstHand':
    case 'startMark':
      return String(values[field] ?? '')
    case 'fileUm':
      return values.fileUm === undefined ? '' : writeFile(values.fileUm)
    case 'gaugeUm':
    case 'newLengthUm':
    case 'markLengthUm':
    case 'settingUm':
      return writeLength(values[field] ?? 0, lengths)
  }
}

/** One line that says what an entry was, for the log. */
export function sayEntry(entry: Entry, lengths: LengthPreference, sawName: (id: string) => string): string {
  switch (entry.kind) {
    case 'registered':
      return `Registered as ${entry.tag}: ${specLine(entry.spec)}`
    case 'specChanged': {
      const fields = Object.keys(entry.changes) as SpecField[]
      return `Spec: ${fields.map((field) => `${SPEC_FIELD_NAMES[field]} ${saySpecValue(entry.changes, field, lengths)}`).join(', ')}, ${ORIGIN_WORDS[entry.origin]}`
    }
    case 'retagged':
      return `New tag: ${entry.tag}`
    case 'fitted': {
      const done = [
        entry.barFlipped === true ? 'bar flipped' : '',
        entry.tensionChecked === true ? 'tension checked' : '',
      ].filter(Boolean)
      return `Put on ${[sawName(entry.sawId), ...done].join(', ')}${entry.overruled === undefined ? '' : `; overruled: ${entry.overruled}`}`
    }
    case 'takenOff':
      return entry.to === undefined ? 'Taken off' : `Taken off, to the ${SHELF_NAMES[entry.to]}`
    case 'moved':
      return `Moved to the ${SHELF_NAMES[entry.to]}`
    case 'sentOut':
      return `Sent to ${entry.shop}${entry.dueBackAt === undefined ? '' : `, due back ${entry.dueBackAt.slice(0, 10)}`}`
    case 'cameBack':
      return `Came back, to the ${SHELF_NAMES[entry.to]}${entry.costMinor === undefined ? '' : `; it cost ${(entry.costMinor / 100).toFixed(2)}`}`
    case 'ran':
      return `Ran ${count(entry.tanks, 'tank')} in ${CONDITION_WORDS[entry.conditions]}`
    case 'struck':
      return `Struck ${entry.against === 'unknown' ? 'something' : entry.against}${entry.cutters === undefined ? '' : ` at ${count(entry.cutters.length, 'cutter')}`}${entry.deepest === undefined ? '' : `, ${writeLength(entry.deepest.depthUm, lengths)} deep on cutter ${entry.deepest.cutter}`}`
    case 'measured':
      return `Measured: ${sayReadings(entry.readings)}`
    case 'sharpened': {
      const strokes =
        entry.strokes === undefined
          ? ''
          : entry.strokes.left === entry.strokes.right
            ? `, ${entry.strokes.left} strokes`
            : `, ${entry.strokes.left} strokes left and ${entry.strokes.right} right`
      return `Sharpened: ${SHARPEN_METHOD_NAMES[entry.method]}${strokes}${entry.gaugesLowered ? ', gauges lowered' : ''}${entry.wasDull === true ? ', it was dull' : ''}${entry.fileAge === undefined ? '' : `, ${entry.fileAge} file`}`
    }
    case 'gaugesLowered':
      return `Gauges lowered${entry.settingUm === undefined ? '' : ` to ${writeLength(entry.settingUm, lengths)}`}`
    case 'inspected': {
      const parts = entry.parts.map(({ kind }) => damageName(kind))
      return `Inspected: ${[...parts, sayReadings(entry.readings)].filter(Boolean).join('; ') || 'nothing found'}`
    }
    case 'retired':
      return `Retired: ${entry.reason}`
    case 'dutyChanged':
      return entry.duty === 'dirty' ? 'Kept for dirty work from now on' : 'Back to clean work'
    case 'decided':
      return entry.overruled === undefined
        ? `Settled: ${ACTION_WORDS[entry.action].toLowerCase()}`
        : `Overruled: ${ACTION_WORDS[entry.action].toLowerCase()} instead of ${ACTION_WORDS[entry.advised].toLowerCase()}; ${entry.overruled}`
    case 'corrected':
      return 'Struck an entry out'
  }
}
