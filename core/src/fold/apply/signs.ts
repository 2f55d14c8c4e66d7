import type { Cause, Sign } from '../../log'
import type { OpenSign } from '../../state'
import type { Draft } from '../draft'
import type { Applier } from './applier'
import { endSpell } from './spells'

/** What a sharpening may have done away with: whether it did, the next cut tells anew. */
const OF_THE_EDGE: ReadonlySet<Sign> = new Set(['dust', 'push', 'pulls', 'sharpButNoCut', 'dullAtOnce', 'cornerBright'])
/** What lowering gauges to a plate answers. */
const OF_THE_GAUGES: ReadonlySet<Sign> = new Set(['smallerShavings', 'snatches', 'chatters', 'dust', 'push'])
/** What belongs to a loop on this bar and sprocket. */
const OF_THE_MOUNT: ReadonlySet<Sign> = new Set(['hot', 'sparks', 'comesOff'])

/** Causes that any sharpening of both sides does away with. */
const SHARPENED_AWAY: ReadonlySet<Cause> = new Set(['dull', 'leftSharper', 'rightSharper'])
/** Causes that a wheel does away with, or a file where somebody saw to it. */
const SHAPED_AWAY: ReadonlySet<Cause> = new Set([
  'hook',
  'backSlope',
  'anglesDiffer',
  'blued',
  'struck',
  'leftLonger',
  'rightLonger',
])
/** Causes that a look at the whole loop answers: it names them, or passes them. */
const INSPECTED: ReadonlySet<Cause> = new Set(['struck', 'blued', 'tangs', 'hook', 'backSlope', 'anglesDiffer'])
/** Signs that call for such a look. */
const OF_THE_LOOK: ReadonlySet<Sign> = new Set(['cornerBright', 'dullAtOnce'])
const LOWERED_AWAY: ReadonlySet<Cause> = new Set(['gaugesHigh', 'gaugesUneven'])
const OF_SIDES: ReadonlySet<Cause> = new Set(['leftLonger', 'rightLonger'])
const OF_GAUGES: ReadonlySet<Cause> = new Set(['gaugesHigh', 'gaugesUneven', 'gaugesLow'])
/** Causes that leave with the saw. */
const OF_THE_SAW: ReadonlySet<Cause> = new Set(['bar', 'groove', 'gaugeMismatch', 'sprocket', 'pitchMismatch'])
/** What the day was like, and what whoever finds it puts right at once: nothing of it is left to be known. */
const PASSING: ReadonlySet<Cause> = new Set(['wood', 'grain', 'greedy', 'dirt', 'tooTight', 'slack', 'noOil'])

/** Ends signs; an entry is over when none of its signs is left. */
function endSigns(draft: Draft, ended: ReadonlySet<Sign>): void {
  if (draft.signs.length === 0) return
  draft.signs = draft.signs.flatMap((open) => {
    const left = open.signs.filter((sign) => !ended.has(sign))
    return left.length === 0 ? [] : left.length === open.signs.length ? [open] : [{ ...open, signs: left }]
  })
}

const putRight = (draft: Draft, causes: ReadonlySet<Cause>): void => {
  if (draft.standing.length > 0) draft.standing = draft.standing.filter((cause) => !causes.has(cause))
}

/** What is known of some causes by now stands against whatever a look into a sign showed of them before. */
function overtakeLooks(draft: Draft, causes: ReadonlySet<Cause>): void {
  if (draft.signs.length === 0) return
  draft.signs = draft.signs.map((open) => ({
    ...open,
    looks: open.looks.map(({ look, found }) => ({ look, found: found.filter((cause) => !causes.has(cause)) })),
  }))
}

/** The edges were taken back: on both sides or one, and shaped anew or not. */
export function edgesDone(draft: Draft, bothSides: boolean, shaped: boolean): void {
  if (bothSides) {
    endSigns(draft, OF_THE_EDGE)
    putRight(draft, SHARPENED_AWAY)
  }
  if (shaped) putRight(draft, SHAPED_AWAY)
}

/** Gauges were lowered; without a plate nobody knows how far. */
export function gaugesDone(draft: Draft, byEye: boolean): void {
  putRight(draft, LOWERED_AWAY)
  endSigns(draft, byEye ? new Set<Sign>(['smallerShavings']) : OF_THE_GAUGES)
}

/** Gauges were read: what was thought of them is known now. */
export function gaugesRead(draft: Draft): void {
  draft.gaugesByEye = false
  putRight(draft, OF_GAUGES)
  overtakeLooks(draft, OF_GAUGES)
}

/** Both sides were measured: which is longer is known now. */
export function sidesRead(draft: Draft): void {
  putRight(draft, OF_SIDES)
  overtakeLooks(draft, OF_SIDES)
}

/** Somebody looked the whole loop over: what was found is named, and what is not named was passed. */
export function lookedOver(draft: Draft): void {
  endSigns(draft, OF_THE_LOOK)
  putRight(draft, INSPECTED)
  overtakeLooks(draft, INSPECTED)
}

/** The loop went on a saw, or came off one. */
export function mountedAnew(draft: Draft): void {
  endSigns(draft, OF_THE_MOUNT)
  putRight(draft, OF_THE_SAW)
}

/** The saw told something. */
export const applyNoticed: Applier<'noticed'> = (draft, { id, happenedAt, personId, signs, toward, wood, along }) => {
  draft.signs.push({
    entryId: id,
    at: happenedAt,
    personId,
    signs,
    toward: toward ?? null,
    wood: wood ?? null,
    along: along ?? null,
    looks: [],
  })
}

/** Somebody looked for what is behind it. */
export const applyLooked: Applier<'looked'> = (draft, { into, look, found }) => {
  draft.signs = draft.signs.map((open): OpenSign =>
    open.entryId === into ? { ...open, looks: [...open.looks, { look, found }] } : open,
  )
}

/** Somebody found what it was. */
export const applyTraced: Applier<'traced'> = (draft, { into, cause }) => {
  const open = draft.signs.find(({ entryId }) => entryId === into)
  draft.signs = draft.signs.filter((one) => one !== open)
  if (cause === null) return
  if (open !== undefined) draft.traced.push({ signs: open.signs, toward: open.toward, cause })
  if (!PASSING.has(cause) && !draft.standing.includes(cause)) draft.standing = [...draft.standing, cause]
  if (cause === 'dull') endSpell(draft, true)
}
