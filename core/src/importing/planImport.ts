import { fitCheck, type FitLevel, type SawWear } from '../fit'
import { fold } from '../fold'
import type { HouseRules } from '../house'
import { asWritten, type NewEntry, type StrikeObject } from '../log'
import { nameLook } from '../names'
import { specLine, type LoopSpec } from '../profile'
import type { SawFit } from '../saw'
import { freshTag } from '../tag'
import { writeMm } from '../units'
import { decide } from '../verdict'
import { CUTTER_TYPE_NAMES, SEQUENCE_NAMES, SHELF_NAMES } from '../words'
import { IMPORT_FIELD_NAMES, missingFields, type ColumnMatch, type ImportField } from './columns'
import { Findings, type Remark } from './findings'
import { isBlankRow, isHeadingAgain } from './headings'
import { cleanCell, isSheetError, readPlaceCell, type ImportPlace } from './readCells'
import { strikeIn } from './strikesInNotes'
import { readComing, readSpec, unitBelow, type Coming, type Texts } from './readRow'

/** A saw that is there already or is made by the import. */
export interface ImportSaw extends SawFit, SawWear {
  readonly id: string
  readonly nickname: string
}

/** What somebody settled about a row in the preview. */
export interface Mended {
  /** Cells as they should have been. */
  readonly texts?: Partial<Record<ImportField, string>>
  /** It stays out. */
  readonly out?: boolean
}

/** What the import needs to know of the shed and of this moment. */
export interface ImportContext {
  readonly tags: readonly string[]
  readonly saws: readonly ImportSaw[]
  /** Saws that have a loop on them. */
  readonly takenSawIds: readonly string[]
  /** By which a loop is fit for use or not. */
  readonly rules: HouseRules
  readonly unit: 'mm' | 'inch'
  readonly headings: readonly string[]
  /** Number of the first row below the headings; 2 where they are in row 1. */
  readonly firstRow?: number
  /** Rows that the sheet hides, by number. */
  readonly hiddenRows?: readonly number[]
  /** What was settled in the preview, by row number. */
  readonly mended?: Readonly<Record<number, Mended>>
  readonly now: string
  readonly newId: () => string
  readonly random: () => number
}

/** What becomes of one row. */
export interface RowFate {
  /** Number of the row in the sheet, from 1. */
  readonly row: number
  readonly fate: 'add' | 'wrong' | 'blank' | 'out'
  readonly tag: string
  /** The loop in one line; empty when it cannot be read. */
  readonly loop: string
  readonly doubts: readonly Remark[]
  readonly problems: readonly Remark[]
  /** What stands in each cell that something is remarked of. */
  readonly texts: Partial<Record<ImportField, string>>
}

/** Everything that an import would do. Nothing is written by making it. */
export interface ImportPlan {
  readonly rows: readonly RowFate[]
  readonly saws: readonly ImportSaw[]
  readonly entries: readonly NewEntry[]
  readonly counts: {
    readonly add: number
    readonly wrong: number
    readonly blank: number
    readonly out: number
    readonly doubtful: number
  }
}

const TAG = /^[\p{L}\p{N}][\p{L}\p{N} ._-]*$/u
const LONGEST_TAG = 12
/** What a spreadsheet makes of a tag such as 3-1 or MAR2. */
const MONTH = '(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*'
const DATES = ['\\d{4}-\\d{2}-\\d{2}', `\\d{1,2}[-/. ]${MONTH}([-/. ]\\d{2,4})?`, '\\d{1,2}[/.]\\d{1,2}[/.]\\d{2,4}']
const LOOKS_LIKE_A_DATE = new RegExp(`^(${DATES.join('|')})$`, 'i')
const LONGEST_NOTE = 2000
const LONGEST_NICKNAME = 40
const PROGRESS_EVERY = 250

/** A loop as a row gives it, ready to be written. */
interface RowLoop {
  readonly tag: string
  readonly spec: LoopSpec
  readonly coming: Coming
  readonly place: ImportPlace | null
  readonly saw: ImportSaw | null
  readonly note: string
  /** What its note says that it struck. */
  readonly struck: StrikeObject | null
}

/** The parts of a fit that decide it, and what they say. */
function fitOf(spec: LoopSpec, saw: ImportSaw): { readonly level: FitLevel; readonly reasons: string } {
  const { level, parts } = fitCheck(spec, saw, saw)
  const reasons = parts.filter((one) => one.level === level).map(({ reason }) => reason)
  return { level, reasons: reasons.join('; ') }
}

const PLACE_NAMES: Readonly<Record<ImportPlace, string>> = {
  ...SHELF_NAMES,
  saw: 'on the saw',
  shop: 'at a shop',
  retired: 'retired',
}

/** What was read of a row in one line: the spec, the cutters, how much is left and where it goes. */
function readLine({ spec, coming: { used }, place, saw }: RowLoop): string {
  const left = used === null ? 'new' : used.aboutUm === undefined ? 'used' : `about ${writeMm(used.aboutUm, 1)} left`
  const where = place === 'saw' && saw !== null ? `on ${saw.nickname}` : PLACE_NAMES[place ?? 'bench']
  const cutters = `${CUTTER_TYPE_NAMES[spec.cutterType]}, ${SEQUENCE_NAMES[spec.sequence]}`
  return [specLine(spec), cutters, left, where].join(' · ')
}

/** That a loop goes on the saw that its row names is said, with what it does not fit in. */
function tellImplied(spec: LoopSpec, saw: ImportSaw, found: Findings): void {
  const { level, reasons } = fitOf(spec, saw)
  const but = level === 'but' ? `, but ${reasons}` : ''
  found.tell('place', `Put on ${saw.nickname}, since the row names it${but}.`)
}

class Planner {
  readonly rows: RowFate[] = []
  readonly saws: ImportSaw[] = []
  readonly entries: NewEntry[] = []
  private readonly tags: Set<string>
  private readonly looks: Set<string>
  private readonly sawsByLook: ReadonlyMap<string, ImportSaw>
  private readonly taken: Set<string>
  private readonly hidden: ReadonlySet<number>
  private readonly units: (field: ImportField) => ReturnType<typeof unitBelow>

  constructor(
    private readonly match: ColumnMatch,
    private readonly context: ImportContext,
  ) {
    this.tags = new Set(context.tags)
    this.looks = new Set(context.tags.map(nameLook))
    this.sawsByLook = new Map(context.saws.map((saw) => [nameLook(saw.nickname), saw]))
    this.taken = new Set(context.takenSawIds)
    this.hidden = new Set(context.hiddenRows)
    this.units = (field) => unitBelow(context.headings[match[field] ?? -1] ?? '', context.unit)
  }

  private texts(cells: readonly string[], row: number, found: Findings): Texts {
    const mended = this.context.mended?.[row]?.texts ?? {}
    const texts = {} as Record<ImportField, string>
    for (const field of Object.keys(IMPORT_FIELD_NAMES) as ImportField[]) {
      const column = this.match[field]
      const { text, changed } = cleanCell(mended[field] ?? (column === undefined ? '' : (cells[column] ?? '')))
      if (changed) found.tell(field, `${IMPORT_FIELD_NAMES[field]}: control characters were taken out.`)
      const lost = isSheetError(text)
      if (lost) found.wrong(field, `${IMPORT_FIELD_NAMES[field]}: a formula without its value. What does it come to?`)
      texts[field] = lost ? '' : text
    }
    return texts
  }

  private tag(text: string, found: Findings): string {
    if (text === '') {
      const made = freshTag(this.tags, this.context.random()) ?? ''
      if (made === '') found.wrong('tag', 'There is no tag, and none is left to make.')
      else found.tell('tag', `No tag: ${made} was made for it.`)
      return made
    }
    if (LOOKS_LIKE_A_DATE.test(text))
      found.ask('tag', `"${text}" looks like a date that the sheet has made of a tag. What does the tag say?`)
    if (text.length > LONGEST_TAG || !TAG.test(text))
      found.wrong('tag', `"${text.slice(0, 40)}" cannot be a tag: up to ${LONGEST_TAG} letters and digits.`)
    else if (this.looks.has(nameLook(text))) found.wrong('tag', `The tag ${text} is taken.`)
    return text
  }

  /** The saw with a nickname; one that is not known is made to take this loop. */
  private saw(nickname: string, spec: LoopSpec, found: Findings): ImportSaw | null {
    if (nickname === '') return null
    if (nickname.length > LONGEST_NICKNAME) {
      found.wrong('saw', `A saw's name has at most ${LONGEST_NICKNAME} characters.`)
      return null
    }
    const known = this.sawCalled(nickname)
    if (known !== undefined) return known
    found.ask('saw', `No saw is called ${nickname}: one is added that takes ${specLine(spec)}.`)
    const { pitchClass, gaugeUm, driveLinks } = spec
    return { id: this.context.newId(), nickname, pitchClass, gaugeUm, driveLinks }
  }

  plan(cells: readonly string[], row: number): void {
    const none = { row, tag: '', loop: '', doubts: [], problems: [], texts: {} }
    if (isBlankRow(cells) || isHeadingAgain(cells, this.context.headings)) {
      this.rows.push({ ...none, fate: 'blank' })
      return
    }
    const found = new Findings()
    this.checkWidth(cells, found)
    if (this.hidden.has(row)) found.ask(null, 'The sheet hides this row.')
    const texts = this.texts(cells, row, found)
    if (this.context.mended?.[row]?.out === true) {
      this.rows.push({ ...none, tag: texts.tag, fate: 'out' })
      return
    }
    const loop = this.read(texts, found)
    const fate = found.problems.length > 0 || loop === null ? 'wrong' : 'add'
    const remarked = [...found.problems, ...found.doubts].flatMap(({ field }) => (field === null ? [] : [field]))
    this.rows.push({
      row,
      fate,
      tag: loop?.tag ?? texts.tag,
      loop: loop === null ? '' : readLine(loop),
      doubts: found.doubts,
      problems: found.problems,
      texts: Object.fromEntries(remarked.map((field) => [field, texts[field]])),
    })
    if (fate === 'wrong' || loop === null) return
    this.take(loop)
    this.write(loop)
  }

  /** The loop of a row; null where it cannot be one. What is doubtful or wrong is in the findings. */
  private read(texts: Texts, found: Findings): RowLoop | null {
    const tag = this.tag(texts.tag, found)
    const spec = readSpec(texts, this.units, found)
    const coming = readComing(texts, this.units, spec, found)
    // A saw of the crew's is a place like any other.
    const on = this.sawCalled(texts.place)
    const said = on === undefined ? (found.value('place', readPlaceCell(texts.place)) ?? null) : 'saw'
    if (spec === null) return null
    const saw = on ?? this.saw(texts.saw, spec, found)
    const place = texts.place === '' ? this.impliedPlace(spec, saw, found) : said
    this.checkSomeSaw(spec, saw, found)
    if (said === 'saw') this.checkSaw(tag, spec, saw, found)
    const note = [texts.note, texts.note2, texts.note3].filter(Boolean).join('; ').slice(0, LONGEST_NOTE)
    const struck = strikeIn(note)
    if (struck !== null)
      found.tell('note', `The note speaks of a strike: it is opened, and the loop is looked over before it cuts.`)
    const loop = { tag, spec, coming, place, saw, note, struck }
    if (place !== 'saw' || saw === null || found.problems.length > 0) return loop
    if (this.isFit(loop)) {
      if (texts.place === '') tellImplied(spec, saw, found)
      return loop
    }
    const why =
      struck !== null
        ? 'it struck something, and nobody has looked since'
        : 'it was used, and nobody says how much is left, or it is at its mark'
    found.ask('condition', `Not put on ${saw.nickname}, but on the bench: not fit for use as it is, since ${why}.`)
    return { ...loop, place: null }
  }

  /** The saw that somebody calls so, of the crew's and of those that the sheet has brought so far. */
  private sawCalled(nickname: string): ImportSaw | undefined {
    if (nickname === '') return undefined
    const look = nameLook(nickname)
    return this.sawsByLook.get(look) ?? this.saws.find((saw) => nameLook(saw.nickname) === look)
  }

  /** A loop that fits none of the saws is said so before it comes in. */
  private checkSomeSaw(spec: LoopSpec, saw: ImportSaw | null, found: Findings): void {
    const all = [...this.context.saws, ...this.saws, ...(saw === null ? [] : [saw])]
    if (all.length > 0 && all.every((saw) => fitOf(spec, saw).level === 'mustNot'))
      found.tell(null, `It fits none of the crew’s saws: ${specLine(spec)}.`)
  }

  private checkWidth(cells: readonly string[], found: Findings): void {
    const beyond = cells.slice(this.context.headings.length).filter((cell) => cell.trim() !== '').length
    if (beyond === 0) return
    const more = `${beyond} ${beyond === 1 ? 'cell' : 'cells'}`
    found.wrong(null, `It has ${more} more than there are headings: a comma too many?`)
  }

  /** A row that names a saw and no place is on it, where the fit and the loops before it leave that open. */
  private impliedPlace(spec: LoopSpec, saw: ImportSaw | null, found: Findings): ImportPlace | null {
    if (saw === null) return null
    const { level, reasons } = fitOf(spec, saw)
    if (level === 'mustNot') {
      found.ask('saw', `It is for ${saw.nickname} and must not be on it: ${reasons}. Put on the bench.`)
      return null
    }
    if (this.taken.has(saw.id)) {
      found.tell('place', `Another loop is on ${saw.nickname}: put on the bench.`)
      return null
    }
    return 'saw'
  }

  /** Whether such a loop may be on a saw at all, by the same verdict as any. */
  private isFit({ tag, spec, coming: { used }, struck }: RowLoop): boolean {
    const { now, rules } = this.context
    const base = { loopId: tag, happenedAt: now, personId: null }
    const entries: NewEntry[] = [
      { ...base, id: 'came', kind: 'registered', tag, spec, ...(used === null ? {} : { used }) },
    ]
    if (struck !== null) entries.push({ ...base, id: 'struck', kind: 'struck', against: struck })
    const state = fold(entries.map((entry) => asWritten(entry, now)))
    return state !== null && decide(state, rules).fitForUse
  }

  /** The tag and the saw are taken for the rows that follow. */
  private take({ tag, saw, place }: RowLoop): void {
    this.tags.add(tag)
    this.looks.add(nameLook(tag))
    if (saw === null) return
    if (![...this.context.saws, ...this.saws].includes(saw)) this.saws.push(saw)
    if (place === 'saw') this.taken.add(saw.id)
  }

  private checkSaw(tag: string, spec: LoopSpec, saw: ImportSaw | null, found: Findings): void {
    if (saw === null) {
      found.wrong('saw', 'It is on a saw, and the sheet does not say on which.')
      return
    }
    if (this.taken.has(saw.id)) found.wrong('place', `Another loop is on ${saw.nickname}.`)
    const { level, reasons } = fitOf(spec, saw)
    if (level === 'mustNot') found.wrong('saw', `${tag} must not be on ${saw.nickname}: ${reasons}.`)
    else if (level === 'but') found.tell('saw', `On ${saw.nickname}, but ${reasons}.`)
  }

  private write({ tag, spec, coming, place, saw, note, struck }: RowLoop): void {
    const { now, newId } = this.context
    const loopId = newId()
    const base = () => ({ id: newId(), loopId, happenedAt: now, personId: null })
    const said = note === '' ? {} : { note }
    const { used } = coming
    this.entries.push({ ...base(), kind: 'registered', tag, spec, ...(used === null ? {} : { used }), ...said })
    if (struck !== null) this.entries.push({ ...base(), kind: 'struck', against: struck, ...said })
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
          ...(fitCheck(spec, saw, saw).level === 'but' ? { overruled: 'As it was found' } : {}),
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
  const { firstRow = 2 } = context
  rows.forEach((cells, i) => {
    planner.plan(cells, i + firstRow)
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
      out: count('out'),
      doubtful: planner.rows.filter(({ fate, doubts }) => fate === 'add' && doubts.some(({ asks }) => asks)).length,
    },
  }
}
