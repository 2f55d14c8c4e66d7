import * as yup from 'yup'

/** Longest length the wire takes, in micrometres: ten metres. */
const LONGEST_UM = 10_000_000

const INSTANT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/
/** Control characters and lone surrogates have no place in a name or note. */
const PRINTABLE = /^(?:[^\u0000-\u0008\u000b-\u001f\u007f\ud800-\udfff]|[\ud800-\udbff][\udc00-\udfff])*$/

const realInstant = (text: string | undefined): boolean => {
  if (text === undefined) return true
  const at = new Date(text)
  return !Number.isNaN(at.getTime()) && at.toISOString() === text && at.getUTCFullYear() >= 1990
}

/** As a device writes it, whose clock may show any year: ECMA-262 gives those beyond four figures six and a sign. */
const DEVICE_INSTANT = /^(?:\d{4}|[+-]\d{6})-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/
const isDeviceInstant = (text: string): boolean =>
  DEVICE_INSTANT.test(text) && !Number.isNaN(Date.parse(text)) && new Date(text).toISOString() === text

/** Whether something is a time that a device may have said, whatever its clock showed, in four figures of a year. */
export const isSaidInstant = (value: unknown): value is string =>
  typeof value === 'string' && INSTANT.test(value) && isDeviceInstant(value)

/** Whether something is a time as it is written here. */
export const isInstant = (value: unknown): value is string =>
  typeof value === 'string' && INSTANT.test(value) && realInstant(value)

const ID = /^[A-Za-z0-9_-]{8,36}$/
/** Whether something can be an id. */
export const isId = (value: unknown): value is string => typeof value === 'string' && ID.test(value)

export const id = () =>
  yup.string().required('An id is missing.').matches(ID, 'An id is 8 to 36 letters, digits, dashes or underscores.')

export const text = (longest: number) =>
  yup
    .string()
    .max(longest, `At most ${longest} characters.`)
    .matches(PRINTABLE, { message: 'Only characters that can be printed.', excludeEmptyString: true })

/** A name as an earlier version took it; for what was written then. */
export const anyName = (longest = 60) =>
  text(longest)
    .required('A name is missing.')
    .test(
      'not-blank',
      'A name cannot be blank.',
      (value: string | undefined) => value === undefined || (value.trim() === value && value !== ''),
    )

/**
 * What the database cannot tell apart in a name, and no reader sees: format and private characters,
 * line breaks, and everything beyond the basic plane, such as emoji.
 */
const NOT_IN_A_NAME = /[\p{Cc}\p{Cf}\p{Co}\p{Cn}\p{Zl}\p{Zp}\u{fe00}-\u{fe0f}\u{10000}-\u{10ffff}]/u

/** A name that tells its bearer from everybody else, on paper and in the database. */
export const name = (longest = 60) =>
  anyName(longest)
    .test(
      'letter',
      'A name has a letter or a digit.',
      (value: string | undefined) => value === undefined || /[\p{L}\p{N}]/u.test(value),
    )
    .test(
      'told-apart',
      'A name is written in letters, digits and signs, without emoji or characters that cannot be seen.',
      (value: string | undefined) => value === undefined || !NOT_IN_A_NAME.test(value),
    )

export const instant = () =>
  yup
    .string()
    .required('The time is missing.')
    .matches(INSTANT, 'A time is written like 2026-03-14T09:30:00.000Z.')
    .test('real', 'There is no such date.', realInstant)

/** A time by the clock of a device: whatever that shows, it is put right rather than refused. */
export const deviceInstant = () =>
  yup
    .string()
    .test(
      'real',
      'A time is written like 2026-03-14T09:30:00.000Z.',
      (text) => text === undefined || isDeviceInstant(text),
    )
    .required('The time is missing.')

export const lengthUm = () =>
  yup
    .number()
    .integer('A length is a whole number of micrometres.')
    .min(0, 'A length cannot be less than nothing.')
    .max(LONGEST_UM, 'That is longer than ten metres.')

export const cutterNumber = () =>
  yup
    .number()
    .required('The cutter is missing.')
    .integer('A cutter has a whole number.')
    .min(1, 'Cutters are counted from 1.')
    .max(125, 'No loop has that many cutters.')

export const oneOf = <T extends string>(values: readonly T[], what: string) =>
  yup
    .string<T>()
    .required(`${what} is missing.`)
    .oneOf([...values], `${what} is one of: ${values.join(', ')}.`)

export const yesNo = () => yup.boolean()

export const strictObject = <S extends yup.ObjectShape>(shape: S) =>
  yup.object(shape).noUnknown('There is a field that is not known here: ${unknown}.').strict()

export const optionalOneOf = <T extends string>(values: readonly T[], what: string) =>
  yup.string<T>().oneOf([...values], `${what} is one of: ${values.join(', ')}.`)
