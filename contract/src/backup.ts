import {
  DATE_ORDERS,
  type CrewProfile,
  type DateOrder,
  type Entry,
  type HouseRules,
  type KitItem,
  type LengthPreference,
  type SawEntry,
} from '@undercliff/core'
import * as yup from 'yup'
import type { NewSaw, Person } from './answers'
import { backedUpPersonSchema, backedUpProfileSchema, backedUpSawSchema, rulesSchema } from './crew'
import { kitSchemaFor } from './kit'
import { backedUpPhotoSchema, type BackedUpPhoto } from './photos'
import { anyName, instant, oneOf, strictObject } from './fields'

/** The version of the backup format that this Undercliff writes, and the newest that it reads. */
export const BACKUP_VERSION = 9

/** Everything of a crew's in one file. `docs/house/formats.md` describes it. */
export interface Backup {
  readonly format: 'undercliff-backup'
  readonly version: number
  readonly writtenAt: string
  /** SHA-256 of the JSON text of `content`, in hexadecimal. */
  readonly checksum: string
  readonly content: BackupContent
}

export interface BackupContent {
  readonly crew: {
    readonly name: string
    readonly lengths: LengthPreference
    /** Missing in what was written before crews could say it. */
    readonly dates?: DateOrder
    readonly rules: HouseRules
  }
  readonly people: readonly Person[]
  readonly saws: readonly NewSaw[]
  /** Not in version 1. */
  readonly profiles: readonly CrewProfile[]
  /** Missing in what was written before there was a kit. */
  readonly kit?: readonly KitItem[]
  /** Missing in what was written before there were photographs. */
  readonly photos?: readonly BackedUpPhoto[]
  /** Logs of the saws, in the order in which they were written. Not in version 1. */
  readonly sawEntries: readonly SawEntry[]
  /** Every log, in the order in which the entries were written. */
  readonly entries: readonly Entry[]
}

/** The outer part of a backup, checked before its checksum is. */
export const backupSchema = strictObject({
  format: oneOf(['undercliff-backup'], 'The format'),
  version: yup.number().required('The version is missing.').integer().min(1),
  writtenAt: instant(),
  checksum: yup
    .string()
    .required('The checksum is missing.')
    .matches(/^[0-9a-f]{64}$/, 'A checksum is 64 hexadecimal digits.'),
  content: yup.object().required('The content is missing.'),
})

/** What is in a backup, but for its entries, which are checked as new entries are. */
export const backupContentSchema = strictObject({
  crew: strictObject({
    name: anyName(60),
    lengths: oneOf(['mm', 'inch', 'both'], 'The unit'),
    dates: oneOf(DATE_ORDERS, 'The way of writing days').optional(),
    rules: rulesSchema.required(),
  }).required(),
  people: yup.array(backedUpPersonSchema.required()).required('The people are missing.').max(1000),
  saws: yup.array(backedUpSawSchema.required()).required('The saws are missing.').max(1000),
  profiles: yup.array(backedUpProfileSchema.required()).max(500),
  kit: yup.array(yup.lazy(kitSchemaFor)).max(1000),
  photos: yup.array(backedUpPhotoSchema.required()).max(10_000),
  sawEntries: yup.array().max(100_000),
  entries: yup.array().required('The entries are missing.').max(500_000),
})
