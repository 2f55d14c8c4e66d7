import {
  checkFigure,
  checkLength,
  depthBounds,
  isEntered,
  sayFigureCheck,
  settingBounds,
  CUTTER_DAMAGE,
  MOST_TOP_PLATE_DEG,
  readAngle,
  readMeasured,
  sayRefusal,
  writeMm,
  type CutterDamage,
  type CutterDamageKind,
  type CutterReading,
  type CutterState,
  type FigureBounds,
  type LengthCheck,
  type LengthUnit,
  type LoopSpec,
  type Um,
} from '@undercliff/core'
import { allAlike } from '../../parts/allAlike'

/** Round the loop as it comes, or one side first and then the other. */
export type WalkOrder = 'round' | 'sides'

/** What has been noted at one cutter on this walk. */
interface Noted {
  readonly lengthUm?: Um
  /** It was read once more while the caliper was on it. */
  readonly confirmed?: true
  readonly damage?: readonly CutterDamage[]
  readonly settingUm?: Um
  /** Top plate angle as it was found, degrees. */
  readonly angleDeg?: number
}

/** Why a length is asked about while the caliper is still on the cutter. */
export type Doubtful =
  /** Nothing that is known explains it: it would be held out. */
  | { readonly why: 'shorter' | 'longer'; readonly byUm: Um }
  /** The same figure came twice at once. */
  | { readonly why: 'twice' }

/** A depth or a setting is asked for; one that is probably a slip waits until Enter takes it all the same. */
type FigureAsking =
  | { readonly what: 'depth'; readonly kind: CutterDamageKind; readonly sureUm?: Um }
  | { readonly what: 'setting'; readonly sureUm?: Um }

/** What the field is asking for. */
type Asking =
  | { readonly what: 'length' }
  | { readonly what: 'angle' }
  | FigureAsking
  /** A length that is probably a slip; Enter takes it all the same. */
  | { readonly what: 'sure'; readonly lengthUm: Um; readonly check: LengthCheck & { ok: false } }
  /** A length that nobody would have expected; read so once more, or Enter, and it stands. */
  | { readonly what: 'again'; readonly lengthUm: Um; readonly doubtful: Doubtful }

/** A walk round a loop. Nothing changes in place, so that a step is undone by going back to it. */
export interface Walk {
  readonly order: WalkOrder
  /** Cutter numbers in the order in which they are visited. */
  readonly route: readonly number[]
  /** Place on the route; its length when the walk is done. */
  readonly at: number
  readonly noted: Readonly<Record<number, Noted>>
  readonly asking: Asking
  /** What was wrong with the last thing typed. */
  readonly wrong: string | null
  /** It could not be read at all, and stays in the field. */
  readonly unread?: boolean
}

/** What the walk has to know of the loop. */
export interface WalkLoop {
  readonly spec: LoopSpec
  readonly cutters: readonly CutterState[]
  readonly bare: 'mm' | 'inch'
}

const LENGTH: Asking = { what: 'length' }

const routeOf = (cutters: readonly CutterState[], order: WalkOrder): number[] => {
  const numbers = cutters.map(({ number }) => number)
  if (order === 'round') return numbers
  const firstHand = cutters[0]?.hand
  const side = (same: boolean) =>
    cutters.filter(({ hand }) => (hand === firstHand) === same).map(({ number }) => number)
  return [...side(true), ...side(false)]
}

/** A walk that begins at the start mark. */
export const beginWalk = (cutters: readonly CutterState[], order: WalkOrder): Walk => ({
  order,
  route: routeOf(cutters, order),
  at: 0,
  noted: {},
  asking: LENGTH,
  wrong: null,
})

/** The number of the cutter in hand; null when the walk is done. */
export const cutterInHand = ({ route, at }: Walk): number | null => route[at] ?? null

/** The same walk in another order, standing at the same cutter. */
export function reorder(walk: Walk, cutters: readonly CutterState[], order: WalkOrder): Walk {
  const route = routeOf(cutters, order)
  const here = cutterInHand(walk)
  return { ...walk, order, route, at: here === null ? route.length : route.indexOf(here), asking: LENGTH, wrong: null }
}

const moveTo = (walk: Walk, at: number): Walk => ({
  ...walk,
  at: Math.max(0, Math.min(walk.route.length, at)),
  asking: LENGTH,
  wrong: null,
})

const note = (walk: Walk, noted: Noted): Walk => {
  const here = cutterInHand(walk)
  return here === null
    ? walk
    : { ...walk, noted: { ...walk.noted, [here]: { ...walk.noted[here], ...noted } }, wrong: null }
}

/** Damage of a cutter as this walk has it: what was noted, else what was known before. */
export const damageOf = (walk: Walk, loop: WalkLoop, number: number): readonly CutterDamage[] =>
  walk.noted[number]?.damage ?? loop.cutters[number - 1]?.damage ?? []

const known = (walk: Walk, loop: WalkLoop): CutterState | undefined => loop.cutters[(cutterInHand(walk) ?? 0) - 1]

/** Notes a length, with the cutter's damage as it is shown, and goes on to the next. */
function takeLength(walk: Walk, loop: WalkLoop, lengthUm: Um, confirmed = false): Walk {
  const here = cutterInHand(walk)
  if (here === null) return walk
  const { [here]: { confirmed: _before, ...noted } = {}, ...others } = walk.noted
  const fresh = { ...walk, noted: { ...others, [here]: noted } }
  const sure = confirmed ? { confirmed: true as const } : {}
  return moveTo(note(fresh, { lengthUm, ...sure, damage: damageOf(walk, loop, here) }), walk.at + 1)
}

/** The length that was noted by the last step, where nobody has said yet that it stands; else null. */
export function justRead(before: Walk, after: Walk): Um | null {
  const here = cutterInHand(before)
  if (here === null || after.at !== before.at + 1 || before.asking.what === 'again') return null
  const noted = after.noted[here]
  return noted?.confirmed === true ? null : (noted?.lengthUm ?? null)
}

/** Within this two readings of one cutter are the same, a hundredth of a millimetre or two of a hand's. */
const SAME_UM = 60

const sayDoubtful = (doubtful: Doubtful, lengthUm: Um): string =>
  doubtful.why === 'twice'
    ? `${writeMm(lengthUm)} came twice at once. Is it this cutter's too?`
    : `${writeMm(lengthUm)} is ${writeMm(doubtful.byUm)} ${doubtful.why} than anything explains. Read it again.`

/** Stays at the cutter, and asks: the reading is no reading yet. */
export const askAgain = (before: Walk, lengthUm: Um, doubtful: Doubtful): Walk => ({
  ...before,
  asking: { what: 'again', lengthUm, doubtful },
  wrong: `${sayDoubtful(doubtful, lengthUm)} Enter: it stands.`,
})

/** Marks what is wrong with the cutter in hand on every other: a depth that was read here is an estimate there. */
export function allLikeThis(walk: Walk, loop: WalkLoop): Walk {
  const here = cutterInHand(walk)
  const shown = here === null ? [] : damageOf(walk, loop, here)
  if (here === null || shown.length === 0) return { ...walk, wrong: 'Mark what is wrong with this one first.' }
  const noted: Record<number, Noted> = { ...walk.noted, [here]: { ...walk.noted[here], damage: shown } }
  const others = allAlike(here, loop.cutters.length, (number) => damageOf(walk, loop, number))
  for (const [number, damage] of Object.entries(others))
    noted[Number(number)] = { ...walk.noted[Number(number)], damage }
  return { ...walk, noted, wrong: null }
}

const sayCheck = ({ reason, meantUm }: LengthCheck & { ok: false }, lengthUm: Um, spec: LoopSpec): string => {
  const meant = meantUm === null ? '' : ` Was it ${writeMm(meantUm)}?`
  switch (reason) {
    case 'longerThanNew':
      return (
        `${writeMm(lengthUm)} is longer than a new cutter ` +
        `${isEntered(spec, 'newLengthUm') ? 'is' : 'is thought to be'}, ${writeMm(spec.newLengthUm)}.`
      )
    case 'slippedDecimal':
      return `${writeMm(lengthUm)} looks like a slipped decimal.${meant}`
    case 'wrongUnit':
      return `${writeMm(lengthUm)} looks like the wrong unit.${meant}`
    case 'suddenLoss':
      return `${writeMm(lengthUm)} is far shorter than it was.`
  }
}

/**
 * What was typed, once Enter is pressed: a length, a depth, a setting, or nothing.
 *
 * An empty depth is a depth that nobody has measured. A length that is probably a slip is asked
 * about once; Enter on the empty field takes it.
 */
export function enter(walk: Walk, loop: WalkLoop, typed: string): Walk {
  const text = typed.trim()
  const here = cutterInHand(walk)
  if (here === null) return walk
  const { unread: _unread, ...rest } = walk
  if (text === '') return enterNothing(rest, loop, here)
  // An angle with its sign is no length, whatever was asked for.
  const angleDeg = readAngle(text, walk.asking.what === 'angle')
  if (angleDeg !== null) return { ...note(rest, { angleDeg }), asking: LENGTH }
  const reading = readMeasured(text, loop.bare)
  if (!reading.ok) return { ...rest, unread: true, wrong: sayRefusal(reading) }
  const { um, unit } = reading
  switch (walk.asking.what) {
    case 'depth':
      return enterFigure(rest, loop, um, unit, depthBounds(loop.spec), walk.asking)
    case 'setting':
      return enterFigure(rest, loop, um, unit, settingBounds(loop.spec), walk.asking)
    case 'again':
      // Twice the same is no slip of the jaws.
      return Math.abs(um - walk.asking.lengthUm) <= SAME_UM
        ? takeLength(rest, loop, um, true)
        : enterLength({ ...rest, asking: LENGTH }, loop, um, unit)
    case 'angle':
      return { ...rest, unread: true, wrong: `A top plate angle is 0 to ${MOST_TOP_PLATE_DEG}°, such as 30.` }
    case 'length':
    case 'sure':
      return enterLength(rest, loop, um, unit)
  }
}

/** Enter on the empty field: what it means depends on what was asked. */
function enterNothing(walk: Walk, loop: WalkLoop, here: number): Walk {
  const { asking } = walk
  if ('sureUm' in asking) return takeFigure(walk, loop, asking.sureUm, asking)
  switch (asking.what) {
    case 'sure':
      return takeLength(walk, loop, asking.lengthUm)
    case 'again':
      return takeLength(walk, loop, asking.lengthUm, asking.doubtful.why !== 'twice')
    case 'depth':
      return addDamage(walk, loop, { kind: asking.kind, depthUm: null })
    case 'setting':
    case 'angle':
      return { ...walk, asking: LENGTH, wrong: null }
    case 'length':
      return walk.noted[here]?.damage === undefined
        ? { ...walk, wrong: 'Type a length, or s to skip this one.' }
        : moveTo(walk, walk.at + 1)
  }
}

/** Puts a depth or a setting where it belongs. */
const takeFigure = (walk: Walk, loop: WalkLoop, um: Um, asking: FigureAsking): Walk =>
  asking.what === 'setting'
    ? { ...note(walk, { settingUm: um }), asking: LENGTH }
    : addDamage(walk, loop, { kind: asking.kind, depthUm: um })

/** A depth or a setting; one that is probably a slip is asked about once. */
function enterFigure(
  walk: Walk,
  loop: WalkLoop,
  um: Um,
  unit: LengthUnit,
  bounds: FigureBounds,
  asking: FigureAsking,
): Walk {
  const check = checkFigure(um, unit, bounds)
  if (check.ok) return takeFigure(walk, loop, um, asking)
  const wrong = sayFigureCheck(um, check, loop.bare)
  return check.weight === 'refuse'
    ? { ...walk, wrong }
    : { ...walk, asking: { ...asking, sureUm: um }, wrong: `${wrong} Enter takes it as typed.` }
}

function enterLength(walk: Walk, loop: WalkLoop, um: Um, unit: LengthUnit): Walk {
  const check = checkLength(loop.spec, um, known(walk, loop)?.length.um ?? null, unit)
  if (check.ok) return takeLength(walk, loop, um)
  const wrong = sayCheck(check, um, loop.spec)
  return check.weight === 'refuse'
    ? { ...walk, asking: LENGTH, wrong }
    : { ...walk, asking: { what: 'sure', lengthUm: um, check }, wrong: `${wrong} Enter takes it as typed.` }
}

function addDamage(walk: Walk, loop: WalkLoop, damage: CutterDamage): Walk {
  const here = cutterInHand(walk)
  if (here === null) return walk
  const others = damageOf(walk, loop, here).filter(({ kind }) => kind !== damage.kind)
  return { ...note(walk, { damage: [...others, damage] }), asking: LENGTH }
}

/** Marks damage on the cutter in hand; asks how deep where that matters. */
export const markDamage = (walk: Walk, loop: WalkLoop, kind: CutterDamageKind): Walk =>
  CUTTER_DAMAGE[kind].effect === 'depth'
    ? { ...walk, asking: { what: 'depth', kind }, wrong: null }
    : addDamage(walk, loop, { kind, depthUm: null })

/** Says that the cutter in hand is sound. */
export const wipeDamage = (walk: Walk): Walk => ({ ...note(walk, { damage: [] }), asking: LENGTH })

export const askAngle = (walk: Walk): Walk => ({ ...walk, asking: { what: 'angle' }, wrong: null })
export const askSetting = (walk: Walk): Walk => ({ ...walk, asking: { what: 'setting' }, wrong: null })
export const skip = (walk: Walk): Walk => moveTo(walk, walk.at + 1)
export const back = (walk: Walk): Walk => moveTo(walk, walk.at - 1)

/** Goes to a cutter that was pointed at. */
export const goTo = (walk: Walk, number: number): Walk => {
  const at = walk.route.indexOf(number)
  return at < 0 ? walk : moveTo(walk, at)
}

/** Goes to the first cutter of the other side that has not been read. */
export function otherSide(walk: Walk, loop: WalkLoop): Walk {
  const hand = known(walk, loop)?.hand
  const at = walk.route.findIndex(
    (number) => loop.cutters[number - 1]?.hand !== hand && walk.noted[number]?.lengthUm === undefined,
  )
  return at < 0 ? walk : moveTo(walk, at)
}

/** What the walk has gathered, as readings for the log. */
export const readingsOf = ({ noted }: Walk): CutterReading[] =>
  Object.entries(noted)
    .map(([number, one]) => ({ cutter: Number(number), ...one }))
    .filter(
      ({ lengthUm, damage, settingUm, angleDeg }) =>
        [lengthUm, settingUm, angleDeg].some((figure) => figure !== undefined) || damage !== undefined,
    )
    .sort((a, b) => a.cutter - b.cutter)
