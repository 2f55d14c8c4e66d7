import { PITCH_CLASSES, PUT_BACK, SAW_GONE, type SawEntryKind } from '@undercliff/core'
import * as yup from 'yup'
import { driveLinks, gaugeUm, stamp } from './entries'
import { deviceInstant, id, lengthUm, name, oneOf, strictObject, text, yesNo } from './fields'
import { NOTE_LENGTH } from './limits'

const base = {
  id: id(),
  sawId: id(),
  happenedAt: deviceInstant(),
  personId: id().nullable().defined('Say who did the work, or null.'),
  note: text(NOTE_LENGTH),
}
const groove = () => lengthUm().max(20_000, 'No groove is that wide or deep.')

/** One schema for each kind of entry in a saw's log. */
export const sawEntrySchemas = {
  barFitted: strictObject({
    ...base,
    kind: oneOf(['barFitted'], 'The kind'),
    gaugeUm: gaugeUm(),
    driveLinks: driveLinks(),
    nosePitchClass: yup
      .string()
      .nullable()
      .oneOf([...PITCH_CLASSES, null], 'The pitch of the nose is not one in use.')
      .defined('Say what the nose takes, or null for a solid one.'),
    barStamp: stamp(),
  }),
  fitRead: strictObject({
    ...base,
    kind: oneOf(['fitRead'], 'The kind'),
    pitchClass: oneOf(PITCH_CLASSES, 'The pitch').optional(),
    gaugeUm: gaugeUm().optional(),
    driveLinks: driveLinks().optional(),
    nosePitchClass: yup
      .string()
      .nullable()
      .oneOf([...PITCH_CLASSES, null], 'The pitch of the nose is not one in use.'),
    barStamp: stamp(),
  }),
  barFlipped: strictObject({ ...base, kind: oneOf(['barFlipped'], 'The kind') }),
  barChecked: strictObject({
    ...base,
    kind: oneOf(['barChecked'], 'The kind'),
    grooveWidthUm: groove(),
    grooveDepthUm: groove(),
    burrs: yesNo(),
  }),
  railsDressed: strictObject({ ...base, kind: oneOf(['railsDressed'], 'The kind') }),
  putBack: strictObject({
    ...base,
    kind: oneOf(['putBack'], 'The kind'),
    done: yup
      .array(oneOf(PUT_BACK, 'What was looked to'))
      .required('Say what was looked to.')
      .min(1, 'Say what was looked to.')
      .max(PUT_BACK.length),
  }),
  tensionLooked: strictObject({
    ...base,
    kind: oneOf(['tensionLooked'], 'The kind'),
    stayed: yesNo().required('Say whether it stayed.'),
  }),
  oilFilled: strictObject({ ...base, kind: oneOf(['oilFilled'], 'The kind') }),
  hoursSaid: strictObject({
    ...base,
    kind: oneOf(['hoursSaid'], 'The kind'),
    tanks: yup.number().required('The tanks are missing.').moreThan(0, 'More than no tanks.').max(200),
    hours: yup.number().required('The hours are missing.').moreThan(0, 'More than no hours.').max(1000),
  }),
  sprocketRenewed: strictObject({
    ...base,
    kind: oneOf(['sprocketRenewed'], 'The kind'),
    pitchClass: oneOf(PITCH_CLASSES, 'The pitch'),
  }),
  sawRenamed: strictObject({
    ...base,
    kind: oneOf(['sawRenamed'], 'The kind'),
    from: name(40).required('Say what it was called.'),
    to: name(40).required('Say what it is called now.'),
  }),
  sawGone: strictObject({
    ...base,
    kind: oneOf(['sawGone'], 'The kind'),
    how: oneOf(SAW_GONE, 'Why it is gone'),
    to: text(60),
  }),
  sawBack: strictObject({ ...base, kind: oneOf(['sawBack'], 'The kind') }),
  sawCorrected: strictObject({ ...base, kind: oneOf(['sawCorrected'], 'The kind'), strikes: id() }),
} satisfies Record<SawEntryKind, yup.AnyObjectSchema>
