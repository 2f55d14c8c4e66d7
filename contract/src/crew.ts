import { FILE_SCHOOLS, LENGTH_PREFERENCES, PITCH_CLASSES } from '@undercliff/core'
import * as yup from 'yup'
import { driveLinks, gaugeUm, profileValues } from './entries'
import { id, lengthUm, name, oneOf, strictObject } from './fields'

/** A saw as it is added. */
export const newSawSchema = strictObject({
  id: id(),
  nickname: name(40),
  pitchClass: oneOf(PITCH_CLASSES, 'The pitch'),
  gaugeUm: gaugeUm(),
  driveLinks: driveLinks(),
  nosePitchClass: yup.string().nullable().oneOf([...PITCH_CLASSES, null], 'The pitch of the nose is not one in use.'),
})

/** What a crew is called and reads lengths in. */
export const crewChangeSchema = strictObject({ name: name(60), lengths: oneOf(LENGTH_PREFERENCES, 'The unit') })
export type CrewChange = yup.InferType<typeof crewChangeSchema>

/** A person as they are added. */
export const newPersonSchema = strictObject({
  id: id(),
  name: name(40),
  role: yup.string<'lead' | 'sawyer'>().oneOf(['lead', 'sawyer'], 'A person is a lead or a sawyer.'),
})
export type NewPerson = yup.InferType<typeof newPersonSchema>

const limit = () => lengthUm().required('A limit is missing.')
const tanks = () => yup.number().required('A limit is missing.').min(0).max(1000)

/** House rules. What a later version added may be missing; it is taken as common practice. */
export const rulesSchema = strictObject({
  version: yup.number().required().integer().min(1),
  gaugeSchool: oneOf(['constant', 'progressive'], 'The depth-gauge rule'),
  fileSchool: yup.string().oneOf([...FILE_SCHOOLS], 'The file rule is not known.'),
  chiselAngleDeg: yup.number().min(10, 'No chisel is filed to such an angle.').max(40, 'No chisel is filed to such an angle.'),
  gaugeHighUm: limit(),
  gaugeLowUm: limit(),
  reserveUm: limit(),
  largestFilingUm: limit(),
  evennessUm: limit(),
  sideDifferenceUm: limit(),
  touchUpTanks: tanks(),
  benchTanks: tanks(),
})

/** A profile of the crew's own. */
export const newProfileSchema = strictObject({ id: id(), name: name(40), values: strictObject(profileValues).required() })
