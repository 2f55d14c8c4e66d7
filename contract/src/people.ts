import { ROLES, type Role } from '@undercliff/core'
import * as yup from 'yup'
import { id, name, oneOf, strictObject } from './fields'
import { PASSWORD_LENGTH, PIN_LENGTH } from './limits'

const login = () =>
  yup
    .string()
    .required('The sign-in name is missing.')
    .matches(/^[a-z0-9][a-z0-9._-]{1,39}$/, 'A sign-in name is 2 to 40 small letters, digits, dots or dashes.')
const newPassword = () =>
  yup
    .string()
    .required('The password is missing.')
    .min(PASSWORD_LENGTH.least, `A password has at least ${PASSWORD_LENGTH.least} characters. A few words do well.`)
    .max(PASSWORD_LENGTH.most, `A password has at most ${PASSWORD_LENGTH.most} characters.`)
/** A password that is tried: whatever was typed, up to a length. */
const password = () => yup.string().required('The password is missing.').max(1000, 'No password is that long.')
const pin = () =>
  yup
    .string()
    .required('The PIN is missing.')
    .matches(/^\d{4,8}$/, `A PIN is ${PIN_LENGTH.least} to ${PIN_LENGTH.most} digits.`)

/** Body of `POST /api/session`. */
export const signInSchema = strictObject({
  login: yup.string().required('The sign-in name is missing.').max(100, 'No sign-in name is that long.'),
  password: password(),
})
export type SignIn = yup.InferType<typeof signInSchema>

/** Body of `POST /api/setup`: the crew and its first lead. */
export const setUpSchema = strictObject({ crewName: name(60), name: name(40), login: login(), password: newPassword() })
export type SetUp = yup.InferType<typeof setUpSchema>

/** Body of `PUT /api/accounts/:personId`: lets somebody sign in, or changes how. */
export const accountSchema = strictObject({
  login: login(),
  password: newPassword().optional(),
  role: oneOf(ROLES, 'The role'),
})
export interface AccountChange {
  readonly login: string
  /** Left out, the password stays as it is. */
  readonly password?: string
  readonly role: Role
}

/** Body of `PUT /api/password`. */
export const passwordSchema = strictObject({ current: password(), next: newPassword() })
export type PasswordChange = yup.InferType<typeof passwordSchema>

/** Body of `PUT /api/pin`: for quick switching at a shared device; null takes it away. */
export const pinSchema = strictObject({ pin: pin().nullable().defined('The PIN is missing.') })
export interface PinChange {
  readonly pin: string | null
}

/** Body of `PUT /api/session/shared`. */
export const sharedSchema = strictObject({ shared: yup.boolean().required('Say whether the device is shared.') })
export type SharedChange = yup.InferType<typeof sharedSchema>

/** Body of `POST /api/session/switch`. */
export const switchSchema = strictObject({ personId: id(), pin: pin() })
export type Switch = yup.InferType<typeof switchSchema>

/** A demo person who can sign in; said on the sign-in screen. */
export interface DemoSignIn {
  readonly name: string
  readonly role: Role
  readonly login: string
  readonly password: string
}

/** Answer of `GET /api/session`. */
export type SessionAnswer =
  /** Nobody can sign in yet: the first lead sets up. */
  { readonly state: 'setUp' } | { readonly state: 'signedOut'; readonly demo: readonly DemoSignIn[] } | SignedIn

export interface SignedIn {
  readonly state: 'signedIn'
  readonly personId: string
  readonly name: string
  /** What they may do in this session; somebody who came by PIN works as a sawyer. */
  readonly role: Role
  readonly crewId: string
  /** Goes back in the header `X-CSRF-Token` of everything that changes something. */
  readonly csrfToken: string
  /** A bench device that people take over by PIN. */
  readonly shared: boolean
  readonly byPin: boolean
  readonly hasPin: boolean
  /** Who may take over by PIN; empty where the device is not shared. */
  readonly switchable: readonly { readonly personId: string; readonly name: string }[]
}

/** Somebody who can sign in, as a lead sees them. */
export interface AccountAnswer {
  readonly personId: string
  readonly name: string
  readonly login: string
  readonly role: Role
  readonly hasPin: boolean
}

/** A place where somebody is signed in. */
export interface SessionListed {
  readonly id: string
  readonly personId: string
  readonly name: string
  readonly device: string
  readonly startedAt: string
  readonly seenAt: string
  readonly shared: boolean
  readonly current: boolean
}
