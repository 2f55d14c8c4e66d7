import * as yup from 'yup'
import { CUTTER_TYPES, PITCH_CLASSES } from '@undercliff/core'

const part = () => yup.number().min(0).max(1).required()
const positive = () => yup.number().positive().required()
const atLeast = (least: number) => yup.number().min(least).required()

const person = yup
  .object({
    /** What a stroke of a fresh file takes, micrometres. */
    biteUm: positive(),
    /** How much more it takes on the right than on the left, as a part. */
    rightMore: yup.number().min(-0.5).max(0.5).required(),
    /** How much less the last cutters of a side get than the first. */
    tires: part(),
    /** Stray of one cutter, as a part of what comes off. */
    strays: part(),
    /** How often strokes are counted and written down. */
    counts: part(),
  })
  .noUnknown()
  .strict()

const schema = yup
  .object({
    name: yup.string().required(),
    about: yup.string().required(),
    /** How long a loop is followed at most. */
    tanks: yup.number().integer().min(20).max(1000).required(),
    loop: yup
      .object({
        pitchClass: yup.string().oneOf(PITCH_CLASSES).required(),
        gaugeUm: positive(),
        driveLinks: yup.number().integer().min(20).max(250).required(),
        cutterType: yup.string().oneOf(CUTTER_TYPES).required(),
        /** Truth of the length of a new loop, and whether the crew reads it off the box. */
        newLengthUm: positive(),
        newLengthSdUm: atLeast(0),
        boxRead: yup.boolean().required(),
      })
      .noUnknown()
      .required(),
    people: yup.array(person.required()).min(1).required(),
    /** How far crews of this kind differ: in what all take, in how they lean to a side, in the loops they buy. */
    crews: yup
      .object({ bite: part(), side: part(), newLengthUm: atLeast(0) })
      .noUnknown()
      .required(),
    /** Strokes after which a file bites half as well, and at which it is renewed. */
    file: yup.object({ halfAt: positive(), renewedAt: positive() }).noUnknown().required(),
    wheel: yup
      .object({
        depthUm: positive(),
        depthSdUm: atLeast(0),
        /** The right side of a grind against the left: how far it lies on the whole, and how far each strays. */
        turnUm: yup.number().required(),
        turnSdUm: atLeast(0),
        /** Whether they check the stop after the turn, and write that down. */
        checked: yup.boolean().required(),
      })
      .noUnknown()
      .required(),
    reading: yup.object({ sdUm: positive(), wrongCutter: part(), slips: part() }).noUnknown().required(),
    strikes: yup
      .object({ aTank: part(), depthUm: positive(), run: yup.number().integer().min(1).max(30).required() })
      .noUnknown()
      .required(),
    /** Tanks that a sharp loop lasts in clean wood, how sharply that ends, and how much of the work is gritty. */
    dulling: yup
      .object({ tanks: positive(), shape: atLeast(1), gritty: part() })
      .noUnknown()
      .required(),
    /** How often a touch-up, a filing or a pass over the gauges is not written down. */
    forgets: part(),
    /** What this crew does that others do not; all of it left out for one that does none of it. */
    habits: yup
      .object({
        /** How far a grind goes on beyond where it had to end, and how often the stop is read then and written down. */
        overshootUm: atLeast(0),
        stopRead: part(),
        /** All is filed with a two-in-one, and nobody ever writes of gauges. */
        twoInOne: yup.boolean().required(),
        /** What is struck breaks off, and every cutter is read the day after, before anything else is done. */
        readsStrikes: yup.boolean().required(),
      })
      .noUnknown()
      .default(undefined)
      .optional(),
    grinderOwned: yup.boolean().required(),
    shopUsed: yup.boolean().required(),
  })
  .noUnknown()
  .strict()

/** What a crew is really like: none of it is known to the core. Lengths are micrometres. */
export type Scenario = yup.InferType<typeof schema>
export type Person = Scenario['people'][number]

/**
 * A scenario from the text of its file.
 *
 * @throws Error that names every field that cannot be
 */
export function readScenario(text: string): Scenario {
  try {
    return schema.validateSync(JSON.parse(text), { abortEarly: false })
  } catch (error) {
    if (error instanceof yup.ValidationError) throw new Error(`The scenario cannot be:\n${error.errors.join('\n')}`)
    throw new Error(`The scenario is not JSON: ${error instanceof Error ? error.message : String(error)}`)
  }
}
