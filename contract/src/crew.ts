import {
  BENCH_SCHOOLS,
  DATE_ORDERS,
  FILE_SCHOOLS,
  GAUGE_SCHOOLS,
  GUIDE_SCHOOLS,
  HANDS,
  isCurrency,
  LENGTH_PREFERENCES,
  PITCH_CLASSES,
  PRICE_NAMES,
  SIDE_PLATE_SCHOOLS,
  UNEVEN_SCHOOLS,
  WHEN_SCHOOLS,
  WHERE_SCHOOLS,
  WOOD_STEPS,
  type Hand,
  type HouseRules,
  type PitchClass,
} from '@undercliff/core'
import * as yup from 'yup'
import { driveLinks, gaugeUm, profileValues, stamp } from './entries'
import { anyName, id, lengthUm, name, oneOf, strictObject, yesNo } from './fields'

type NameField = typeof name

const saw = (nameField: NameField) =>
  strictObject({
    id: id(),
    nickname: nameField(40),
    // Null is said: nobody has read it off yet.
    pitchClass: yup
      .string()
      .nullable()
      .oneOf([...PITCH_CLASSES, null], 'The pitch is not one in use.')
      .defined('Say the pitch, or null where nobody knows it.'),
    gaugeUm: gaugeUm().nullable().defined('Say the gauge, or null where nobody knows it.'),
    driveLinks: driveLinks().nullable().defined('Say the drive links, or null where nobody knows them.'),
    nosePitchClass: yup
      .string()
      .nullable()
      .oneOf([...PITCH_CLASSES, null], 'The pitch of the nose is not one in use.'),
    barStamp: stamp(),
  })

/** A saw as it is added. */
export const newSawSchema = saw(name)
/** A saw in a backup. */
export const backedUpSawSchema = saw(anyName)

/** What a crew is called, reads lengths in and how it writes days; how it writes them stays where it is not said. */
export const crewChangeSchema = strictObject({
  name: name(60),
  lengths: oneOf(LENGTH_PREFERENCES, 'The unit'),
  dates: oneOf(DATE_ORDERS, 'The way of writing days').optional(),
})
export type CrewChange = yup.InferType<typeof crewChangeSchema>

const person = (nameField: NameField) =>
  strictObject({
    id: id(),
    name: nameField(40),
    role: yup.string<'lead' | 'sawyer'>().oneOf(['lead', 'sawyer'], 'A person is a lead or a sawyer.'),
  })

/** The side on which somebody says that their hand bites less; null takes it back. */
const weakSide = () =>
  yup
    .string<Hand>()
    .nullable()
    .oneOf([...HANDS, null], 'A side is left or right.')

/** A person as they are added. */
export const newPersonSchema = person(name)
/** A person in a backup. */
export const backedUpPersonSchema = person(anyName).shape({ weakSide: weakSide(), gone: yesNo() })

/** Body of `PUT /api/people/:personId`: what is left out stays. */
export const personChangeSchema = strictObject({
  name: name(40).optional(),
  weakSide: weakSide(),
  gone: yesNo(),
}).test(
  'something',
  'Say what is to change.',
  (sent: object | undefined) => sent === undefined || Object.keys(sent).length > 0,
)
export interface PersonChange {
  readonly name?: string
  readonly weakSide?: Hand | null
  readonly gone?: boolean
}
export type NewPerson = yup.InferType<typeof newPersonSchema>

const rulesVersion = () => yup.number().required('The version is missing.').integer().min(1)
const limit = () => lengthUm().required('A limit is missing.')
const tanks = () => yup.number().required('A limit is missing.').min(0).max(1000)
/** A choice that a later version added; what is not said is taken as common practice. */
const school = <T extends string>(values: readonly T[], what: string) =>
  yup.string<T>().oneOf([...values], `${what} is not one that is known.`)
const price = () =>
  yup
    .number()
    .integer('Money is in whole minor units.')
    .min(0, 'A price is not less than nothing.')
    .max(100_000_000, 'That is more money than there is.')

const times = () => yup.number().required('A pace is missing.').min(0.05).max(20)

/** Counts by name, none of them below nothing. */
const counts = () =>
  yup
    .object<Readonly<Record<string, number>>>()
    .test('counts', 'Counts are whole numbers.', (sent: unknown) =>
      Object.values((sent ?? {}) as Record<string, unknown>).every(
        (one) => typeof one === 'number' && Number.isInteger(one) && one >= 0,
      ),
    )

/** House rules. What a later version added may be missing; it is taken as common practice. */
export const rulesSchema = strictObject({
  version: rulesVersion(),
  unevenSchool: school(UNEVEN_SCHOOLS, 'The rule for uneven cutters'),
  gaugeSchool: oneOf(GAUGE_SCHOOLS, 'The depth-gauge rule'),
  woodStep: school(WOOD_STEPS, 'The step of the plate'),
  fileSchool: school(FILE_SCHOOLS, 'The file rule'),
  chiselAngleDeg: yup
    .number()
    .min(10, 'No chisel is filed to such an angle.')
    .max(40, 'No chisel is filed to such an angle.'),
  chiselDownAngleDeg: yup.number().min(0, 'A table tilts from 0 to 15°.').max(15, 'A table tilts from 0 to 15°.'),
  sidePlate: school(SIDE_PLATE_SCHOOLS, 'The side plate rule'),
  guide: school(GUIDE_SCHOOLS, 'The guide'),
  when: school(WHEN_SCHOOLS, 'The rule for when'),
  where: school(WHERE_SCHOOLS, 'The rule for where'),
  bench: school(BENCH_SCHOOLS, 'The rule for file or wheel'),
  gaugeHighUm: limit(),
  gaugeLowUm: limit(),
  reserveUm: limit(),
  largestFilingUm: limit(),
  evennessUm: limit(),
  sideDifferenceUm: limit(),
  touchUpTanks: tanks(),
  benchTanks: tanks(),
  grinderOwned: yesNo(),
  shopUsed: yesNo(),
  shopDays: yup.number().integer('Days are whole.').min(0).max(365, 'That is longer than a year.'),
  dirtyDuty: yesNo(),
  currency: yup
    .string()
    .test(
      'currency',
      'Money has a code of three letters, such as EUR.',
      (code) => code === undefined || isCurrency(code),
    ),
  labourPerHourMinor: price(),
  linkPriceMinor: strictObject(
    Object.fromEntries(
      PITCH_CLASSES.map((pitch) => [pitch, price().required('The price of a pitch is missing.')]),
    ) as Record<PitchClass, yup.NumberSchema<number>>,
  )
    .default(undefined)
    .optional(),
  filePriceMinor: price(),
  wheelPerLoopMinor: price(),
  shopFeeMinor: price(),
  saidPrices: yup
    .array(oneOf(PRICE_NAMES, 'The price').required('Name the price.'))
    .max(PRICE_NAMES.length, 'There are three such prices.')
    .default(undefined)
    .optional(),
  learnedVersion: yup.number().integer().min(0).optional(),
  pace: strictObject({ touchUp: times(), routine: times(), grind: times() }).default(undefined).optional(),
  signCounts: counts().default(undefined).optional(),
})

/** Body of `PUT /api/rules`: the version that was read, and what is to hold instead; the rest stays. */
export const rulesChangeSchema = rulesSchema.partial().shape({ version: rulesVersion() })
export type HouseRulesChange = Partial<HouseRules> & Pick<HouseRules, 'version'>

const profile = (nameField: NameField) =>
  strictObject({
    id: id(),
    name: nameField(40),
    values: strictObject(profileValues).required(),
  })

/** A profile of the crew's own. */
export const newProfileSchema = profile(name)
/** A profile in a backup. */
export const backedUpProfileSchema = profile(anyName)
