import { sameName } from '../names'
import { checkLength } from '../measure'
import { fitCheck, type FitSpec } from '../fit'
import { fileFit } from '../geometry'
import type { NewEntry } from '../log'
import { changedSpec, specFromProfile, specLine, type LoopSpec, type SpecValues } from '../profile'
import type { SawFit } from '../saw'
import { freshTag } from '../tag'
import { writeMm } from '../units'
import { IMPORT_FIELD_NAMES, NEEDED_FIELDS, type ColumnMatch, type ImportField } from './columns'
import {
  cleanCell,
  readCutterTypeCell,
  readDriveLinksCell,
  readGaugeCell,
  readLengthCell,
  readPitchCell,
  readPlaceCell,
  readSequenceCell,
  readStartMarkCell,
  type Cell,
} from './readCells'

/** A saw that is there already or is made by the import. */
export interface ImportSaw extends SawFit {
  readonly id: string
  readonly nickname: string
}

/** What the import needs to know of the shed and of this moment. */
export interface ImportContext {
  readonly tags: readonly string[]
  readonly saws: readonly ImportSaw[]
  /** Saws that have a loop on them. */
  readonly takenSawIds: readonly string[]
  readonly unit: 'mm' | 'inch'
  /** How many columns have a heading. */
  readonly columns: number
  readonly now: string
  readonly newId: () => string
  readonly random: () => number
}

/** What becomes of one row. */
export interface RowFate {
  /** Number of the row in the sheet, the headings being row 1. */
  readonly row: number
  readonly fate: 'add' | 'wrong' | 'blank'
  readonly tag: string
  /** The loop in one line; empty when it cannot be read. */
  readonly loop: string
  readonly doubts: readonly string[]
  readonly problems: readonly string[]
}

/** Everything that an import would do. Nothing is written by making it. */
export interface ImportPlan {
  readonly rows: readonly RowFate[]
  readonly saws: readonly ImportSaw[]
  readonly entries: readonly NewEntry[]
  readonly counts: { readonly add: number; readonly wrong: number; readonly blank: number; readonly doubtful: number }
}

/** A file no thicker than this speaks for low profile, whose own is 4 mm. Starting value. */
const LOW_FILE_UM = 4200
const TAG = /^[\p{L}\p{N}][\p{L}\p{N} ._-]*$/u
const LONGEST_TAG = 12
const LONGEST_NOTE = 2000
const LONGEST_NICKNAME = 40
const PROGRESS_EVERY = 250

/** Gathers what is in doubt and what is wrong in a row. */
class Findings {
  readonly doubts: string[] = []
  readonly problems: string[] = []

  value<T>(cell: Cell<T>): T | undefined {
    if (!cell.ok) {
      this.problems.push(cell.message)
      return undefined
    }
    if (cell.doubt !== undefined) this.doubts.push(cell.doubt)
    return cell.value
  }
}

type Texts = Record<ImportField, string>

/** What a loop cannot be without. */
type Named = Pick<SpecValues, 'pitchClass' | 'gaugeUm' | 'driveLinks' | 'cutterType' | 'sequence'>

const isWhole = (named: { [F in keyof Named]: Named[F] | undefined }): named is Named =>
  Object.values(named).every((value) => value !== undefined)

/** What of a row's lengths no chain or file has, in one sentence; null when all can be. */
function lengthTrouble({ newLengthUm, fileUm }: Partial<SpecValues>): string | null {
  if (newLengthUm !== undefined && (newLengthUm < 1000 || newLengthUm > 20_000))
    return `No cutter is ${writeMm(newLengthUm)} long when new.`
  if (fileUm !== undefined && (fileUm < 2000 || fileUm > 10_000)) return `No file is ${writeMm(fileUm)} thick.`
  return null
}

class Planner {
  readonly rows: RowFate[] = []
  readonly saws: ImportSaw[] = []
  readonly entries: NewEntry[] = []
  private readonly tags: Set<string>
  private readonly upperTags: Set<string>
  private readonly taken: Set<string>

  constructor(
    private readonly match: ColumnMatch,
    private readonly context: ImportContext,
  ) {
    this.tags = new Set(context.tags)
    this.upperTags = new Set(context.tags.map((tag) => tag.toUpperCase()))
    this.taken = new Set(context.takenSawIds)
  }

  private texts(cells: readonly string[], found: Findings): Texts {
    const texts = {} as Texts
    for (const field of Object.keys(IMPORT_FIELD_NAMES) as ImportField[]) {
      const column = this.match[field]
      const { text, changed } = cleanCell(column === undefined ? '' : (cells[column] ?? ''))
      if (changed) found.doubts.push(`${IMPORT_FIELD_NAMES[field]}: control characters were taken out.`)
      texts[field] = text
    }
    return texts
  }

  private spec(texts: Texts, found: Findings): LoopSpec | null {
    const { unit } = this.context
    const cutterType = found.value(readCutterTypeCell(texts.cutterType))
    const gaugeUm = found.value(readGaugeCell(texts.gauge, unit))
    const fileUm = found.value(readLengthCell(texts.file, unit))
    const low = cutterType === 'chipper' || (fileUm != null && fileUm <= LOW_FILE_UM) || gaugeUm === 1100
    const pitchClass = found.value(readPitchCell(texts.pitch, low))
    const driveLinks = found.value(readDriveLinksCell(texts.driveLinks))
    const sequence = found.value(readSequenceCell(texts.sequence))
    const newLengthUm = found.value(readLengthCell(texts.newLength, unit))
    const startMark = found.value(readStartMarkCell(texts.startMark))
    const named = { pitchClass, gaugeUm, driveLinks, cutterType, sequence }
    if (!isWhole(named)) return null
    const said: Partial<SpecValues> = {
      ...(fileUm == null ? {} : { fileUm }),
      ...(newLengthUm == null ? {} : { newLengthUm }),
      ...(startMark == null ? {} : { startMark }),
    }
    const wrong = lengthTrouble(said)
    if (wrong !== null) {
      found.problems.push(wrong)
      return null
    }
    const { fileUm: file, ...rest } = said
    const suits = file === undefined || cutterType === 'squareGround' || fileFit(named, file) === 'fits'
    if (!suits) found.doubts.push(`No file for this pitch is ${writeMm(file, 1)}: left out, check it on the loop.`)
    const own = suits ? said : rest
    return changedSpec(specFromProfile(named), own, 'crew')
  }

  private tag(text: string, found: Findings): string {
    if (text === '') {
      const made = freshTag(this.tags, this.context.random()) ?? ''
      if (made === '') found.problems.push('There is no tag, and none is left to make.')
      else found.doubts.push(`No tag: ${made} was made for it.`)
      return made
    }
    if (text.length > LONGEST_TAG || !TAG.test(text))
      found.problems.push(`"${text.slice(0, 40)}" cannot be a tag: up to ${LONGEST_TAG} letters and digits.`)
    else if (this.tags.has(text) || this.upperTags.has(text.toUpperCase()))
      found.problems.push(`The tag ${text} is taken.`)
    return text
  }

  /** The saw with a nickname; one that is not known is made to take this loop. */
  private saw(nickname: string, spec: FitSpec, found: Findings): ImportSaw | null {
    if (nickname === '') return null
    if (nickname.length > LONGEST_NICKNAME) {
      found.problems.push(`A saw's name has at most ${LONGEST_NICKNAME} characters.`)
      return null
    }
    const known = [...this.context.saws, ...this.saws].find((saw) => sameName(saw.nickname, nickname))
    if (known !== undefined) return known
    found.doubts.push(`No saw is called ${nickname}: one is added that takes ${specLine(spec)}.`)
    const { pitchClass, gaugeUm, driveLinks } = spec
    return { id: this.context.newId(), nickname, pitchClass, gaugeUm, driveLinks }
  }

  plan(cells: readonly string[], row: number): void {
    const found = new Findings()
    if (cells.every((cell) => cell.trim() === '')) {
      this.rows.push({ row, fate: 'blank', tag: '', loop: '', doubts: [], problems: [] })
      return
    }
    this.checkWidth(cells, found)
    const texts = this.texts(cells, found)
    const tag = this.tag(texts.tag, found)
    const spec = this.spec(texts, found)
    const lengthUm = found.value(readLengthCell(texts.length, this.context.unit)) ?? null
    const place = found.value(readPlaceCell(texts.place)) ?? null
    const saw = spec === null ? null : this.saw(texts.saw, spec, found)
    if (spec !== null && lengthUm !== null) this.checkLength(spec, lengthUm, found)
    if (place === 'saw' && spec !== null) this.checkSaw(tag, spec, saw, found)
    const fate = found.problems.length > 0 ? 'wrong' : 'add'
    const loop = spec === null ? '' : specLine(spec)
    this.rows.push({ row, fate, tag, loop, doubts: found.doubts, problems: found.problems })
    if (fate === 'wrong' || spec === null) return
    this.take(tag, saw, place)
    this.write(tag, spec, lengthUm, place, saw, texts.note.slice(0, LONGEST_NOTE))
  }

  private checkWidth(cells: readonly string[], found: Findings): void {
    const beyond = cells.slice(this.context.columns).filter((cell) => cell.trim() !== '').length
    if (beyond === 0) return
    const more = `${beyond} ${beyond === 1 ? 'cell' : 'cells'}`
    found.problems.push(`It has ${more} more than there are headings: a comma too many?`)
  }

  private checkLength(spec: LoopSpec, lengthUm: number, found: Findings): void {
    if (checkLength(spec, lengthUm, null).ok)
      found.doubts.push('Length now is taken for cutter 1: the sheet does not say which it was.')
    else found.problems.push(`${writeMm(lengthUm)} is longer than a new cutter (${writeMm(spec.newLengthUm)}).`)
  }

  /** The tag and the saw are taken for the rows that follow. */
  private take(tag: string, saw: ImportSaw | null, place: string | null): void {
    this.tags.add(tag)
    this.upperTags.add(tag.toUpperCase())
    if (saw === null) return
    if (![...this.context.saws, ...this.saws].includes(saw)) this.saws.push(saw)
    if (place === 'saw') this.taken.add(saw.id)
  }

  private checkSaw(tag: string, spec: FitSpec, saw: ImportSaw | null, found: Findings): void {
    if (saw === null) {
      found.problems.push('It is on a saw, and the sheet does not say on which.')
      return
    }
    if (this.taken.has(saw.id)) found.problems.push(`Another loop is on ${saw.nickname}.`)
    const { level, parts } = fitCheck(spec, saw)
    const reasons = parts
      .filter((one) => one.level === level)
      .map(({ reason }) => reason)
      .join('; ')
    if (level === 'mustNot') found.problems.push(`${tag} must not be on ${saw.nickname}: ${reasons}.`)
    else if (level === 'but') found.doubts.push(`On ${saw.nickname}, but ${reasons}.`)
  }

  private write(
    tag: string,
    spec: LoopSpec,
    lengthUm: number | null,
    place: string | null,
    saw: ImportSaw | null,
    note: string,
  ): void {
    const { now, newId } = this.context
    const loopId = newId()
    const base = () => ({ id: newId(), loopId, happenedAt: now, personId: null })
    const said = note === '' ? {} : { note }
    this.entries.push({ ...base(), kind: 'registered', tag, spec, ...said })
    if (lengthUm !== null) {
      this.entries.push({
        ...base(),
        kind: 'measured',
        readings: [{ cutter: 1, lengthUm }],
        note: 'From a spreadsheet; which cutter it was is not known',
      })
    }
    switch (place) {
      case null:
      case 'bench':
        return
      case 'saw':
        if (saw === null) return
        this.entries.push({
          ...base(),
          kind: 'fitted',
          sawId: saw.id,
          ...(fitCheck(spec, saw).level === 'but' ? { overruled: 'As it was found' } : {}),
        })
        return
      case 'shop':
        this.entries.push({ ...base(), kind: 'sentOut', shop: 'A shop' })
        return
      case 'retired':
        this.entries.push({ ...base(), kind: 'retired', reason: 'other' })
        return
      case 'truck':
      case 'sharpRack':
      case 'dullBox':
        this.entries.push({ ...base(), kind: 'moved', to: place })
    }
  }
}

/** Fields that a match lacks and no row can do without. */
export const missingFields = (match: ColumnMatch): ImportField[] =>
  NEEDED_FIELDS.filter((field) => match[field] === undefined)

/**
 * What an import of these rows would do: every row's fate and every doubt. Nothing is written.
 *
 * @param rows cells of every row below the headings
 * @param onProgress called now and then with how many rows are done
 * @throws RangeError when a field that is needed has no column
 * @example
 * planImport([['K9', '3/8', '1.5', '72']], { tag: 0, pitch: 1, gauge: 2, driveLinks: 3 }, context).counts.add // 1
 */
export function planImport(
  rows: readonly (readonly string[])[],
  match: ColumnMatch,
  context: ImportContext,
  onProgress?: (done: number) => void,
): ImportPlan {
  const missing = missingFields(match)
  if (missing.length > 0)
    throw new RangeError(`No column is matched to: ${missing.map((field) => IMPORT_FIELD_NAMES[field]).join(', ')}.`)
  const planner = new Planner(match, context)
  rows.forEach((cells, i) => {
    planner.plan(cells, i + 2)
    if ((i + 1) % PROGRESS_EVERY === 0) onProgress?.(i + 1)
  })
  const count = (fate: RowFate['fate']): number => planner.rows.filter((row) => row.fate === fate).length
  return {
    rows: planner.rows,
    saws: planner.saws,
    entries: planner.entries,
    counts: {
      add: count('add'),
      wrong: count('wrong'),
      blank: count('blank'),
      doubtful: planner.rows.filter(({ fate, doubts }) => fate === 'add' && doubts.length > 0).length,
    },
  }
}
