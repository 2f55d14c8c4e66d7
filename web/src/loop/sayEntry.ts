import {
  damageName,
  SHARPEN_METHOD_NAMES,
  specLine,
  writeLength,
  type CutterReading,
  type Entry,
  type LengthPreference,
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

/** One line that says what an entry was, for the log. */
export function sayEntry(entry: Entry, lengths: LengthPreference, sawName: (id: string) => string): string {
  switch (entry.kind) {
    case 'registered':
      return `Registered as ${entry.tag}: ${specLine(entry.spec)}`
    case 'fitted':
      return `Put on ${sawName(entry.sawId)}${entry.barFlipped === true ? ', bar flipped' : ''}`
    case 'takenOff':
      return 'Taken off'
    case 'ran':
      return `Ran ${count(entry.tanks, 'tank')} in ${CONDITION_WORDS[entry.conditions]}`
    case 'struck':
      return `Struck ${entry.against === 'unknown' ? 'something' : entry.against}${entry.cutters === undefined ? '' : ` at ${count(entry.cutters.length, 'cutter')}`}`
    case 'measured':
      return `Measured: ${sayReadings(entry.readings)}`
    case 'sharpened': {
      const strokes = entry.strokes === undefined ? '' : entry.strokes.left === entry.strokes.right ? `, ${entry.strokes.left} strokes` : `, ${entry.strokes.left} strokes left and ${entry.strokes.right} right`
      return `Sharpened: ${SHARPEN_METHOD_NAMES[entry.method]}${strokes}${entry.gaugesLowered ? ', gauges lowered' : ''}`
    }
    case 'gaugesLowered':
      return `Gauges lowered${entry.settingUm === undefined ? '' : ` to ${writeLength(entry.settingUm, lengths)}`}`
    case 'inspected': {
      const parts = entry.parts.map(({ kind }) => damageName(kind))
      return `Inspected: ${[...parts, sayReadings(entry.readings)].filter(Boolean).join('; ') || 'nothing found'}`
    }
    case 'retired':
      return `Retired: ${entry.reason}`
    case 'corrected':
      return 'Struck an entry out'
  }
}
