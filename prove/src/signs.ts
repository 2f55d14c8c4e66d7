import {
  CAUSES,
  DEFAULT_RULES,
  diagnose,
  fold,
  LOOK_FACTS,
  specFromProfile,
  type Cause,
  type Entry,
  type EntryBodies,
  type EntryKind,
  type Hand,
  type LoopState,
  type Look,
  type LookDone,
  type Sign,
  type Wood,
} from '@undercliff/core'
import type { Random } from '@undercliff/demo'
import { factor, happens, normal, weibull } from './chance'

/**
 * Signs in the proving ground: saws with what is truly wrong with them hidden, which tell of it in their own way, and
 * two that look for it. Nothing here is taken from the model that is proved: how often what is wrong, how it shows and
 * how often a look is mistaken are the ground's own, and differ from crew to crew.
 */

/** What is truly so of one saw while it cuts, and what is known of it. */
interface Case {
  readonly state: LoopState
  readonly there: ReadonlySet<Cause>
  readonly sign: Sign
  readonly toward: Hand | null
  readonly wood: Wood
  readonly along: boolean
  /** What the saw told of. */
  readonly cause: Cause
}

/** How often what is wrong shows by a sign, in this ground. */
const TRULY_SHOWS: Readonly<Record<Exclude<Sign, 'pulls'>, Partial<Record<Cause, number>>>> = {
  dust: { dull: 0.7, gaugesHigh: 0.65, wood: 0.9, grain: 0.9, backSlope: 0.3 },
  smallerShavings: { gaugesHigh: 0.7, dull: 0.1 },
  push: { dull: 0.8, gaugesHigh: 0.6, tooTight: 0.5, wood: 0.3 },
  snatches: { gaugesLow: 0.8, hook: 0.4, greedy: 0.5 },
  chatters: { gaugesUneven: 0.6, anglesDiffer: 0.5, slack: 0.5, groove: 0.4 },
  sharpButNoCut: { hook: 0.5, backSlope: 0.6, gaugesHigh: 0.5 },
  dullAtOnce: { hook: 0.5, blued: 0.8, dirt: 0.6, struck: 0.5 },
  hot: { noOil: 0.8, dull: 0.25, tooTight: 0.5 },
  sparks: { gaugeMismatch: 0.6, groove: 0.6 },
  comesOff: { slack: 0.8, sprocket: 0.5, pitchMismatch: 0.5, tangs: 0.4 },
  cornerBright: { struck: 0.8, dirt: 0.6 },
}
const OFTEN: Partial<Record<Cause, number>> = {
  hook: 0.06,
  backSlope: 0.05,
  gaugesUneven: 0.06,
  anglesDiffer: 0.05,
  tooTight: 0.06,
  slack: 0.12,
  noOil: 0.05,
  groove: 0.05,
  sprocket: 0.04,
  tangs: 0.03,
  greedy: 0.05,
  struck: 0.05,
  dirt: 0.05,
  bar: 0.1,
}

/** The looks of the crew's sheet, sign by sign in its order, with what each shows there. */
const SHEET: Readonly<Record<Sign, readonly (readonly [Look, readonly Cause[]])[]>> = {
  dust: [
    ['edge', ['dull']],
    ['plate', ['gaugesHigh']],
    ['work', ['wood', 'grain']],
  ],
  smallerShavings: [['plate', ['gaugesHigh']]],
  push: [
    ['edge', ['dull']],
    ['plate', ['gaugesHigh']],
    ['turnByHand', ['tooTight']],
  ],
  pulls: [
    ['sides', ['leftLonger', 'rightLonger']],
    ['edge', ['leftSharper', 'rightSharper']],
    ['angles', ['anglesDiffer']],
    ['turnBar', ['bar']],
  ],
  snatches: [
    ['plate', ['gaugesLow']],
    ['sideView', ['hook']],
    ['work', ['greedy']],
  ],
  chatters: [
    ['plate', ['gaugesUneven']],
    ['angles', ['anglesDiffer']],
    ['turnByHand', ['slack']],
    ['groove', ['groove']],
  ],
  sharpButNoCut: [
    ['sideView', ['hook', 'backSlope']],
    ['plate', ['gaugesHigh']],
  ],
  dullAtOnce: [
    ['colour', ['blued']],
    ['sideView', ['hook']],
    ['work', ['dirt']],
    ['edge', ['struck']],
  ],
  hot: [
    ['oil', ['noOil']],
    ['edge', ['dull']],
    ['turnByHand', ['tooTight']],
  ],
  sparks: [['groove', ['gaugeMismatch', 'groove']]],
  comesOff: [
    ['turnByHand', ['slack']],
    ['sprocket', ['sprocket', 'pitchMismatch']],
    ['tangs', ['tangs']],
  ],
  cornerBright: [
    ['edge', ['struck']],
    ['work', ['dirt']],
  ],
}

const START_MS = Date.UTC(2026, 0, 5, 8)
const HOUR_MS = 3_600_000

/** A log that is written entry by entry, an hour apart. */
class Diary {
  readonly entries: Entry[] = []
  add<K extends EntryKind>(kind: K, body: EntryBodies[K]): void {
    const at = new Date(START_MS + this.entries.length * HOUR_MS).toISOString()
    const base = { id: `entry-${String(this.entries.length)}`, loopId: 'loop', happenedAt: at, writtenAt: at }
    this.entries.push({ ...base, personId: null, writtenBy: null, kind, ...body } as unknown as Entry)
  }
}

/** Readings of so many cutters of each side, each with what it is read at. */
const readings = (random: Random, of: (hand: Hand) => { lengthUm?: number; settingUm?: number }) =>
  Array.from({ length: 8 }, (_, i) => {
    const { lengthUm, settingUm } = of(i % 2 === 0 ? 'left' : 'right')
    return {
      cutter: i + 1,
      ...(lengthUm === undefined ? {} : { lengthUm: Math.round(lengthUm + normal(random, 0, 30)) }),
      ...(settingUm === undefined ? {} : { settingUm: Math.round(settingUm + normal(random, 0, 25)) }),
    }
  })

/** The log so far, and what is truly there. */
interface Drawn {
  readonly diary: Diary
  readonly there: Set<Cause>
}

/** One of two, each as often. */
const either = <T>(random: Random, one: T, other: T): T => (happens(random, 0.5) ? one : other)

/** Sides that differ, which somebody has read or not. */
function drawSides(random: Random, { diary, there }: Drawn): void {
  const apartUm = normal(random, 0, 180)
  if (happens(random, 0.5))
    diary.add('measured', {
      readings: readings(random, (hand) => ({ lengthUm: 6000 + (hand === 'left' ? apartUm : -apartUm) / 2 })),
    })
  if (Math.abs(apartUm) > 200) there.add(apartUm > 0 ? 'leftLonger' : 'rightLonger')
}

/** Gauges that stand high, which somebody has read or not; or that came down by eye. */
function drawGauges(random: Random, { diary, there }: Drawn, settingUm: number): void {
  const highUm = normal(random, 60, 110)
  if (happens(random, 0.5))
    diary.add('measured', { readings: readings(random, () => ({ settingUm: settingUm - highUm })) })
  if (!happens(random, 0.12)) {
    if (highUm > 120) there.add('gaugesHigh')
    return
  }
  diary.add('gaugesLowered', { gaugesByEye: true })
  if (happens(random, 0.4)) there.add('gaugesLow')
}

/** The last sharpening: ground, or filed, now and then with fewer strokes on one side. */
function drawSharpening(random: Random, { diary, there }: Drawn): void {
  if (happens(random, 0.2)) {
    diary.add('sharpened', { method: 'grinder', gaugesLowered: false })
    if (happens(random, 0.2)) there.add('blued')
    return
  }
  const strokes = { left: 5, right: 5 }
  const fewer = happens(random, 0.25) ? either(random, 'left' as const, 'right' as const) : null
  if (fewer !== null) {
    strokes[fewer] = 2
    if (happens(random, 0.6)) there.add(fewer === 'left' ? 'rightSharper' : 'leftSharper')
  }
  diary.add('sharpened', { method: 'fileField', gaugesLowered: false, strokes })
}

/** A loop with a history, and what is truly so of it. */
function draw(random: Random): Omit<Case, 'sign' | 'toward' | 'cause'> {
  const ripping = happens(random, 0.15)
  const cutterType = ripping ? 'ripping' : 'semiChisel'
  const spec = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType })
  const drawn: Drawn = { diary: new Diary(), there: new Set() }
  const { diary, there } = drawn
  diary.add('registered', { tag: 'T1', spec })
  drawSides(random, drawn)
  drawGauges(random, drawn, spec.settingUm)
  drawSharpening(random, drawn)
  const tanks = Math.round(weibull(random, 2.5, 1.3) * 2) / 2
  if (tanks > 0) diary.add('ran', { tanks, conditions: 'clean' })
  if (weibull(random, 3.8, 2.2) < tanks) there.add('dull')
  for (const cause of CAUSES) if (happens(random, OFTEN[cause] ?? 0)) there.add(cause)
  const along = happens(random, ripping ? 0.9 : 0.05)
  if (along) there.add('grain')
  const wood = happens(random, 0.12) ? 'dry' : 'ordinary'
  if (wood === 'dry') there.add('wood')
  const state = fold(diary.entries)
  if (state === null) throw new Error('the loop is registered')
  return { state, there, wood, along }
}

/** What the saw tells of what is there: one thing, as people say one. */
function tell(
  random: Random,
  drawn: ReturnType<typeof draw>,
  shows: (cause: Cause, sign: Sign) => number,
): Case | null {
  const told: Pick<Case, 'sign' | 'toward' | 'cause'>[] = []
  for (const cause of drawn.there) {
    for (const [sign, by] of Object.entries(TRULY_SHOWS) as [Exclude<Sign, 'pulls'>, (typeof TRULY_SHOWS)['dust']][])
      if (happens(random, (by[cause] ?? 0) * shows(cause, sign))) told.push({ sign, toward: null, cause })
    const pulls = cause === 'bar' || cause === 'anglesDiffer' ? 0.4 : /Longer|Sharper/.test(cause) ? 0.75 : 0
    const own = cause.startsWith('left') ? 'left' : cause.startsWith('right') ? 'right' : null
    if (happens(random, pulls * shows(cause, 'pulls')))
      told.push({ sign: 'pulls', toward: own ?? (happens(random, 0.5) ? 'left' : 'right'), cause })
  }
  const one = told[Math.floor(random.next() * told.length)]
  return one === undefined ? null : { ...drawn, ...one }
}

/** What somebody sees who looks: mostly what is there, and now and then what is not. */
const lookAt = (random: Random, { there }: Case, look: Look): Cause[] =>
  LOOK_FACTS[look].shows.filter((cause) => happens(random, there.has(cause) ? 0.93 : 0.05))

/** What came of it: whether it was found, and with how many looks. */
interface Found {
  readonly cause: Cause | null
  readonly looks: number
}

/** By the model: what it proposes, until it says what to do. */
function byModel(random: Random, one: Case): Found {
  const looks: LookDone[] = []
  const { state, sign, toward, wood, along } = one
  for (;;) {
    const scene = { state, saw: null, rules: DEFAULT_RULES }
    const thought = diagnose(scene, { signs: [sign], toward, wood, along, looks })
    if (thought.look === null) return { cause: thought.actOn ?? thought.causes[0]?.cause ?? null, looks: looks.length }
    looks.push({ look: thought.look.look, found: lookAt(random, one, thought.look.look) })
  }
}

/** By the sheet: one look after the other in its order, until one shows something; the day is known. */
function bySheet(random: Random, one: Case): Found {
  let looks = 0
  for (const [look, shows] of SHEET[one.sign]) {
    const known = look === 'work'
    const seen = known ? shows.filter((cause) => one.there.has(cause)) : lookAt(random, one, look)
    looks += known ? 0 : 1
    const found = seen.find((cause) => shows.includes(cause))
    if (found !== undefined) return { cause: found, looks }
  }
  return { cause: SHEET[one.sign][0]?.[1][0] ?? null, looks }
}

/** How two ways of looking for what is behind a sign did, over many saws. */
export interface SignOutcome {
  readonly cases: number
  readonly model: { readonly hits: number; readonly looks: number }
  readonly sheet: { readonly hits: number; readonly looks: number }
}

/** Saws of one crew that tell something, looked into by the model and by a sheet. */
export function proveSigns(random: Random, cases: number): SignOutcome {
  const own = new Map<string, number>()
  const shows = (cause: Cause, sign: Sign): number => {
    const key = `${cause} ${sign}`
    const before = own.get(key)
    const how = before ?? Math.min(1.2, factor(random, 0.25))
    own.set(key, how)
    return how
  }
  const model = { hits: 0, looks: 0 }
  const sheet = { hits: 0, looks: 0 }
  let done = 0
  while (done < cases) {
    const one = tell(random, draw(random), shows)
    if (one === null) continue
    done += 1
    for (const [outcome, found] of [
      [model, byModel(random, one)],
      [sheet, bySheet(random, one)],
    ] as const) {
      outcome.hits += found.cause === one.cause ? 1 : 0
      outcome.looks += found.looks
    }
  }
  return { cases, model, sheet }
}
