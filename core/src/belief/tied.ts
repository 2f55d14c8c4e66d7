/**
 * What is known of one figure of every cutter, where cutters hang together. Figure `i` is
 *
 *     x_i = own_i + Σ loads_i,k · shared_k + a stray of its own of variance ownVar_i
 *
 * all normal. What is shared is the shift of a side, the bite of a stroke and the like: a reading
 * of one cutter moves its neighbours by as much as they hang together with it, and no more. With a
 * handful shared, everything that happens costs a step for each cutter. Lengths are micrometres,
 * variances square micrometres.
 */
export interface Tied {
  /** Means of what is shared. */
  readonly shared: number[]
  /** Covariance of what is shared, row by row. */
  readonly cov: number[][]
  readonly own: number[]
  readonly ownVar: number[]
  /** For each cutter, how much of everything shared is in it. */
  readonly loads: number[][]
}

/** A figure that is not known exactly. */
export interface Normal {
  readonly mean: number
  readonly variance: number
}

/** So many cutters of which nothing is known but what is going to be added. */
export const noTies = (cutters: number): Tied => ({
  shared: [],
  cov: [],
  own: Array.from({ length: cutters }, () => 0),
  ownVar: Array.from({ length: cutters }, () => 0),
  loads: Array.from({ length: cutters }, () => []),
})

function copyWith(tied: Tied, each: (value: number) => number): Tied {
  return {
    shared: tied.shared.map(each),
    cov: tied.cov.map((row) => row.map(each)),
    own: tied.own.map(each),
    ownVar: tied.ownVar.map(each),
    loads: tied.loads.map((row) => row.map(each)),
  }
}

/** A copy that may be changed without changing the other. */
export const copyTied = (tied: Tied): Tied => copyWith(tied, (value) => value)

/** A copy to be kept: to a millionth, since what lies beyond differs from one machine to another. */
export const keepTied = (tied: Tied): Tied => copyWith(tied, (value) => Math.round(value * 1e6) / 1e6 + 0)

const at = (row: readonly number[] | undefined, i: number): number => row?.[i] ?? 0

/**
 * Adds something that cutters share and that hangs together with nothing else yet.
 *
 * @param load how much of it is in a cutter
 * @returns its place among what is shared
 */
export function addShared(tied: Tied, { mean, variance }: Normal, load: (cutter: number) => number): number {
  const place = tied.shared.length
  tied.shared.push(mean)
  for (const row of tied.cov) row.push(0)
  tied.cov.push([...tied.shared.map(() => 0)])
  setCov(tied, place, place, variance)
  for (const [i, row] of tied.loads.entries()) row.push(load(i))
  return place
}

function setCov({ cov }: Tied, i: number, j: number, value: number): void {
  const [a, b] = [cov[i], cov[j]]
  if (a === undefined || b === undefined) return
  a[j] = value
  b[i] = value
}

/** Makes something shared vaguer. */
export function addVariance(tied: Tied, place: number, variance: number): void {
  setCov(tied, place, place, at(tied.cov[place], place) + variance)
}

/**
 * Lets something shared wander on from here: from now on it is what it was and a step of its own,
 * while the cutters keep what it was until now.
 *
 * @returns where what it was until now is kept
 */
export function wander(tied: Tied, place: number, stepVariance: number): number {
  const kept = addShared(tied, { mean: at(tied.shared, place), variance: 0 }, (i) => at(tied.loads[i], place))
  for (let k = 0; k < kept; k += 1) setCov(tied, k, kept, at(tied.cov[k], place))
  setCov(tied, kept, kept, at(tied.cov[place], place))
  setCov(tied, place, place, at(tied.cov[place], place) + stepVariance)
  for (const row of tied.loads) row[place] = 0
  return kept
}

/** How a sum of what is shared hangs together with everything shared. */
function tiesOf({ cov }: Tied, loads: readonly number[]): number[] {
  const ties: number[] = []
  for (const row of cov) {
    let sum = 0
    for (let k = 0; k < row.length; k += 1) sum += (row[k] ?? 0) * (loads[k] ?? 0)
    ties.push(sum)
  }
  return ties
}

function product(a: readonly number[], b: readonly number[]): number {
  let sum = 0
  for (let k = 0; k < a.length; k += 1) sum += (a[k] ?? 0) * (b[k] ?? 0)
  return sum
}

/** What is shared in a cutter: its mean, its variance, and how it hangs together with everything shared. */
function sharedIn(tied: Tied, loads: readonly number[]) {
  const ties = tiesOf(tied, loads)
  return { mean: product(loads, tied.shared), variance: Math.max(0, product(loads, ties)), with: ties }
}

/** The mean of one cutter. */
export const meanOf = ({ own, loads, shared }: Tied, cutter: number): number =>
  (own[cutter] ?? 0) + product(loads[cutter] ?? [], shared)

/** What is known of one cutter. */
export function figureOf(tied: Tied, cutter: number): Normal {
  const { mean, variance } = sharedIn(tied, tied.loads[cutter] ?? [])
  return { mean: at(tied.own, cutter) + mean, variance: at(tied.ownVar, cutter) + variance }
}

/** What is known of one cutter in so far as others share it: the part that readings of them would teach. */
export const sharedVarianceOf = (tied: Tied, cutter: number): number =>
  sharedIn(tied, tied.loads[cutter] ?? []).variance

/**
 * What is known of a sum over cutters, and of what is shared.
 *
 * @param weight of each cutter in it
 * @example
 * // mean of the left less mean of the right
 * sumOf(lengths, (i) => (isLeft(i) ? 1 / lefts : -1 / rights))
 */
export function sumOf(tied: Tied, weight: (cutter: number) => number): Normal {
  const loads = tied.shared.map(() => 0)
  let mean = 0
  let variance = 0
  for (const [i, row] of tied.loads.entries()) {
    const w = weight(i)
    if (w === 0) continue
    mean += w * at(tied.own, i)
    variance += w * w * at(tied.ownVar, i)
    for (let k = 0; k < row.length; k += 1) loads[k] = at(loads, k) + w * at(row, k)
  }
  const common = sharedIn(tied, loads)
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
  const loads = tied.loads[cutter]
  if (loads === undefined) throw new RangeError(`there is no cutter ${cutter}`)
  if (!(variance > 0) || !Number.isFinite(value)) throw new RangeError('a reading has a figure and a spread')
  const ties = tiesOf(tied, loads)
  const ownVar = tied.ownVar[cutter] ?? 0
  const spread = Math.max(0, product(loads, ties)) + ownVar + variance
  const off = value - meanOf(tied, cutter)
  if (off * off > within * within * spread) return { off, taken: false }
  learnShared(tied, ties, off, spread)
  const trust = ownVar / (ownVar + variance)
  tied.own[cutter] = (1 - trust) * at(tied.own, cutter) + trust * value
  tied.ownVar[cutter] = (1 - trust) * ownVar
  for (let k = 0; k < loads.length; k += 1) loads[k] = (1 - trust) * (loads[k] ?? 0)
  return { off, taken: true }
}

/** What is shared learns from a figure that is off by so much, where so much of a spread was to be expected. */
function learnShared(tied: Tied, ties: readonly number[], off: number, spread: number): void {
  for (let k = 0; k < ties.length; k += 1) {
    const share = (ties[k] ?? 0) / spread
    tied.shared[k] = (tied.shared[k] ?? 0) + share * off
    const row = tied.cov[k]
    if (row !== undefined) for (let j = 0; j < ties.length; j += 1) row[j] = (row[j] ?? 0) - share * (ties[j] ?? 0)
  }
}

/** Sets one cutter apart from everything before: what is known of it is one figure. */
export function setFigure(tied: Tied, cutter: number, { mean, variance }: Normal): void {
  tied.own[cutter] = mean
  tied.ownVar[cutter] = variance
  tied.loads[cutter] = tied.shared.map(() => 0)
}

/** Lower triangle of a covariance (Cholesky's decomposition); figures that are known exactly have zeros. */
function triangle(cov: readonly (readonly number[])[]): number[][] {
  const lower = cov.map((row) => row.map(() => 0))
  for (let i = 0; i < cov.length; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      let rest = at(cov[i], j)
      for (let k = 0; k < j; k += 1) rest -= at(lower[i], k) * at(lower[j], k)
      const row = lower[i]
      const pivot = at(lower[j], j)
      if (row !== undefined) row[j] = i === j ? Math.sqrt(Math.max(0, rest)) : pivot < 1e-9 ? 0 : rest / pivot
    }
  }
  return lower
}

/** Solves `lower · lowerᵀ · x = b`. */
function solve(lower: readonly (readonly number[])[], b: readonly number[]): number[] {
  const x = [...b]
  const n = lower.length
  for (let i = 0; i < n; i += 1) {
    for (let k = 0; k < i; k += 1) x[i] = at(x, i) - at(lower[i], k) * at(x, k)
    x[i] = at(lower[i], i) < 1e-9 ? 0 : at(x, i) / at(lower[i], i)
  }
  for (let i = n - 1; i >= 0; i -= 1) {
    for (let k = i + 1; k < n; k += 1) x[i] = at(x, i) - at(lower[k], i) * at(x, k)
    x[i] = at(lower[i], i) < 1e-9 ? 0 : at(x, i) / at(lower[i], i)
  }
  return x
}

/**
 * Makes one of two shared figures: what they have in common with the others goes over to those,
 * and of what is left the greater part stays shared and the smaller becomes each cutter's own. Every
 * cutter's mean and variance stay what they were; what two of them have in common changes by no more
 * than the smaller part.
 *
 * The one that comes of it stands in the first place; the second is gone.
 */
export function mergeShared(tied: Tied, first: number, second: number): void {
  const others = tied.shared.map((_, k) => k).filter((k) => k !== first && k !== second)
  const pick = (row: readonly number[] | undefined): number[] => others.map((k) => at(row, k))
  const lower = triangle(others.map((k) => pick(tied.cov[k])))
  const [tiesA, tiesB] = [pick(tied.cov[first]), pick(tied.cov[second])]
  const [withA, withB] = [solve(lower, tiesA), solve(lower, tiesB)]
  // What is left of the two once the others are known, as loads on two independent figures of variance 1.
  const rootA = Math.sqrt(Math.max(0, at(tied.cov[first], first) - product(withA, tiesA)))
  const cross = rootA < 1e-9 ? 0 : (at(tied.cov[first], second) - product(withA, tiesB)) / rootA
  const rootB = Math.sqrt(Math.max(0, at(tied.cov[second], second) - product(withB, tiesB) - cross * cross))
  const { cos, sin } = greatestTurn(tied.loads, first, second, rootA, cross, rootB)
  const [meanA, meanB] = [at(tied.shared, first), at(tied.shared, second)]
  for (const [i, row] of tied.loads.entries()) {
    const [a, b] = [at(row, first), at(row, second)]
    if (a === 0 && b === 0) {
      row.splice(second, 1)
      continue
    }
    const [x, y] = [a * rootA + b * cross, b * rootB]
    let own = at(tied.own, i) + a * meanA + b * meanB
    for (const [j, k] of others.entries()) {
      const shift = a * at(withA, j) + b * at(withB, j)
      own -= shift * at(tied.shared, k)
      row[k] = at(row, k) + shift
    }
    tied.own[i] = own
    tied.ownVar[i] = at(tied.ownVar, i) + (y * cos - x * sin) ** 2
    row[first] = x * cos + y * sin
    row.splice(second, 1)
  }
  tied.shared[first] = 0
  for (let k = 0; k < tied.shared.length; k += 1) setCov(tied, first, k, k === first ? 1 : 0)
  tied.shared.splice(second, 1)
  tied.cov.splice(second, 1)
  for (const row of tied.cov) row.splice(second, 1)
}

/** The turn of two independent figures that puts the most that they bring to cutters into the first. */
function greatestTurn(
  loads: Tied['loads'],
  first: number,
  second: number,
  rootA: number,
  cross: number,
  rootB: number,
) {
  let [xx, xy, yy] = [0, 0, 0]
  for (const row of loads) {
    const x = at(row, first) * rootA + at(row, second) * cross
    const y = at(row, second) * rootB
    xx += x * x
    xy += x * y
    yy += y * y
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy)
  return { cos: Math.cos(angle), sin: Math.sin(angle) }
}

/**
 * Brings every cutter to one level, and what is shared before to one figure.
 *
 * @param keep so many of the first shared figures stay as they are
 * @param level loads, own part and variance of what all are brought to
 */
export function levelAll(
  tied: Tied,
  keep: number,
  level: { readonly loads: readonly number[]; readonly own: number; readonly variance: number },
  strayVariance: number,
): void {
  const before = { shared: [...tied.shared], cov: tied.cov.map((row) => [...row]) }
  const tail = level.loads.map((load, k) => (k < keep ? 0 : load))
  const { mean, variance, with: ties } = sharedIn({ ...tied, ...before }, tail)
  tied.shared.splice(keep, tied.shared.length, mean)
  const cov = before.cov.slice(0, keep).map((row, k) => [...row.slice(0, keep), at(ties, k)])
  tied.cov.splice(0, tied.cov.length, ...cov, [...ties.slice(0, keep), variance + level.variance])
  for (let i = 0; i < tied.loads.length; i += 1) {
    tied.own[i] = level.own
    tied.ownVar[i] = strayVariance
    tied.loads[i] = [...level.loads.slice(0, keep), 1]
  }
}
