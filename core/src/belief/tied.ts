/* eslint-disable @typescript-eslint/no-non-null-assertion --
   these loops take the time when a log is folded: they never read beyond a list, and asking
   each time whether they do makes them several times as slow */
/**
 * What is known of one figure of every cutter, where cutters hang together. Figure `i` is
 *
 *     x_i = own_i + Σ loads_i,k · shared_k + a stray of its own of variance ownVar_i
 *
 * all normal. What is shared is the shift of a side, the bite of a stroke and the like: a reading
 * of one cutter moves its neighbours by as much as they hang together with it, and no more. With a
 * handful shared, everything that happens costs a step for each cutter. Lengths are micrometres,
 * variances square micrometres.
 *
 * Tables lie row after row in one list, with room for more than is shared yet: this is what takes
 * the time when a log is folded.
 */
export interface Tied {
  /** How many figures are shared. */
  size: number
  /** How many the tables have room for. */
  room: number
  /** Means of what is shared; what stands behind the first `size` counts for nothing, here and below. */
  shared: number[]
  /** Covariance of what is shared, `room` rows of `room`. */
  cov: number[]
  readonly own: number[]
  readonly ownVar: number[]
  /** For each cutter, how much of everything shared is in it: rows of `room`. */
  loads: number[]
}

/** A figure that is not known exactly. */
export interface Normal {
  readonly mean: number
  readonly variance: number
}

/** Room that is made when there is none left. */
const MORE_ROOM = 4

/** Zeros that are kept as fractions from the start, so that a list is not made anew when the first one comes. */
const ZEROS: number[] = [0.5].fill(0)

function zeros(length: number): number[] {
  while (ZEROS.length < length) ZEROS.push(...ZEROS)
  return ZEROS.slice(0, length)
}

/** So many cutters of which nothing is known but what is going to be added. */
export const noTies = (cutters: number, room: number = MORE_ROOM): Tied => ({
  size: 0,
  room,
  shared: zeros(room),
  cov: zeros(room * room),
  own: zeros(cutters),
  ownVar: zeros(cutters),
  loads: zeros(cutters * room),
})

/** A table with rows of another length. */
function relaid(
  table: readonly number[],
  rows: number,
  { size, room }: Pick<Tied, 'size' | 'room'>,
  to: number,
): number[] {
  const out = zeros(rows * to)
  for (let i = 0; i < rows; i += 1) for (let k = 0; k < size; k += 1) out[i * to + k] = table[i * room + k]!
  return out
}

function copyWith(tied: Tied, room: number): Tied {
  const { size, shared, cov, own, ownVar, loads } = tied
  const covariance = relaid(cov, size, tied, room)
  while (covariance.length < room * room) covariance.push(0)
  return {
    size,
    room,
    shared: relaid(shared, 1, tied, room),
    cov: covariance,
    own: own.slice(),
    ownVar: ownVar.slice(),
    loads: relaid(loads, own.length, tied, room),
  }
}

function roundToAMillionth(list: number[]): void {
  for (let i = 0; i < list.length; i += 1) list[i] = Math.round(list[i]! * 1e6) / 1e6 + 0
}

/** A copy that may be changed without changing the other. */
export const copyTied = (tied: Tied): Tied => copyWith(tied, tied.size + MORE_ROOM)

/** A copy to be kept: to a millionth, since what lies beyond differs from one machine to another. */
export function keepTied(tied: Tied): Tied {
  const kept = copyWith(tied, tied.size)
  for (const list of [kept.shared, kept.cov, kept.own, kept.ownVar, kept.loads]) roundToAMillionth(list)
  return kept
}

/** How much of something shared is in a cutter. */
export const loadOf = ({ loads, room }: Tied, cutter: number, place: number): number => loads[cutter * room + place]!

/** Puts more of something shared into a cutter. */
export function addLoad({ loads, room }: Tied, cutter: number, place: number, by: number): void {
  const i = cutter * room + place
  loads[i] = loads[i]! + by
}

/** How much of everything shared is in a cutter. */
export const loadsOf = ({ loads, room, size }: Tied, cutter: number): number[] =>
  loads.slice(cutter * room, cutter * room + size)

/** Covariance of two shared figures. */
export const covOf = ({ cov, room }: Tied, i: number, j: number): number => cov[i * room + j]!

function setCov({ cov, room }: Tied, i: number, j: number, value: number): void {
  cov[i * room + j] = value
  cov[j * room + i] = value
}

/** Adds to the covariance of two shared figures, or makes one vaguer. */
export function addCov(tied: Tied, i: number, j: number, by: number): void {
  setCov(tied, i, j, covOf(tied, i, j) + by)
}

/**
 * Adds something that cutters share and that hangs together with nothing else yet.
 *
 * @param load how much of it is in a cutter
 * @returns its place among what is shared
 */
export function addShared(tied: Tied, { mean, variance }: Normal, load: (cutter: number) => number): number {
  if (tied.size === tied.room) {
    const { room, shared, cov, loads } = copyWith(tied, tied.room + MORE_ROOM)
    Object.assign(tied, { room, shared, cov, loads })
  }
  const place = tied.size
  tied.size += 1
  tied.shared[place] = mean
  for (let k = 0; k < place; k += 1) setCov(tied, k, place, 0)
  setCov(tied, place, place, variance)
  for (let i = 0; i < tied.own.length; i += 1) tied.loads[i * tied.room + place] = load(i)
  return place
}

/**
 * Adds something shared, of which nothing is in any cutter yet, at a place of its own; those that stand there
 * and behind it move down.
 */
export function insertShared(tied: Tied, place: number, figure: Normal): void {
  for (let k = addShared(tied, figure, () => 0); k > place; k -= 1) swapShared(tied, k - 1, k)
}

function swapShared(tied: Tied, a: number, b: number): void {
  const { shared, cov, loads, room, own } = tied
  const swap = (list: number[], i: number, j: number): void => {
    const one = list[i]!
    list[i] = list[j]!
    list[j] = one
  }
  swap(shared, a, b)
  for (let k = 0; k < tied.size; k += 1) swap(cov, a * room + k, b * room + k)
  for (let k = 0; k < tied.size; k += 1) swap(cov, k * room + a, k * room + b)
  for (let i = 0; i < own.length; i += 1) swap(loads, i * room + a, i * room + b)
}

/** Nothing is shared any more. */
export function dropShared(tied: Tied): void {
  tied.size = 0
}

/**
 * Lets something shared wander on from here: from now on it is what it was and a step of its own,
 * while the cutters keep what it was until now.
 *
 * @returns where what it was until now is kept
 */
export function wander(tied: Tied, place: number, stepVariance: number): number {
  const kept = addShared(tied, { mean: tied.shared[place]!, variance: 0 }, (i) => loadOf(tied, i, place))
  for (let k = 0; k < kept; k += 1) setCov(tied, k, kept, covOf(tied, place, k))
  setCov(tied, kept, kept, covOf(tied, place, place))
  addCov(tied, place, place, stepVariance)
  for (let i = 0; i < tied.own.length; i += 1) tied.loads[i * tied.room + place] = 0
  return kept
}

/**
 * Makes two of one shared figure, equal so far: the second stands in some cutters instead of the first.
 *
 * @param second whether the cutter gets the second
 * @returns where the second stands
 */
export function splitShared(tied: Tied, place: number, second: (cutter: number) => boolean): number {
  const other = wander(tied, place, 0)
  for (let i = 0; i < tied.own.length; i += 1) {
    if (second(i)) continue
    addLoad(tied, i, place, loadOf(tied, i, other))
    addLoad(tied, i, other, -loadOf(tied, i, other))
  }
  return other
}

/** How the cutter whose loads begin there hangs together with everything shared. */
function tiesOf({ cov, room, size }: Tied, loads: readonly number[], from: number): number[] {
  const ties = zeros(size)
  for (let k = 0; k < size; k += 1) {
    const load = loads[from + k]!
    if (load === 0) continue
    for (let j = 0; j < size; j += 1) ties[j] = ties[j]! + cov[k * room + j]! * load
  }
  return ties
}

/** Sum over what is shared of loads, which begin there, times figures. */
function product(loads: readonly number[], from: number, figures: readonly number[], size: number): number {
  let sum = 0
  for (let k = 0; k < size; k += 1) sum += loads[from + k]! * figures[k]!
  return sum
}

/** What is shared in a cutter whose loads begin there: its mean and variance, and its ties to everything shared. */
function sharedIn(tied: Tied, loads: readonly number[], from: number) {
  const ties = tiesOf(tied, loads, from)
  return {
    mean: product(loads, from, tied.shared, tied.size),
    variance: Math.max(0, product(loads, from, ties, tied.size)),
    with: ties,
  }
}

/** The mean of one cutter. */
export const meanOf = ({ own, loads, shared, room, size }: Tied, cutter: number): number =>
  own[cutter]! + product(loads, cutter * room, shared, size)

/**
 * What is known of one cutter.
 *
 * @returns `common` is the variance that others share with it: the part that readings of them would teach
 */
export function figureOf(tied: Tied, cutter: number): Normal & { readonly common: number } {
  const { cov, loads, room, size } = tied
  const from = cutter * room
  // Each pair of shared figures once, since the covariance is the same on both sides of its diagonal.
  let common = 0
  for (let j = 0; j < size; j += 1) {
    const load = loads[from + j]!
    if (load === 0) continue
    let half = 0
    for (let k = 0; k < j; k += 1) half += cov[j * room + k]! * loads[from + k]!
    common += load * (2 * half + load * cov[j * room + j]!)
  }
  common = Math.max(0, common)
  return { mean: meanOf(tied, cutter), variance: common + tied.ownVar[cutter]!, common }
}

/**
 * What is known of a sum over cutters, and of what is shared.
 *
 * @param weight of each cutter in it
 * @example
 * // mean of the left less mean of the right
 * sumOf(lengths, (i) => (isLeft(i) ? 1 / lefts : -1 / rights))
 */
export function sumOf(tied: Tied, weight: (cutter: number) => number): Normal {
  const { own, ownVar, size } = tied
  const loads = zeros(size)
  let mean = 0
  let variance = 0
  for (let i = 0; i < own.length; i += 1) {
    const w = weight(i)
    if (w === 0) continue
    mean += w * own[i]!
    variance += w * w * ownVar[i]!
    for (let k = 0; k < size; k += 1) loads[k] = loads[k]! + w * loadOf(tied, i, k)
  }
  const common = sharedIn(tied, loads, 0)
  return { mean: mean + common.mean, variance: variance + common.variance }
}

/**
 * A reading of one cutter: first what is shared learns from it, then the cutter itself. Exact, in
 * one step for each thing shared.
 *
 * @param variance of the instrument, above nothing
 * @param within deviations up to which it is taken; one further off changes nothing
 * @returns by how much it is off what was known, and whether it was taken
 */
export function readFigure(
  tied: Tied,
  cutter: number,
  value: number,
  variance: number,
  within = Infinity,
): { readonly off: number; readonly taken: boolean } {
  const { own, ownVar, loads, room, size } = tied
  if (cutter < 0 || cutter >= own.length) throw new RangeError(`there is no cutter ${cutter}`)
  if (!(variance > 0) || !Number.isFinite(value)) throw new RangeError('a reading has a figure and a spread')
  const from = cutter * room
  const ties = tiesOf(tied, loads, from)
  const itsOwn = ownVar[cutter]!
  const spread = Math.max(0, product(loads, from, ties, size)) + itsOwn + variance
  const off = value - meanOf(tied, cutter)
  if (off * off > within * within * spread) return { off, taken: false }
  learnShared(tied, ties, off, spread)
  const trust = itsOwn / (itsOwn + variance)
  own[cutter] = (1 - trust) * own[cutter]! + trust * value
  ownVar[cutter] = (1 - trust) * itsOwn
  for (let k = 0; k < size; k += 1) loads[from + k] = (1 - trust) * loads[from + k]!
  return { off, taken: true }
}

/** What is shared learns from a figure that is off by so much, where so much of a spread was to be expected. */
function learnShared({ shared, cov, room, size }: Tied, ties: readonly number[], off: number, spread: number): void {
  for (let k = 0; k < size; k += 1) {
    const share = ties[k]! / spread
    if (share === 0) continue
    shared[k] = shared[k]! + share * off
    for (let j = 0; j < size; j += 1) cov[k * room + j] = cov[k * room + j]! - share * ties[j]!
  }
}

/** Sets one cutter apart from everything before: what is known of it is one figure. */
export function setFigure({ own, ownVar, loads, room }: Tied, cutter: number, { mean, variance }: Normal): void {
  own[cutter] = mean
  ownVar[cutter] = variance
  for (let k = cutter * room; k < (cutter + 1) * room; k += 1) loads[k] = 0
}

/**
 * Lower triangle of the covariance of some of what is shared (Cholesky's decomposition), rows of as many
 * as there are; figures that are known exactly have zeros.
 */
function triangle(tied: Tied, places: readonly number[]): number[] {
  const n = places.length
  const lower = zeros(n * n)
  for (let i = 0; i < n; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      let rest = covOf(tied, places[i]!, places[j]!)
      for (let k = 0; k < j; k += 1) rest -= lower[i * n + k]! * lower[j * n + k]!
      const pivot = lower[j * n + j]!
      lower[i * n + j] = i === j ? Math.sqrt(Math.max(0, rest)) : pivot < 1e-9 ? 0 : rest / pivot
    }
  }
  return lower
}

/** Solves `lower · lowerᵀ · x = b`. */
function solve(lower: readonly number[], b: readonly number[]): number[] {
  const x = b.slice()
  const n = x.length
  for (let i = 0; i < n; i += 1) {
    let rest = x[i]!
    for (let k = 0; k < i; k += 1) rest -= lower[i * n + k]! * x[k]!
    const pivot = lower[i * n + i]!
    x[i] = pivot < 1e-9 ? 0 : rest / pivot
  }
  for (let i = n - 1; i >= 0; i -= 1) {
    let rest = x[i]!
    for (let k = i + 1; k < n; k += 1) rest -= lower[k * n + i]! * x[k]!
    const pivot = lower[i * n + i]!
    x[i] = pivot < 1e-9 ? 0 : rest / pivot
  }
  return x
}

/** Two shared figures as what they have in common with the others, and what is left of them beside. */
interface Split {
  readonly others: readonly number[]
  /** Of each of the two, how much it follows the others. */
  readonly withA: readonly number[]
  readonly withB: readonly number[]
  /** What is left of the two, as loads on two independent figures of variance 1. */
  readonly rootA: number
  readonly cross: number
  readonly rootB: number
}

function splitOff(tied: Tied, first: number, second: number): Split {
  const others: number[] = []
  for (let k = 0; k < tied.size; k += 1) if (k !== first && k !== second) others.push(k)
  const lower = triangle(tied, others)
  const tiesA: number[] = []
  const tiesB: number[] = []
  for (const k of others) {
    tiesA.push(covOf(tied, first, k))
    tiesB.push(covOf(tied, second, k))
  }
  const withA = solve(lower, tiesA)
  const withB = solve(lower, tiesB)
  const known = (a: readonly number[], b: readonly number[]): number => product(a, 0, b, others.length)
  const rootA = Math.sqrt(Math.max(0, covOf(tied, first, first) - known(withA, tiesA)))
  const cross = rootA < 1e-9 ? 0 : (covOf(tied, first, second) - known(withA, tiesB)) / rootA
  const rootB = Math.sqrt(Math.max(0, covOf(tied, second, second) - known(withB, tiesB) - cross * cross))
  return { others, withA, withB, rootA, cross, rootB }
}

/**
 * Makes one of two shared figures: what they have in common with the others goes over to those,
 * and of what is left the greater part stays shared and the smaller becomes each cutter's own. Every
 * cutter's mean and variance stay what they were; what two of them have in common changes by no more
 * than the smaller part.
 *
 * The one that comes of it stands in the first place; the second is gone, and those behind it move up.
 */
export function mergeShared(tied: Tied, first: number, second: number): void {
  const split = splitOff(tied, first, second)
  const { others, withA, withB, rootA, cross, rootB } = split
  const { cos, sin } = greatestTurn(tied, first, second, split)
  const { own, ownVar, loads, room, shared } = tied
  const sharedOf = (follows: readonly number[]): number =>
    others.reduce((sum, k, j) => sum + follows[j]! * shared[k]!, 0)
  // What the means of the two are beyond what the others bring.
  const meanA = shared[first]! - sharedOf(withA)
  const meanB = shared[second]! - sharedOf(withB)
  for (let i = 0; i < own.length; i += 1) {
    const from = i * room
    const [a, b] = [loads[from + first]!, loads[from + second]!]
    if (a === 0 && b === 0) continue
    for (let j = 0; j < others.length; j += 1) {
      const k = from + others[j]!
      loads[k] = loads[k]! + a * withA[j]! + b * withB[j]!
    }
    const x = a * rootA + b * cross
    const y = b * rootB
    own[i] = own[i]! + a * meanA + b * meanB
    ownVar[i] = ownVar[i]! + (y * cos - x * sin) ** 2
    loads[from + first] = x * cos + y * sin
  }
  shared[first] = 0
  for (let k = 0; k < tied.size; k += 1) setCov(tied, first, k, k === first ? 1 : 0)
  removeShared(tied, second)
}

/** Takes a shared figure out of the tables; those behind it move up. */
function removeShared(tied: Tied, place: number): void {
  const { shared, cov, loads, room, own } = tied
  const last = tied.size - 1
  for (let i = 0; i < own.length; i += 1) {
    const from = i * room
    for (let k = place; k < last; k += 1) loads[from + k] = loads[from + k + 1]!
    loads[from + last] = 0
  }
  for (let k = place; k < last; k += 1) shared[k] = shared[k + 1]!
  shared[last] = 0
  for (let i = 0; i < last; i += 1) {
    const row = (i < place ? i : i + 1) * room
    for (let k = 0; k < last; k += 1) cov[i * room + k] = cov[row + (k < place ? k : k + 1)]!
  }
  tied.size = last
}

/** The turn of two independent figures that puts the most that they bring to cutters into the first. */
function greatestTurn({ loads, room, own }: Tied, first: number, second: number, { rootA, cross, rootB }: Split) {
  let [xx, xy, yy] = [0, 0, 0]
  for (let i = 0; i < own.length; i += 1) {
    const b = loads[i * room + second]!
    const x = loads[i * room + first]! * rootA + b * cross
    const y = b * rootB
    xx += x * x
    xy += x * y
    yy += y * y
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy)
  return { cos: Math.cos(angle), sin: Math.sin(angle) }
}

/** What cutters are brought to: its loads on what is shared, its own part and the variance of that. */
export interface Level {
  readonly loads: readonly number[]
  readonly own: number
  readonly variance: number
}

/**
 * A level that is one of two, by mean and variance of the mixture of both.
 *
 * @param part how probable the first is
 */
export function eitherLevel(tied: Tied, one: Level, other: Level, part: number): Level {
  const between = (a: number, b: number): number => part * a + (1 - part) * b
  const apart = sharedIn(
    tied,
    one.loads.map((load, k) => load - other.loads[k]!),
    0,
  )
  const squared = (one.own - other.own + apart.mean) ** 2 + apart.variance
  return {
    loads: one.loads.map((load, k) => between(load, other.loads[k]!)),
    own: between(one.own, other.own),
    variance: between(one.variance, other.variance) + part * (1 - part) * squared,
  }
}

/**
 * Brings every cutter to one level, and what is shared before to one figure.
 *
 * @param keep so many of the first shared figures stay as they are
 * @param level what all are brought to
 */
export function levelAll(tied: Tied, keep: number, level: Level, strayVariance: number): void {
  const tail = level.loads.map((load, k) => (k < keep ? 0 : load))
  const { mean, variance, with: ties } = sharedIn(tied, tail, 0)
  tied.size = keep
  const place = addShared(tied, { mean, variance: variance + level.variance }, () => 1)
  for (let k = 0; k < keep; k += 1) setCov(tied, k, place, ties[k]!)
  for (let i = 0; i < tied.own.length; i += 1) {
    tied.own[i] = level.own
    tied.ownVar[i] = strayVariance
    for (let k = 0; k < keep; k += 1) tied.loads[i * tied.room + k] = level.loads[k]!
  }
}

/**
 * Brings some cutters to one level of their own, as much tied to everything shared as that level is.
 *
 * @param keep so many of the first shared figures stay loads of theirs
 * @param place what these cutters alone shared before; their level stands there from now on
 * @param level loads, own part and variance of what they are brought to
 */
export function levelSome(
  tied: Tied,
  keep: number,
  place: number,
  level: Level,
  strayVariance: number,
  which: (cutter: number) => boolean,
): void {
  const { shared, loads, own, ownVar, room, size } = tied
  const tail = level.loads.map((load, k) => (k < keep ? 0 : load))
  const { mean, variance, with: ties } = sharedIn(tied, tail, 0)
  for (let k = 0; k < size; k += 1) if (k !== place) setCov(tied, k, place, ties[k]!)
  setCov(tied, place, place, variance + level.variance)
  shared[place] = mean
  for (let i = 0; i < own.length; i += 1) {
    if (!which(i)) continue
    own[i] = level.own
    ownVar[i] = strayVariance
    for (let k = 0; k < size; k += 1) loads[i * room + k] = k < keep ? level.loads[k]! : k === place ? 1 : 0
  }
}
