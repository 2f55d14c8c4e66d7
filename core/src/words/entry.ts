import type { CutterReading, Entry, EntryKind, EntryOf, KnownBite, PlateUsed, UsedBefore } from '../log'
import { specLine, type SpecField } from '../profile'
import { writeLength, writeMoney } from '../units'
import { actionInWords } from './actions'
import { damageName } from './damage'
import type { Figures } from './figures'
import { SHELF_NAMES } from './places'
import { ORIGIN_WORDS, saySpecValue, SPEC_FIELD_NAMES } from './spec'
import { CAUSE_NAMES, LOOK_NAMES, sayCauses, saySigns } from './signs'
import { capital, plural } from './text'
import { TOOL_NAMES } from './sharpening'
import { CONDITION_WORDS, FILE_AGE_WORDS, METHOD_WORDS, READ_WITH_WORDS } from './work'

/** What the sentences of a log need besides the entry. */
interface Told {
  readonly figures: Figures
  readonly sawName: (id: string) => string
}

const sayStroke = ({ strokeUm }: KnownBite, { lengths }: Figures): string => writeLength(Math.round(strokeUm), lengths)

/** What is said, one thing after the other, without what is empty. */
const listed = (parts: readonly string[], between = ', '): string => parts.filter((part) => part !== '').join(between)

function sayReadings(readings: readonly CutterReading[]): string {
  const lengths = readings.filter(({ lengthUm }) => lengthUm !== undefined).length
  const settings = readings.filter(({ settingUm }) => settingUm !== undefined).length
  const angles = readings.filter(({ angleDeg }) => angleDeg !== undefined).length
  const damaged = readings.filter(({ damage }) => (damage?.length ?? 0) > 0)
  const kinds = [...new Set(damaged.flatMap(({ damage = [] }) => damage.map(({ kind }) => damageName(kind))))]
  return listed(
    [
      lengths > 0 ? `${plural(lengths, 'cutter')} read` : '',
      settings > 0 ? `${plural(settings, 'gauge')} read` : '',
      angles > 0 ? `${plural(angles, 'angle')} read` : '',
      damaged.length > 0 ? `${kinds.join(', ')} on ${plural(damaged.length, 'cutter')}` : '',
    ],
    '; ',
  )
}

function sayStrokes(strokes: EntryOf<'sharpened'>['strokes']): string {
  if (strokes === undefined) return ''
  return strokes.left === strokes.right
    ? `${strokes.left} strokes`
    : `${strokes.left} strokes left and ${strokes.right} right`
}

/** Half the width of what was said to be left. */
const wide = ({ withinUm }: UsedBefore, { lengths }: Figures): string =>
  withinUm === undefined ? '' : `, give or take ${writeLength(withinUm, lengths)}`
const withTool = (tool: EntryOf<'begun'>['tool']): string => (tool === undefined ? '' : `, ${TOOL_NAMES[tool]}`)

const STEP_WORDS = { softer: 'softer step', standard: 'plain step', harder: 'harder step' } as const

/** How gauges were lowered: to a setting that was read, or by which plate. */
function sayLowered(
  {
    settingUm,
    plate,
    gaugesByEye,
  }: {
    readonly gaugesByEye?: boolean | undefined
    readonly settingUm?: number | undefined
    readonly plate?: PlateUsed | undefined
  },
  { lengths }: Figures,
): string {
  if (gaugesByEye === true) return ' by eye'
  if (settingUm !== undefined) return ` to ${writeLength(settingUm, lengths)}`
  if (plate === undefined) return ''
  return plate.rests === 'progressive' ? `, by the plate, ${STEP_WORDS[plate.step ?? 'standard']}` : ', by the plate'
}

/** One line for every kind of entry: a new kind is not written before it has its words. */
const ENTRY_WORDS: { readonly [K in EntryKind]: (entry: EntryOf<K>, told: Told) => string } = {
  registered: ({ tag, spec, knownBite, used }, { figures }) =>
    listed(
      [
        `Registered as ${tag}: ${specLine(spec)}`,
        used === undefined
          ? ''
          : used.aboutUm === undefined
            ? 'used before'
            : `used before, about ${writeLength(used.aboutUm, figures.lengths)} left by eye${wide(used, figures)}`,
        knownBite === undefined ? '' : `a stroke taken at ${sayStroke(knownBite, figures)}, as on the loops before it`,
      ],
      '; ',
    ),
  specChanged: ({ changes, origin }, { figures }) => {
    const fields = Object.keys(changes) as SpecField[]
    const said = fields.map((field) => `${SPEC_FIELD_NAMES[field]} ${saySpecValue(changes, field, figures.lengths)}`)
    return `Spec: ${said.join(', ')}, ${ORIGIN_WORDS[origin]}`
  },
  retagged: ({ tag }) => `New tag: ${tag}`,
  fitted: ({ sawId, barFlipped, tensionChecked, overruled }, { sawName }) => {
    const done = [barFlipped === true ? 'bar flipped' : '', tensionChecked === true ? 'tension checked' : '']
    const said = `Put on ${listed([sawName(sawId), ...done])}`
    return overruled === undefined ? said : `${said}; overruled: ${overruled}`
  },
  takenOff: ({ to }) => (to === undefined ? 'Taken off' : `Taken off, to the ${SHELF_NAMES[to]}`),
  moved: ({ to }) => `Moved to the ${SHELF_NAMES[to]}`,
  sentOut: ({ shop, dueBackAt }) =>
    listed([`Sent to ${shop}`, dueBackAt === undefined ? '' : `due back ${dueBackAt.slice(0, 10)}`]),
  cameBack: ({ to, costMinor }, { figures }) => {
    const cost = costMinor === undefined ? '' : `it cost ${writeMoney(costMinor, figures.currency)}`
    return listed([`Came back, to the ${SHELF_NAMES[to]}`, cost], '; ')
  },
  ran: ({ tanks, conditions }) => `Ran ${plural(tanks, 'tank')} in ${CONDITION_WORDS[conditions]}`,
  struck: ({ against, cutters, deepest }, { figures }) => {
    const what = `Struck ${against === 'unknown' ? 'something' : against}`
    const where = cutters === undefined ? what : `${what} at ${plural(cutters.length, 'cutter')}`
    if (deepest === undefined) return where
    return `${where}, ${writeLength(deepest.depthUm, figures.lengths)} deep on cutter ${deepest.cutter}`
  },
  measured: ({ readings, readWith = 'caliper' }) => `${READ_WITH_WORDS[readWith]}: ${sayReadings(readings)}`,
  sharpened: (
    {
      method,
      tool,
      strokes,
      onlySide,
      evened,
      stopChecked,
      stopUm,
      gaugesLowered,
      gaugesByEye,
      settingUm,
      plate,
      angleDeg,
      wasDull,
      fileAge,
      minutes,
    },
    { figures },
  ) =>
    `Sharpened: ${listed([
      tool === undefined ? METHOD_WORDS[method] : TOOL_NAMES[tool],
      onlySide === undefined ? '' : `the ${onlySide} side only`,
      sayStrokes(strokes),
      stopUm === undefined ? '' : `to a stop at ${writeLength(stopUm, figures.lengths)}`,
      evened === true ? 'all down to the shortest' : '',
      stopChecked === true ? 'the stop checked at the turn' : '',
      tool === 'twoInOne'
        ? 'gauges with every stroke'
        : gaugesLowered
          ? `gauges lowered${sayLowered({ settingUm, plate, gaugesByEye }, figures)}`
          : '',
      angleDeg === undefined ? '' : `at ${angleDeg}°`,
      wasDull === true ? 'it was dull' : '',
      fileAge === undefined ? '' : FILE_AGE_WORDS[fileAge],
      minutes === undefined ? '' : plural(Math.max(1, Math.round(minutes)), 'minute'),
    ])}`,
  gaugesLowered: (entry, { figures }) => `Gauges lowered${sayLowered(entry, figures)}`,
  begun: ({ side, tool }) =>
    `Sharpening begun with the ${side} side${withTool(tool)}: until both are done it stays off`,
  noticed: (entry) => `Noticed: ${saySigns(entry)}`,
  looked: ({ look, found }) =>
    `${capital(LOOK_NAMES[look])}: ${found.length === 0 ? 'nothing wrong' : sayCauses(found)}`,
  traced: ({ cause }) => `Traced to: ${cause === null ? 'nothing found' : CAUSE_NAMES[cause]}`,
  inspected: ({ parts, readings }) => {
    const found = listed([...parts.map(({ kind }) => damageName(kind)), sayReadings(readings)], '; ')
    return `Inspected: ${found === '' ? 'nothing found' : found}`
  },
  retired: ({ reason }) => `Retired: ${reason}`,
  dutyChanged: ({ duty }) => (duty === 'dirty' ? 'Kept for dirty work from now on' : 'Back to clean work'),
  decided: ({ action, advised, overruled }) =>
    overruled === undefined
      ? `Settled: ${actionInWords(action)}`
      : `Overruled: ${actionInWords(action)} instead of ${actionInWords(advised)}; ${overruled}`,
  corrected: () => 'Struck an entry out',
}

/**
 * One line that says what an entry was, for the log.
 *
 * @param sawName what the crew calls a saw
 * @example
 * sayEntry({ ...base, kind: 'ran', tanks: 2, conditions: 'soil' }, figures, sawName) // 'Ran 2 tanks in soil'
 */
export function sayEntry(entry: Entry, figures: Figures, sawName: (id: string) => string): string {
  const say = ENTRY_WORDS[entry.kind] as (entry: Entry, told: Told) => string
  return say(entry, { figures, sawName })
}
