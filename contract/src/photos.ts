import * as yup from 'yup'
import { deviceInstant, id, strictObject, text } from './fields'

/** Longest side of a kept photograph, in pixels: enough to read a plate by. */
export const PHOTO_SIDE_PX = 1280
/** Largest picture that is sent, in bytes; a device scales down before. */
export const PHOTO_BYTES = 1_500_000
/** Most photographs of one saw or loop. */
export const MOST_PHOTOS = 12
/** What all photographs of a crew may take together, in bytes: a backup carries them. */
export const CREW_PHOTO_BYTES = 60_000_000
/** Longest line that says what a photograph shows. */
export const SHOWS_LENGTH = 80

/** What a photograph is of: one saw or one loop. */
export type PhotoSubject =
  | { readonly sawId: string; readonly loopId?: never }
  | { readonly loopId: string; readonly sawId?: never }

/** What is known of a kept photograph besides the picture itself. */
export type PhotoAbout = PhotoSubject & {
  readonly id: string
  /** What it shows, in somebody's words; may be empty. */
  readonly shows: string
  readonly takenAt: string
  /** Who kept it. */
  readonly personId: string
}

/** A photograph of what is stamped on a bar or a box, as a device sends it. */
export type NewPhoto = PhotoSubject & {
  readonly id: string
  readonly shows: string
  readonly takenAt: string
  /** A JPEG, PNG or WebP in Base64 (RFC 4648). The server makes a JPEG of it that carries nothing but the picture. */
  readonly picture: string
}

/** A photograph in a backup: the JPEG that is kept, in Base64. */
export type BackedUpPhoto = PhotoAbout & { readonly picture: string }

const BASE64 = /^(?:[A-Za-z0-9+/]{4})*(?:[A-Za-z0-9+/]{2}==|[A-Za-z0-9+/]{3}=)?$/

const subject = () => id().optional().default(undefined)

const fields = {
  id: id(),
  sawId: subject(),
  loopId: subject(),
  shows: text(SHOWS_LENGTH).defined('Say what it shows, if only with nothing.'),
  takenAt: deviceInstant(),
  picture: yup
    .string()
    .required('The picture is missing.')
    .max(Math.ceil(PHOTO_BYTES / 3) * 4, `A picture takes at most ${PHOTO_BYTES / 1_000_000} MB.`)
    .matches(BASE64, 'A picture is sent in Base64.'),
}
const ofOneThing = (photo: { sawId?: string | undefined; loopId?: string | undefined }): boolean =>
  (photo.sawId === undefined) !== (photo.loopId === undefined)
const OF_ONE = 'A photograph is of one saw or of one loop.'

export const newPhotoSchema = strictObject(fields).test('of-one-thing', OF_ONE, ofOneThing)
export const backedUpPhotoSchema = strictObject({ ...fields, personId: id() }).test('of-one-thing', OF_ONE, ofOneThing)
