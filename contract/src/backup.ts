import type { Entry, HouseRules, LengthPreference } from '@undercliff/core'
import * as yup from 'yup'
import type { Person, Saw } from './answers'
import { newPersonSchema, newSawSchema } from './entries'
import { instant, lengthUm, name, oneOf, strictObject } from './fields'

/** The version of the backup format that this Undercliff writes, and the newest that it reads. */
export const BACKUP_VERSION = 1

/** Everything of a crew's in one file. `docs/formats.md` describes it. */
export interface Backup {
  readonly format: 'undercliff-backup'
  readonly version: number
  readonly writtenAt: string
  /** SHA-256 of the JSON text of `content`, in hexadecimal. */
  readonly checksum: string
  readonly content: BackupContent
}

export interface BackupContent {
  readonly crew: { readonly name: string; readonly lengths: LengthPreference; readonly rules: HouseRules }
  readonly people: readonly Person[]
  readonly saws: readonly Saw[]
  /** Every log, in the order in which the entries were written. */
  readonly entries: readonly Entry[]
}

const limit = () => lengthUm().required('A limit is missing.')
const tanks = () => yup.number().required('A limit is missing.').min(0).max(1000)

const rulesSchema = strictObject({
  version: yup.number().required().integer().min(1),
  gaugeSchool: oneOf(['constant', 'progressive'], 'The depth-gauge rule'),
  gaugeHighUm: limit(),
  gaugeLowUm: limit(),
  reserveUm: limit(),
  largestFilingUm: limit(),
  evennessUm: limit(),
  sideDifferenceUm: limit(),
  touchUpTanks: tanks(),
  benchTanks: tanks(),
})

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
    name: name(60),
    lengths: oneOf(['mm', 'inch', 'both'], 'The unit'),
    rules: rulesSchema.required(),
  }).required(),
  people: yup.array(newPersonSchema.required()).required('The people are missing.').max(1000),
  saws: yup.array(newSawSchema.required()).required('The saws are missing.').max(1000),
  entries: yup.array().required('The entries are missing.').max(500_000),
})
