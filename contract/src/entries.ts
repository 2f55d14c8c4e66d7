import {
  ACTIONS,
  CAUSES,
  CONDITIONS,
  CUTTER_DAMAGE_KINDS,
  CUTTER_TYPES,
  DRIVE_LINKS,
  DUTIES,
  ENTERED_ORIGINS,
  GAUGE_SCHOOLS,
  MOST_TOP_PLATE_DEG,
  CHOSEN,
  READ_WITH,
  FILE_AGES,
  HANDS,
  SHARPENING_TOOLS,
  MOST_HANDS,
  PART_DAMAGE_KINDS,
  PITCH_CLASSES,
  RETIRE_REASONS,
  SEQUENCES,
  SHARPEN_METHODS,
  SHELVES,
  LINK_KINDS,
  LOOKS,
  SIGNS,
  WOOD_STEPS,
  WOODS,
  START_MARKS,
  STRIKE_OBJECTS,
  type EntryKind,
  type SpecField,
} from '@undercliff/core'
import * as yup from 'yup'
import {
  cutterNumber,
  id,
  deviceInstant,
  instant,
  lengthUm,
  name,
  oneOf,
  optionalOneOf,
  strictObject,
  text,
  yesNo,
} from './fields'
import { NOTE_LENGTH } from './limits'

export const entryBase = {
  id: id(),
  loopId: id(),
  happenedAt: deviceInstant(),
  personId: id().nullable().defined('Say who did the work, or null.'),
  note: text(NOTE_LENGTH),
}

/** A tag stands in addresses and is read aloud: it begins with a letter or digit. */
export const tag = () =>
  name(12).matches(
    /^[\p{L}\p{N}][\p{L}\p{N} ._-]*$/u,
    'A tag is letters and digits; spaces, dots and dashes within it.',
  )

export const driveLinks = () =>
  yup
    .number()
    .required('The drive-link count is missing.')
    .integer('Drive links are counted in whole numbers.')
    .min(DRIVE_LINKS.least, `A loop has at least ${DRIVE_LINKS.least} drive links.`)
    .max(DRIVE_LINKS.most, `A loop has at most ${DRIVE_LINKS.most} drive links.`)

export const gaugeUm = () =>
  lengthUm().required('The gauge is missing.').min(800, 'No chain is that thin.').max(3000, 'No chain is that thick.')

const newLengthUm = () =>
  lengthUm().min(1000, 'A new cutter is longer than that.').max(20_000, 'A new cutter is shorter than that.')
const settingUm = () => lengthUm().min(200, 'No gauge stands that high.').max(2000, 'No gauge stands that low.')
const fileUm = () => lengthUm().min(2000, 'No file is that thin.').max(10_000, 'No file is that thick.')
const angle = () => yup.number().min(0).max(MOST_TOP_PLATE_DEG, 'No top plate is filed to such an angle.')
const downAngle = () => yup.number().min(0, 'A down angle is 0 to 20°.').max(20, 'A down angle is 0 to 20°.')
const headTilt = () => yup.number().min(30, 'A head is tilted 30 to 90°.').max(90, 'A head is tilted 30 to 90°.')
/** Longest text that is kept of what is stamped on links or bars, or printed on a box. */
const LONGEST_STAMP = 40
export const stamp = () => text(LONGEST_STAMP)

/** What a spec and a crew's profile have in common. */
export const profileValues = {
  pitchClass: oneOf(PITCH_CLASSES, 'The pitch'),
  gaugeUm: gaugeUm(),
  sequence: oneOf(SEQUENCES, 'The sequence'),
  cutterType: oneOf(CUTTER_TYPES, 'The cutter type'),
  newLengthUm: newLengthUm().required('The new length is missing.'),
  markLengthUm: lengthUm()
    .required('The reading at the mark is missing.')
    .test('below-new', 'The mark is reached below the new length.', function (value) {
      const { newLengthUm: newUm } = this.parent as { newLengthUm?: unknown }
      return typeof newUm !== 'number' || value < newUm
    }),
  settingUm: settingUm().required('The depth-gauge setting is missing.'),
  fileUm: fileUm().required('The file is missing.'),
  topPlateAngleDeg: angle().required('The top plate angle is missing.'),
  downAngleDeg: downAngle(),
  headTiltDeg: headTilt(),
  links: optionalOneOf(LINK_KINDS, 'The kind of links'),
  stamp: stamp(),
}

/** Values that a loop's spec may be corrected in; each is optional. */
const specChanges = {
  pitchClass: optionalOneOf(PITCH_CLASSES, 'The pitch'),
  gaugeUm: lengthUm().min(800, 'No chain is that thin.').max(3000, 'No chain is that thick.'),
  driveLinks: yup
    .number()
    .integer('Drive links are counted in whole numbers.')
    .min(DRIVE_LINKS.least, `A loop has at least ${DRIVE_LINKS.least} drive links.`)
    .max(DRIVE_LINKS.most, `A loop has at most ${DRIVE_LINKS.most} drive links.`),
  sequence: optionalOneOf(SEQUENCES, 'The sequence'),
  cutterType: optionalOneOf(CUTTER_TYPES, 'The cutter type'),
  firstHand: optionalOneOf(HANDS, 'The hand of cutter 1'),
  newLengthUm: newLengthUm(),
  markLengthUm: lengthUm(),
  settingUm: settingUm(),
  fileUm: fileUm(),
  topPlateAngleDeg: angle(),
  downAngleDeg: downAngle(),
  headTiltDeg: headTilt(),
  startMark: optionalOneOf(START_MARKS, 'The start mark'),
  links: optionalOneOf(LINK_KINDS, 'The kind of links'),
  stamp: stamp(),
} satisfies Record<SpecField, yup.AnySchema>

const originsSchema = strictObject(
  Object.fromEntries(Object.keys(specChanges).map((field) => [field, optionalOneOf(ENTERED_ORIGINS, 'The origin')])),
)

export const specSchema = strictObject({
  ...profileValues,
  driveLinks: driveLinks(),
  firstHand: oneOf(HANDS, 'The hand of cutter 1'),
  startMark: optionalOneOf(START_MARKS, 'The start mark'),
  origins: originsSchema.default(undefined).optional(),
})

/** One thing that is wrong with a cutter. */
export const oneDamage = () =>
  strictObject({
    kind: oneOf(CUTTER_DAMAGE_KINDS, 'The damage'),
    depthUm: lengthUm().nullable().defined('Say how deep, or null.'),
  }).required('The damage is missing.')
const damage = yup.array(oneDamage()).max(8, 'At most eight kinds of damage on one cutter.')

const readings = (least: number) =>
  yup
    .array(
      strictObject({
        cutter: cutterNumber(),
        lengthUm: lengthUm(),
        damage: damage.optional(),
        settingUm: lengthUm(),
        angleDeg: angle(),
        confirmed: yesNo(),
      }).required(),
    )
    .required('The readings are missing.')
    .min(least, 'There is nothing read.')
    .max(125, 'No loop has that many cutters.')

/** The plate that gauges were filed to. */
const plate = () =>
  strictObject({
    rests: oneOf(GAUGE_SCHOOLS, 'What the plate rests on'),
    step: optionalOneOf(WOOD_STEPS, 'The step of the plate'),
    stampedUm: lengthUm(),
  })
    .default(undefined)
    .optional()

/** The saw that a loop was on, as far as whoever moved it knew. */
const from = () => id().nullable().optional()

const strokes = () => yup.number().required('The strokes of a side are missing.').integer().min(0).max(500)

const share = (most: number) => yup.number().required('A part is missing.').min(-most).max(most)
const spread = (most: number) => yup.number().required('How far it may be off is missing.').min(0).max(most)

/** What the crew's files were known to take off when a loop came. */
export const knownBiteSchema = strictObject({
  strokeUm: yup.number().required('What a stroke takes is missing.').min(1).max(200),
  strokeSdUm: spread(100),
  uncounted: share(1),
  uncountedSd: spread(1),
  people: yup
    .array(
      strictObject({
        personId: id(),
        factor: yup.number().required('The factor is missing.').min(0.1).max(10),
        factorSd: spread(1),
        leanUm: share(100),
        leanSdUm: spread(100),
      }).required(),
    )
    .required('The people are missing.')
    .max(MOST_HANDS, `At most ${MOST_HANDS} people.`),
})

/** What is said of a loop that comes used. */
export const usedSchema = strictObject({ aboutUm: lengthUm(), withinUm: lengthUm() })

/** One schema for each kind of entry in a loop's log. */
export const entrySchemas = {
  registered: strictObject({
    ...entryBase,
    kind: oneOf(['registered'], 'The kind'),
    tag: tag(),
    spec: specSchema.required(),
    knownBite: knownBiteSchema.default(undefined).optional(),
    used: usedSchema.default(undefined).optional(),
  }),
  specChanged: strictObject({
    ...entryBase,
    kind: oneOf(['specChanged'], 'The kind'),
    origin: oneOf(ENTERED_ORIGINS, 'The origin'),
    changes: strictObject(specChanges)
      .required('The changes are missing.')
      .test('something', 'Nothing is changed.', (value) => Object.keys(value).length > 0),
  }),
  retagged: strictObject({ ...entryBase, kind: oneOf(['retagged'], 'The kind'), tag: tag() }),
  fitted: strictObject({
    ...entryBase,
    kind: oneOf(['fitted'], 'The kind'),
    sawId: id(),
    barFlipped: yesNo(),
    tensionChecked: yesNo(),
    from: from(),
    overruled: text(NOTE_LENGTH).min(3, 'Say why in a few words.'),
  }),
  takenOff: strictObject({
    ...entryBase,
    kind: oneOf(['takenOff'], 'The kind'),
    from: from(),
    to: optionalOneOf(SHELVES, 'The place'),
  }),
  moved: strictObject({
    ...entryBase,
    kind: oneOf(['moved'], 'The kind'),
    from: from(),
    to: oneOf(SHELVES, 'The place'),
  }),
  sentOut: strictObject({
    ...entryBase,
    kind: oneOf(['sentOut'], 'The kind'),
    from: from(),
    shop: name(60),
    dueBackAt: instant().optional(),
  }),
  cameBack: strictObject({
    ...entryBase,
    kind: oneOf(['cameBack'], 'The kind'),
    to: oneOf(SHELVES, 'The place'),
    costMinor: yup
      .number()
      .integer('Money is in whole minor units.')
      .min(0, 'A cost is not less than nothing.')
      .max(100_000_000),
  }),
  ran: strictObject({
    ...entryBase,
    kind: oneOf(['ran'], 'The kind'),
    tanks: yup
      .number()
      .required('The tanks are missing.')
      .moreThan(0, 'More than no tanks.')
      .max(200, 'That is more tanks than one entry can hold.'),
    conditions: oneOf(CONDITIONS, 'The conditions'),
  }),
  struck: strictObject({
    ...entryBase,
    kind: oneOf(['struck'], 'The kind'),
    against: oneOf(STRIKE_OBJECTS, 'What it struck'),
    cutters: yup.array(cutterNumber()).max(125),
    deepest: strictObject({ cutter: cutterNumber(), depthUm: lengthUm().required('The depth is missing.') })
      .default(undefined)
      .optional(),
  }),
  measured: strictObject({
    ...entryBase,
    kind: oneOf(['measured'], 'The kind'),
    readings: readings(1),
    chosen: optionalOneOf(CHOSEN, 'Why these cutters were read'),
    readWith: optionalOneOf(READ_WITH, 'What they were read with'),
  }),
  sharpened: strictObject({
    ...entryBase,
    kind: oneOf(['sharpened'], 'The kind'),
    method: oneOf(SHARPEN_METHODS, 'The method'),
    strokes: strictObject({ left: strokes(), right: strokes() }).default(undefined).optional(),
    gaugesLowered: yesNo().required('Say whether the gauges were lowered.'),
    gaugesByEye: yesNo(),
    settingUm: lengthUm(),
    plate: plate(),
    damageCleared: yesNo(),
    evened: yesNo(),
    stopChecked: yesNo(),
    wasDull: yesNo(),
    fileAge: optionalOneOf(FILE_AGES, 'How used the file is'),
    fileBite: yup.number().typeError('What the file bites must be a number.').min(0.1).max(3),
    onlySide: optionalOneOf(HANDS, 'The side that was done'),
    tool: optionalOneOf(SHARPENING_TOOLS, 'The tool'),
    used: yup.array(id()).max(6),
    minutes: yup
      .number()
      .typeError('The minutes must be a number.')
      .min(0, 'The minutes cannot be below 0.')
      .max(24 * 60, 'Longer than a day is a slip.'),
    stopUm: lengthUm(),
    stopRead: yesNo(),
    countsRead: yesNo(),
    angleDeg: angle(),
    apart: yup.array(strictObject({ cutter: cutterNumber(), strokes: strokes() }).required()).max(125),
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
  gaugesLowered: strictObject({
    ...entryBase,
    kind: oneOf(['gaugesLowered'], 'The kind'),
    settingUm: lengthUm(),
    plate: plate(),
    gaugesByEye: yesNo(),
  }),
  begun: strictObject({
    ...entryBase,
    kind: oneOf(['begun'], 'The kind'),
    side: oneOf(HANDS, 'The side that it was begun with'),
    tool: optionalOneOf(SHARPENING_TOOLS, 'The tool'),
  }),
  noticed: strictObject({
    ...entryBase,
    kind: oneOf(['noticed'], 'The kind'),
    signs: yup.array(oneOf(SIGNS, 'The sign')).required('The signs are missing.').min(1, 'Say what it does.').max(6),
    toward: optionalOneOf(HANDS, 'The side that it pulls to'),
    wood: optionalOneOf(WOODS, 'The wood'),
    along: yesNo(),
  }),
  looked: strictObject({
    ...entryBase,
    kind: oneOf(['looked'], 'The kind'),
    into: id(),
    look: oneOf(LOOKS, 'The look'),
    found: yup.array(oneOf(CAUSES, 'What was found')).required('Say what was found, or nothing.').max(CAUSES.length),
  }),
  traced: strictObject({
    ...entryBase,
    kind: oneOf(['traced'], 'The kind'),
    into: id(),
    cause: oneOf(CAUSES, 'The cause').nullable().defined('Say what it was, or null.'),
  }),
  inspected: strictObject({
    ...entryBase,
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
    ...entryBase,
    kind: oneOf(['retired'], 'The kind'),
    reason: oneOf(RETIRE_REASONS, 'The reason'),
  }),
  dutyChanged: strictObject({
    ...entryBase,
    kind: oneOf(['dutyChanged'], 'The kind'),
    duty: oneOf(DUTIES, 'The duty'),
  }),
  decided: strictObject({
    ...entryBase,
    kind: oneOf(['decided'], 'The kind'),
    action: oneOf(ACTIONS, 'What was settled on'),
    advised: oneOf(ACTIONS, 'The verdict'),
    rulesVersion: yup.number().required('The version of the rules is missing.').integer().min(1),
    overruled: text(NOTE_LENGTH).min(3, 'Say why in a few words.'),
  }),
  corrected: strictObject({
    ...entryBase,
    kind: oneOf(['corrected'], 'The kind'),
    strikes: id(),
    reason: text(NOTE_LENGTH),
  }),
} satisfies Record<EntryKind, yup.AnyObjectSchema>
