import type { Sharpening, WalkEvent } from '@undercliff/core'
import * as yup from 'yup'
import { oneDamage } from './entries'
import { cutterNumber, id, deviceInstant, lengthUm, oneOf, strictObject, text } from './fields'
import { sharpeningFields } from './sharpening'

/** A sharpening as a device keeps it: what was wanted, and what happened since. */
export interface KeptWalk extends Pick<
  Sharpening,
  'action' | 'tool' | 'personId' | 'fileAge' | 'fileBite' | 'first' | 'speeds'
> {
  /** Things of the kit that it uses. */
  readonly fileId?: string
  readonly wheelId?: string
  readonly grinderId?: string
  /** It was done with a job sheet in hand, and is only written down now. */
  readonly fromPaper?: boolean
  /** The entry by which the loop's log knows that it was begun. */
  readonly begunId?: string
  readonly events: readonly WalkEvent[]
}

/** Answer of `GET /api/loops/:id/under-way`: who is at it, where, since when, and how far. */
export interface UnderWay {
  readonly personId: string
  readonly deviceId: string
  readonly device: string
  readonly version: number
  readonly savedAt: string
  readonly walk: KeptWalk
}

/** Body of `PUT /api/loops/:id/under-way`. */
export interface SaveUnderWay {
  readonly deviceId: string
  readonly device: string
  /** Whether it is taken over from wherever it is under way. */
  readonly takeOver?: boolean
  readonly walk: KeptWalk
}

/** More happens in no sharpening. */
const MOST_EVENTS = 3000
const at = { at: deviceInstant() }
const events = {
  done: strictObject({ ...at, kind: oneOf(['done'], 'The kind'), count: yup.number().integer().min(0).max(500) }),
  read: strictObject({
    ...at,
    kind: oneOf(['read'], 'The kind'),
    cutter: cutterNumber(),
    um: lengthUm().required('The length is missing.'),
    confirmed: yup.boolean(),
  }),
  damage: strictObject({ ...at, kind: oneOf(['damage'], 'The kind'), cutter: cutterNumber(), damage: oneDamage() }),
  angle: strictObject({
    ...at,
    kind: oneOf(['angle'], 'The kind'),
    cutter: cutterNumber(),
    deg: yup.number().required().min(0).max(60),
  }),
  clean: strictObject({ ...at, kind: oneOf(['clean'], 'The kind') }),
  skip: strictObject({ ...at, kind: oneOf(['skip'], 'The kind') }),
  back: strictObject({ ...at, kind: oneOf(['back'], 'The kind') }),
  unchecked: strictObject({ ...at, kind: oneOf(['unchecked'], 'The kind') }),
} satisfies Record<WalkEvent['kind'], yup.AnyObjectSchema>

const event = yup.lazy((sent: unknown) => {
  const kind = typeof sent === 'object' && sent !== null && 'kind' in sent ? sent.kind : undefined
  return typeof kind === 'string' && Object.hasOwn(events, kind)
    ? (events[kind as WalkEvent['kind']] as yup.AnyObjectSchema)
    : yup.object({ kind: yup.string().test('kind', 'No sharpening knows that.', () => false) })
})

/** Body of `PUT /api/loops/:id/under-way`. */
export const underWaySchema = strictObject({
  deviceId: id(),
  device: text(80).required('Say what the device is called.'),
  takeOver: yup.boolean(),
  walk: strictObject({
    ...sharpeningFields,
    fileId: id().optional(),
    wheelId: id().optional(),
    grinderId: id().optional(),
    fromPaper: yup.boolean(),
    begunId: id().optional(),
    events: yup.array(event).required('What happened is missing.').max(MOST_EVENTS),
  }).required('The sharpening is missing.'),
})
