import type { KitDue, KitGone, KitItem, KitItemOf, KitKind, KitUsage } from '../kit'
import { PITCH_PROFILES } from '../profile'
import { writeLength, writeMm } from '../units'
import type { Figures } from './figures'
import { TOOL_NAMES } from './sharpening'
import { plural } from './text'

/** What the kinds of things of a kit are called. */
export const KIT_KIND_WORDS: Readonly<Record<KitKind, { readonly one: string; readonly all: string }>> = {
  file: { one: 'a file in use', all: 'Files in use' },
  stock: { one: 'unopened files', all: 'Unopened files' },
  wheel: { one: 'a wheel', all: 'Wheels' },
  grinder: { one: 'a grinder', all: 'Grinders' },
  guide: { one: 'a guide or jig', all: 'Guides and jigs' },
  plate: { one: 'a gauge plate', all: 'Gauge plates' },
  caliper: { one: 'a caliper', all: 'Calipers' },
  vise: { one: 'a vise', all: 'Vises' },
}

/** What a thing of the kit calls for. */
export const KIT_DUE_WORDS: Readonly<Record<KitDue, string>> = {
  usedUp: 'Has done its work: it scrapes. Take a fresh one',
  low: 'Few are left: get more',
  dress: 'Glazed: dress it before the next cutter',
  ring: 'Hang it and tap it: a clear ring, or it is not mounted',
  speed: 'Read the speed that is marked on it, and write it down here',
}

/** Why a thing is there no more. */
export const KIT_GONE_WORDS: Readonly<Record<KitGone, string>> = {
  usedUp: 'used up',
  broken: 'broken',
  lost: 'lost',
}

const rpm = (turns: number | undefined): string => (turns === undefined ? 'speed not read' : `${turns} a minute`)

const sayWheel = ({ widthUm, diameterUm, markedRpm }: KitItemOf<'wheel'>): string =>
  [
    `${writeMm(widthUm, 1)} wide`,
    diameterUm === undefined ? '' : `${writeMm(diameterUm, 0)} across`,
    markedRpm === undefined ? 'marked speed not read' : `marked ${rpm(markedRpm)}`,
  ]
    .filter(Boolean)
    .join(', ')

function sayGuide({ tool, serves, linesDeg }: KitItemOf<'guide'>): string {
  const pitches = serves.map((pitch) => PITCH_PROFILES[pitch].name).join(', ')
  const lines = linesDeg === undefined ? '' : `, lines at ${linesDeg.join('°, ')}°`
  return `${TOOL_NAMES[tool]}${pitches === '' ? '' : `, for ${pitches}`}${lines}`
}

/**
 * What a thing of the kit is, in a line.
 *
 * @example
 * sayKitItem({ id: 'kit-vise', name: 'Vise', version: 1, kind: 'vise', where: 'stump' }, figures)
 * // 'for stump and tailgate'
 */
export function sayKitItem(item: KitItem, { lengths }: Figures): string {
  switch (item.kind) {
    case 'file':
      return writeMm(item.fileUm, 1)
    case 'stock':
      return `${writeMm(item.fileUm, 1)}, ${item.left} left`
    case 'wheel':
      return sayWheel(item)
    case 'grinder': {
      const set = item.set === undefined ? '' : `, set to ${item.set.angleDeg}°, table ${item.set.downDeg}°`
      const angles = item.anglesDeg === undefined ? '' : `, clamp ${item.anglesDeg.join(' or ')}°`
      return `${TOOL_NAMES[item.tool]}, spindle ${rpm(item.spindleRpm)}${angles}${set}`
    }
    case 'guide':
      return sayGuide(item)
    case 'plate': {
      const steps = item.stepsUm.map((um) => writeLength(um, lengths)).join(' and ')
      return `${steps}, ${item.rests === 'constant' ? 'one setting for life' : 'the setting grows with wear'}`
    }
    case 'caliper':
      return `reads to ${writeLength(item.readsUm, lengths)}${item.sends === 'nothing' ? '' : ', sends what it reads'}`
    case 'vise':
      return item.where === 'bench' ? 'on the bench' : 'for stump and tailgate'
  }
}

/** Bite nearer to the usual than this is said to be usual. */
const AS_USUAL = 0.05

/**
 * What a file or a wheel has done, of how much such things do, and how it bites. Empty for what is not used up.
 *
 * @param lasts how much such a thing does on this crew
 * @example
 * sayKitUse({ kind: 'file' }, { id: 'f', used: 840, sharpenings: 5, lastAt: null, bite: 0.9, told: 0 }, 2000)
 * // '840 of about 2000 strokes; a stroke takes about 10 % less than usual, by its age'
 */
export function sayKitUse({ kind }: Pick<KitItem, 'kind'>, { used, bite, told }: KitUsage, lasts: number): string {
  if (kind === 'wheel') return `${plural(used, 'loop')} of about ${Math.round(lasts)}`
  if (kind !== 'file') return ''
  const strokes = `${used} of about ${Math.round(lasts / 50) * 50} strokes`
  if (Math.abs(bite - 1) < AS_USUAL) return `${strokes}; bites as usual`
  const part = Math.round(Math.abs(bite - 1) * 100)
  const by = told === 0 ? 'by its age' : `by ${plural(told, 'reading')}`
  return `${strokes}; a stroke takes about ${part} % ${bite > 1 ? 'more' : 'less'} than usual, ${by}`
}
