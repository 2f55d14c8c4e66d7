import { KIT_GONE, PITCH_CLASSES, SHARPENING_TOOLS, type KitItem, type KitKind, type KitUsage } from '@undercliff/core'
import * as yup from 'yup'
import { id, deviceInstant, lengthUm, name, oneOf, strictObject, yesNo } from './fields'

/** Answer of `GET /api/kit`: what everything of the crew's kit has done so far. */
export interface KitAnswer {
  readonly kit: readonly KitItem[]
  readonly usage: readonly KitUsage[]
}

const base = {
  id: id(),
  name: name(40).required('A thing needs a name.'),
  version: yup.number().required('The version is missing.').integer().min(1),
  gone: yup.string().oneOf([...KIT_GONE], 'Why it is gone is not one that is known.'),
}
const um = (what: string) => lengthUm().required(`${what} is missing.`)
const rpm = () =>
  yup
    .number()
    .typeError('A speed is a number.')
    .integer('A speed is whole turns a minute.')
    .min(100, 'No spindle turns so slowly.')
    .max(50_000, 'No spindle turns so fast.')
const count = (what: string) =>
  yup.number().typeError(`${what} is a number.`).required(`${what} is missing.`).integer().min(0).max(10_000)
const degrees = (what: string, most: number) => yup.number().required(`${what} is missing.`).min(0).max(most)

/** One schema for each kind of thing of the kit. */
const kitSchemas = {
  file: strictObject({
    ...base,
    kind: oneOf(['file'], 'The kind'),
    fileUm: um('The diameter'),
    openedAt: deviceInstant(),
  }),
  stock: strictObject({
    ...base,
    kind: oneOf(['stock'], 'The kind'),
    fileUm: um('The diameter'),
    left: count('How many are left'),
    lowAt: count('How many are few'),
  }),
  wheel: strictObject({
    ...base,
    kind: oneOf(['wheel'], 'The kind'),
    widthUm: um('The width'),
    diameterUm: lengthUm(),
    markedRpm: rpm(),
    rungAt: deviceInstant().optional(),
    dressedAt: deviceInstant().optional(),
    glazed: yesNo(),
  }),
  grinder: strictObject({
    ...base,
    kind: oneOf(['grinder'], 'The kind'),
    tool: oneOf(['benchGrinder', 'smallGrinder', 'handGrinder'], 'The tool'),
    spindleRpm: rpm(),
    anglesDeg: yup.array(degrees('The angle', 60)).max(12, 'No clamp has so many angles.'),
    set: strictObject({
      angleDeg: degrees('The angle', 60),
      downDeg: degrees('The down angle', 30),
      wheelId: id().optional(),
    })
      .default(undefined)
      .optional(),
  }),
  guide: strictObject({
    ...base,
    kind: oneOf(['guide'], 'The kind'),
    tool: oneOf(
      SHARPENING_TOOLS.filter((tool) => !tool.endsWith('Grinder') && tool !== 'freehand'),
      'The tool',
    ),
    serves: yup
      .array(oneOf(PITCH_CLASSES, 'The pitch').required())
      .required('Say which chains it serves.')
      .max(PITCH_CLASSES.length),
    linesDeg: yup.array(degrees('The line', 60)).max(12, 'No guide has so many lines.').default(undefined).optional(),
  }),
  plate: strictObject({
    ...base,
    kind: oneOf(['plate'], 'The kind'),
    rests: oneOf(['constant', 'progressive'], 'What it rests on'),
    stepsUm: yup
      .array(um('A setting'))
      .required('The settings are missing.')
      .min(1, 'A plate has a setting.')
      .max(6, 'No plate has so many steps.'),
  }),
  caliper: strictObject({
    ...base,
    kind: oneOf(['caliper'], 'The kind'),
    readsUm: um('What it reads to'),
    sends: oneOf(['nothing', 'typed', 'serial'], 'What it sends'),
  }),
  vise: strictObject({ ...base, kind: oneOf(['vise'], 'The kind'), where: oneOf(['bench', 'stump'], 'The place') }),
} satisfies Record<KitKind, yup.AnyObjectSchema>

const isKind = (kind: unknown): kind is KitKind => typeof kind === 'string' && Object.hasOwn(kitSchemas, kind)

const unknownKind = yup.object({ kind: yup.string().test('kind', 'Nothing of that kind is in a kit.', () => false) })

/** What a thing of the kit is checked against: by its kind, where there is such a kind. */
export function kitSchemaFor(sent: unknown): yup.AnyObjectSchema {
  const kind = typeof sent === 'object' && sent !== null && 'kind' in sent ? sent.kind : undefined
  return isKind(kind) ? kitSchemas[kind] : unknownKind
}
