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
import { rulesSchema } from './crew'
import type { BackedUpPhoto } from './photos'
import { anyName, instant, oneOf, strictObject } from './fields'

/** The version of the backup format that this Undercliff writes, and the newest that it reads. */
export const BACKUP_VERSION = 10

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
  /** What an earlier restore set aside; missing where nothing was. */
  readonly setAside?: readonly SetAsideRow[]
}

/** A row of a backup that could not be brought in as what it was. */
export interface SetAsideRow {
  /** The list that it stood in. */
  readonly part: string
  readonly why: string
  readonly row: unknown
}

/** Answer of `POST /api/backup` and of `GET /api/set-aside`. */
export interface SetAsideAnswer {
  readonly rows: readonly SetAsideRow[]
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

/** What a backup says of the crew itself. */
export const backupCrewSchema = strictObject({
  name: anyName(60),
  lengths: oneOf(['mm', 'inch', 'both'], 'The unit'),
  dates: oneOf(DATE_ORDERS, 'The way of writing days').optional(),
  rules: rulesSchema.required(),
})

/**
 * The parts of a backup. Their rows are checked one by one, as they are when they are first written; how many there may
 * be is bounded by nothing but the size of the file.
 */
export const backupContentSchema = yup.object({
  crew: yup.object().required('The crew is missing.'),
  people: yup.array().required('The people are missing.'),
  saws: yup.array().required('The saws are missing.'),
  profiles: yup.array(),
  kit: yup.array(),
  photos: yup.array(),
  sawEntries: yup.array(),
  entries: yup.array().required('The entries are missing.'),
  setAside: yup.array(),
})
