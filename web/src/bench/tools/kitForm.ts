import {
  fromMm,
  readLength,
  writeMm,
  type KitItem,
  type KitKind,
  type PitchClass,
  type SharpeningTool,
  type Um,
} from '@undercliff/core'

/** What is typed of a thing of the kit, as text and choices; only what its kind asks is read. */
export interface KitDraft {
  name: string
  fileUm: Um
  left: string
  lowAt: string
  widthUm: Um
  markedRpm: string
  grinder: 'benchGrinder' | 'smallGrinder' | 'handGrinder'
  spindleRpm: string
  angles: string
  guide: Exclude<SharpeningTool, KitDraft['grinder'] | 'freehand'>
  serves: PitchClass[]
  lines: string
  rests: 'constant' | 'progressive'
  steps: string
  readsUm: Um
  sends: 'nothing' | 'typed' | 'serial'
  where: 'bench' | 'stump'
}

const EMPTY: KitDraft = {
  name: '',
  fileUm: fromMm(5.2),
  left: '6',
  lowAt: '2',
  widthUm: fromMm(4.7),
  markedRpm: '',
  grinder: 'benchGrinder',
  spindleRpm: '',
  angles: '',
  guide: 'plateGuide',
  serves: [],
  lines: '',
  rests: 'constant',
  steps: '0.65',
  readsUm: 10,
  sends: 'nothing',
  where: 'bench',
}

/** Diameters of round files, and widths of wheels, that the trade has. */
export const FILES_UM = [4, 4.5, 4.8, 5.2, 5.5].map(fromMm)
export const WHEELS_UM = [3.2, 4.7, 4.8, 6].map(fromMm)

/** What the form begins with: a thing as it is, or nothing yet. */
export function draftOf(item: KitItem | null): KitDraft {
  if (item === null) return { ...EMPTY, serves: [] }
  const draft: KitDraft = { ...EMPTY, serves: [], name: item.name }
  switch (item.kind) {
    case 'file':
      return { ...draft, fileUm: item.fileUm }
    case 'stock':
      return { ...draft, fileUm: item.fileUm, left: String(item.left), lowAt: String(item.lowAt) }
    case 'wheel':
      return { ...draft, widthUm: item.widthUm, markedRpm: String(item.markedRpm ?? '') }
    case 'grinder':
      return {
        ...draft,
        grinder: item.tool,
        spindleRpm: String(item.spindleRpm ?? ''),
        angles: (item.anglesDeg ?? []).join(', '),
      }
    case 'guide':
      return { ...draft, guide: item.tool, serves: [...item.serves], lines: (item.linesDeg ?? []).join(', ') }
    case 'plate':
      return { ...draft, rests: item.rests, steps: item.stepsUm.map((um) => writeMm(um, 2)).join(', ') }
    case 'caliper':
      return { ...draft, readsUm: item.readsUm, sends: item.sends }
    case 'vise':
      return { ...draft, where: item.where }
  }
}

const whole = (text: string): number | null => (/^\d{1,5}$/.test(text.trim()) ? Number(text) : null)
/** Settings of gauge plates that can be: anything else is a slip. */
const STEP = { least: 200, most: 1500 } as const

function stepsOf(text: string, unit: 'mm' | 'inch'): Um[] | string {
  const parts = text.split(/[;,]\s+|\s+and\s+|;/).filter((part) => part.trim() !== '')
  const read: Um[] = []
  for (const part of parts) {
    const one = readLength(part, unit)
    if (!one.ok || one.um < STEP.least || one.um > STEP.most)
      return `“${part.trim()}” is no setting of a gauge plate; 0.65 is one.`
    read.push(one.um)
  }
  return read.length === 0 ? 'Say what the plate is set to, such as 0.65.' : read
}

function speedOf(text: string, whose: string): { readonly rpm?: number } | string {
  if (text.trim() === '') return {}
  const rpm = whole(text)
  return rpm === null || rpm < 100 || rpm > 50_000
    ? `${whose} is turns a minute, such as 3400; it stands on it.`
    : { rpm }
}

/** The angles of a clamp, or the lines of a guide, degrees; none where nobody said any. */
function anglesOf(text: string, whose: string): number[] | string {
  const parts = text.split(/[;/\s]+|,\s+|,(?=\d{2})|\band\b|\bor\b|°/).filter((part) => part !== '')
  const read = parts.map((part) => (/^\d{1,2}([.,]\d)?$/.test(part) ? Number(part.replace(',', '.')) : NaN))
  const odd = read.findIndex((deg) => !(deg <= 60))
  return odd < 0 ? read : `“${parts[odd] ?? ''}” is no angle of ${whose}: 60° at most, such as 25, 30.`
}

type Body<T> = T extends KitItem ? Omit<T, 'id' | 'version' | 'name'> : never
/** What a kind says of itself, as it is kept. */
export type KitBody = Body<KitItem>

/** The figures of a kind, or the sentence that says what is wrong with one. */
// eslint-disable-next-line complexity -- a kind after the other, each with its own figures
export function bodyOf(kind: KitKind, draft: KitDraft, before: KitItem | null, unit: 'mm' | 'inch'): KitBody | string {
  switch (kind) {
    case 'file':
      return {
        kind,
        fileUm: draft.fileUm,
        openedAt: before?.kind === 'file' ? before.openedAt : new Date().toISOString(),
      }
    case 'stock': {
      const [left, lowAt] = [whole(draft.left), whole(draft.lowAt)]
      return left === null || lowAt === null
        ? 'How many there are is a whole number.'
        : { kind, fileUm: draft.fileUm, left, lowAt }
    }
    case 'wheel': {
      const speed = speedOf(draft.markedRpm, 'The marked speed')
      if (typeof speed === 'string') return speed
      const kept = before?.kind === 'wheel' ? before : undefined
      return {
        kind,
        widthUm: draft.widthUm,
        ...(speed.rpm === undefined ? {} : { markedRpm: speed.rpm }),
        ...(kept?.rungAt === undefined ? {} : { rungAt: kept.rungAt }),
        ...(kept?.dressedAt === undefined ? {} : { dressedAt: kept.dressedAt }),
        ...(kept?.glazed === undefined ? {} : { glazed: kept.glazed }),
        ...(kept?.diameterUm === undefined ? {} : { diameterUm: kept.diameterUm }),
      }
    }
    case 'grinder': {
      const speed = speedOf(draft.spindleRpm, 'The speed of the spindle')
      if (typeof speed === 'string') return speed
      const angles = anglesOf(draft.angles, 'a clamp')
      if (typeof angles === 'string') return angles
      const set = before?.kind === 'grinder' && before.set !== undefined ? { set: before.set } : {}
      return {
        kind,
        tool: draft.grinder,
        ...(speed.rpm === undefined ? {} : { spindleRpm: speed.rpm }),
        ...(angles.length === 0 ? {} : { anglesDeg: angles }),
        ...set,
      }
    }
    case 'guide': {
      const lines = anglesOf(draft.lines, 'a guide')
      if (typeof lines === 'string') return lines
      return { kind, tool: draft.guide, serves: draft.serves, ...(lines.length === 0 ? {} : { linesDeg: lines }) }
    }
    case 'plate': {
      const stepsUm = stepsOf(draft.steps, unit)
      return typeof stepsUm === 'string' ? stepsUm : { kind, rests: draft.rests, stepsUm }
    }
    case 'caliper':
      return { kind, readsUm: draft.readsUm, sends: draft.sends }
    case 'vise':
      return { kind, where: draft.where }
  }
}
