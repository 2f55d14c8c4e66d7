import {
  CONDITIONS,
  CUTTER_DAMAGE_KINDS,
  CUTTER_TYPES,
  DRIVE_LINKS,
  ENTRY_KINDS,
  LENGTH_PREFERENCES,
  PART_DAMAGE_KINDS,
  PITCH_CLASSES,
  RETIRE_REASONS,
  SEQUENCES,
  SHARPEN_METHODS,
  STRIKE_OBJECTS,
  type EntryKind,
  type NewEntry,
} from '@undercliff/core'
import * as yup from 'yup'
import { cutterNumber, id, instant, lengthUm, name, NOTE_LENGTH, oneOf, strictObject, text, yesNo } from './fields'

/** Most entries in one request. They are written all together or not at all. */
export const MOST_ENTRIES = 50

const base = {
  id: id(),
  loopId: id(),
  happenedAt: instant(),
  personId: id().nullable().defined('Say who did the work, or null.'),
  note: text(NOTE_LENGTH),
}

/** A tag stands in addresses and is read aloud: it begins with a letter or digit. */
const tag = () =>
  name(12).matches(/^[\p{L}\p{N}][\p{L}\p{N} ._-]*$/u, 'A tag is letters and digits; spaces, dots and dashes within it.')

const driveLinks = () =>
  yup
    .number()
    .required('The drive-link count is missing.')
    .integer('Drive links are counted in whole numbers.')
    .min(DRIVE_LINKS.least, `A loop has at least ${DRIVE_LINKS.least} drive links.`)
    .max(DRIVE_LINKS.most, `A loop has at most ${DRIVE_LINKS.most} drive links.`)

const gaugeUm = () =>
  lengthUm().required('The gauge is missing.').min(800, 'No chain is that thin.').max(3000, 'No chain is that thick.')

export const specSchema = strictObject({
  pitchClass: oneOf(PITCH_CLASSES, 'The pitch'),
  gaugeUm: gaugeUm(),
  driveLinks: driveLinks(),
  sequence: oneOf(SEQUENCES, 'The sequence'),
  cutterType: oneOf(CUTTER_TYPES, 'The cutter type'),
  firstHand: oneOf(['left', 'right'], 'The hand of cutter 1'),
  newLengthUm: lengthUm()
    .required('The new length is missing.')
    .min(1000, 'A new cutter is longer than that.')
    .max(20_000, 'A new cutter is shorter than that.'),
  markLengthUm: lengthUm()
    .required('The reading at the mark is missing.')
    .test('below-new', 'The mark is reached below the new length.', function (value) {
      const { newLengthUm } = this.parent as { newLengthUm?: unknown }
      return typeof newLengthUm !== 'number' || value < newLengthUm
    }),
  settingUm: lengthUm().required('The depth-gauge setting is missing.').min(200).max(2000),
  fileUm: lengthUm().required('The file is missing.').min(2000).max(10_000),
  topPlateAngleDeg: yup.number().required('The top plate angle is missing.').min(0).max(50),
})

const damage = yup
  .array(
    strictObject({
      kind: oneOf(CUTTER_DAMAGE_KINDS, 'The damage'),
      depthUm: lengthUm().nullable().defined('Say how deep, or null.'),
    }).required(),
  )
  .max(8, 'At most eight kinds of damage on one cutter.')

const readings = (least: number) =>
  yup
    .array(
      strictObject({
        cutter: cutterNumber(),
        lengthUm: lengthUm(),
        damage: damage.optional(),
        settingUm: lengthUm(),
      }).required(),
    )
    .required('The readings are missing.')
    .min(least, 'There is nothing read.')
    .max(125, 'No loop has that many cutters.')

const strokes = () => yup.number().required('The strokes of a side are missing.').integer().min(0).max(500)

/** One schema for each kind of entry. */
const entrySchemas = {
  registered: strictObject({ ...base, kind: oneOf(['registered'], 'The kind'), tag: tag(), spec: specSchema.required() }),
  fitted: strictObject({
    ...base,
    kind: oneOf(['fitted'], 'The kind'),
    sawId: id(),
    barFlipped: yesNo(),
    tensionChecked: yesNo(),
  }),
  takenOff: strictObject({ ...base, kind: oneOf(['takenOff'], 'The kind') }),
  ran: strictObject({
    ...base,
    kind: oneOf(['ran'], 'The kind'),
    tanks: yup
      .number()
      .required('The tanks are missing.')
      .moreThan(0, 'More than no tanks.')
      .max(200, 'That is more tanks than one entry can hold.'),
    conditions: oneOf(CONDITIONS, 'The conditions'),
  }),
  struck: strictObject({
    ...base,
    kind: oneOf(['struck'], 'The kind'),
    against: oneOf(STRIKE_OBJECTS, 'What it struck'),
    cutters: yup.array(cutterNumber()).max(125),
  }),
  measured: strictObject({ ...base, kind: oneOf(['measured'], 'The kind'), readings: readings(1) }),
  sharpened: strictObject({
    ...base,
    kind: oneOf(['sharpened'], 'The kind'),
    method: oneOf(SHARPEN_METHODS, 'The method'),
    strokes: strictObject({ left: strokes(), right: strokes() }).default(undefined).optional(),
    gaugesLowered: yesNo().required('Say whether the gauges were lowered.'),
    settingUm: lengthUm(),
    damageCleared: yesNo(),
    pairs: yup
      .array(
        strictObject({
          cutter: cutterNumber(),
          beforeUm: lengthUm().required('The length before is missing.'),
          afterUm: lengthUm().required('The length after is missing.'),
        }).required(),
      )
      .max(125),
  }),
  gaugesLowered: strictObject({ ...base, kind: oneOf(['gaugesLowered'], 'The kind'), settingUm: lengthUm() }),
  inspected: strictObject({
    ...base,
    kind: oneOf(['inspected'], 'The kind'),
    readings: readings(0),
    parts: yup
      .array(
        strictObject({
          kind: oneOf(PART_DAMAGE_KINDS, 'The damage'),
          nearCutter: cutterNumber().nullable().defined('Say which cutter it is near, or null.'),
        }).required(),
      )
      .required('The parts are missing.')
      .max(50),
  }),
  retired: strictObject({
    ...base,
    kind: oneOf(['retired'], 'The kind'),
    reason: oneOf(RETIRE_REASONS, 'The reason'),
  }),
  corrected: strictObject({ ...base, kind: oneOf(['corrected'], 'The kind'), strikes: id(), reason: text(NOTE_LENGTH) }),
} satisfies Record<EntryKind, yup.AnyObjectSchema>

const isKind = (kind: unknown): kind is EntryKind => (ENTRY_KINDS as readonly unknown[]).includes(kind)

const unknownKind = yup
  .object({ kind: oneOf(ENTRY_KINDS, 'The kind of entry') })
  .required()
  .strict()

/** A new entry of any kind, told apart by `kind`. */
const entrySchema = yup.lazy((value: unknown) => {
  const kind: unknown = typeof value === 'object' && value !== null && 'kind' in value ? value.kind : undefined
  return isKind(kind) ? (entrySchemas[kind] as yup.AnyObjectSchema) : unknownKind
})

export const newEntriesSchema = strictObject({
  entries: yup
    .array(entrySchema)
    .required('The entries are missing.')
    .min(1, 'There is no entry.')
    .max(MOST_ENTRIES, `At most ${MOST_ENTRIES} entries at once.`),
})

/** Body of `POST /api/entries`. */
export interface NewEntries {
  readonly entries: readonly NewEntry[]
}

/** A saw as it is added. */
export const newSawSchema = strictObject({
  id: id(),
  nickname: name(40),
  pitchClass: oneOf(PITCH_CLASSES, 'The pitch'),
  gaugeUm: gaugeUm(),
  driveLinks: driveLinks(),
})

/** What a crew is called and reads lengths in. */
export const crewChangeSchema = strictObject({ name: name(60), lengths: oneOf(LENGTH_PREFERENCES, 'The unit') })
export type CrewChange = yup.InferType<typeof crewChangeSchema>

/** A person as they are added. */
export const newPersonSchema = strictObject({ id: id(), name: name(40) })
export type NewPerson = yup.InferType<typeof newPersonSchema>
