import { fileFit } from '../geometry'
import { checkLength } from '../measure'
import { changedSpec, specFromProfile, type LoopSpec, type SpecValues } from '../profile'
import { writeMm, type Um } from '../units'
import { headingUnit, type ImportField } from './columns'
import type { Findings } from './findings'
import {
  namesSkip,
  readCutterTypeCell,
  readDriveLinksCell,
  readGaugeCell,
  readLeftCell,
  readLengthCell,
  readPitchCell,
  readSequenceCell,
  readStartMarkCell,
  type Left,
} from './readCells'

/** The text of each field of a row; empty where it has no column. */
export type Texts = Readonly<Record<ImportField, string>>

type FieldUnit = 'mm' | 'inch' | 'thou'

/** What the bare figures of each field are in: as its heading says, or as the crew writes them. */
export type FieldUnits = (field: ImportField) => FieldUnit

/** What the bare figures below a heading are in. */
export function unitBelow(heading: string, bare: 'mm' | 'inch'): FieldUnit {
  const named = headingUnit(heading)
  return named === null ? bare : named === 'in' ? 'inch' : named
}

/** A file no thicker than this speaks for low profile, whose own is 4 mm. Starting value. */
const LOW_FILE_UM: Um = 4200

/** What a loop cannot be without. */
type Named = Pick<SpecValues, 'pitchClass' | 'gaugeUm' | 'driveLinks' | 'cutterType' | 'sequence'>

const isWhole = (named: { [F in keyof Named]: Named[F] | undefined }): named is Named =>
  Object.values(named).every((value) => value !== undefined)

/** What of a row's lengths no chain or file has; whether there is anything. */
function lengthsCannotBe({ newLengthUm, fileUm }: Partial<SpecValues>, found: Findings): boolean {
  const before = found.problems.length
  if (newLengthUm !== undefined && (newLengthUm < 1000 || newLengthUm > 20_000))
    found.wrong('newLength', `No cutter is ${writeMm(newLengthUm)} long when new.`)
  else if (fileUm !== undefined && (fileUm < 2000 || fileUm > 10_000))
    found.wrong('file', `No file is ${writeMm(fileUm)} thick.`)
  return found.problems.length > before
}

/** The sequence, from its own column or from what stands in that of the cutters. */
function sequenceOf(texts: Texts, found: Findings) {
  const inType = texts.sequence === '' && namesSkip(texts.cutterType)
  if (inType) found.tell('sequence', `"${texts.cutterType}" is taken for its sequence.`)
  return found.value('sequence', readSequenceCell(inType ? texts.cutterType : texts.sequence))
}

/** The spec that a row names; null, with the problems said, where it names none. */
export function readSpec(texts: Texts, units: FieldUnits, found: Findings): LoopSpec | null {
  const cutterType = found.value('cutterType', readCutterTypeCell(texts.cutterType))
  const gaugeUm = found.value('gauge', readGaugeCell(texts.gauge, units('gauge')))
  const fileUm = found.value('file', readLengthCell(texts.file, units('file')))
  const low = cutterType === 'chipper' || (fileUm != null && fileUm <= LOW_FILE_UM) || gaugeUm === 1100
  const pitchClass = found.value('pitch', readPitchCell(texts.pitch, low))
  const driveLinks = found.value('driveLinks', readDriveLinksCell(texts.driveLinks))
  const sequence = sequenceOf(texts, found)
  const newLengthUm = found.value('newLength', readLengthCell(texts.newLength, units('newLength')))
  const startMark = found.value('startMark', readStartMarkCell(texts.startMark))
  const named = { pitchClass, gaugeUm, driveLinks, cutterType, sequence }
  if (!isWhole(named)) return null
  const said: Partial<SpecValues> = {
    ...(fileUm == null ? {} : { fileUm }),
    ...(newLengthUm == null ? {} : { newLengthUm }),
    ...(startMark == null ? {} : { startMark }),
  }
  if (lengthsCannotBe(said, found)) return null
  const { fileUm: file, ...rest } = said
  const suits = file === undefined || cutterType === 'squareGround' || fileFit(named, file) === 'fits'
  if (!suits) found.ask('file', `No file for this pitch is ${writeMm(file, 1)}: left out, check it on the loop.`)
  return changedSpec(specFromProfile(named), file !== undefined && suits ? { ...rest, fileUm: file } : rest, 'crew')
}

/** How a loop comes: new, or used with what somebody saw of it. */
export interface Coming {
  /** What is said of a used one; null for a new one. */
  readonly used: { readonly aboutUm?: Um } | null
}

/** How far by eye, as a length; to a tenth of a millimetre, since nobody sees more. */
const byEye = (left: Left, { newLengthUm, markLengthUm }: LoopSpec): Um | null => {
  if (left.is === 'about') return left.um
  if (left.is !== 'part') return null
  return Math.round((markLengthUm + left.part * (newLengthUm - markLengthUm)) / 100) * 100
}

function measuredLength(spec: LoopSpec, um: Um, found: Findings): void {
  if (checkLength(spec, um, null).ok)
    found.tell('length', 'Length now has no date, and no cutter is named: taken as an estimate, to be measured.')
  else found.wrong('length', `${writeMm(um)} is longer than a new cutter (${writeMm(spec.newLengthUm)}).`)
}

const UNSAID: Left = { is: 'unsaid' }

/** What two cells say together: new, used, or nothing. */
function ageOf(length: Left, condition: Left): 'new' | 'used' | 'unsaid' | 'both' {
  const said = [length, condition].filter(({ is }) => is !== 'unsaid')
  if (said.length === 0) return 'unsaid'
  // A reading says how long the cutters are, and a new loop may be measured too.
  const others = condition.is === 'new' && length.is === 'measured' ? [condition] : said
  const fresh = others.filter(({ is }) => is === 'new').length
  return fresh === others.length ? 'new' : fresh === 0 ? 'used' : 'both'
}

/** How the loop of a row comes. One that nobody calls new, and nobody measured, is taken for used. */
export function readComing(texts: Texts, units: FieldUnits, spec: LoopSpec | null, found: Findings): Coming {
  const length = found.value('length', readLeftCell(texts.length, units('length'))) ?? UNSAID
  const condition = found.value('condition', readLeftCell(texts.condition, units('condition'))) ?? UNSAID
  if (spec === null) return { used: {} }
  const lengthUm = length.is === 'measured' ? length.um : null
  if (lengthUm !== null) measuredLength(spec, lengthUm, found)
  const age = ageOf(length, condition)
  if (age === 'new') return { used: null }
  if (age === 'both') found.ask('condition', 'Called new in one place and used in another: taken as used.')
  if (age === 'unsaid') found.ask('condition', 'Not said whether it is new: taken as used, and to be measured.')
  // One length with no date says about how much is left, and no more.
  const aboutUm = lengthUm ?? byEye(condition, spec) ?? byEye(length, spec)
  if (aboutUm === null) return { used: {} }
  if (lengthUm !== null) return checkLength(spec, lengthUm, null).ok ? { used: { aboutUm } } : { used: {} }
  if (!checkLength(spec, aboutUm, null).ok)
    found.wrong('length', `About ${writeMm(aboutUm, 1)} is longer than a new cutter (${writeMm(spec.newLengthUm)}).`)
  return { used: { aboutUm } }
}
