import type { Um } from '../units'

/** One kind of sharpening as the programme knows it. Money is minor units, sharp running is in spells. */
interface RoutineJob {
  /** What it takes off a sound cutter. */
  readonly takesUm: Um
  /** What it costs when so much comes off every cutter. */
  readonly costMinor: (offUm: Um) => number
  /** Part of a full spell that it gives. */
  readonly spells: number
}

/** What a strike does. */
interface Strike {
  /** Of such a strike in a spell, 0 to 1. */
  readonly chance: number
  readonly depthUm: Um
  /** Part of the cutters that it hurts. */
  readonly part: number
}

/** A kind of loop under the rules of a house. */
export interface LoopKind {
  /** Length that can be used up, from new down to what the house keeps above the mark. */
  readonly usableUm: Um
  /** A new loop, with putting it on. */
  readonly newLoopMinor: number
  readonly jobs: readonly RoutineJob[]
  /** Strikes by their depth, the shallowest first. */
  readonly strikes: readonly Strike[]
}

/** What a kind of loop comes to when everything is always decided for the best. */
export interface Programme {
  /** What a spell of sharp running costs this crew in its routine: the average over endless loops. */
  readonly spellMinor: number
  /** What a loop is worth that has so much left and is due for a sharpening: what it saves against a new one. */
  readonly worthMinor: (usableUm: number) => number
  /** Improvements of the policy until none was left. */
  readonly rounds: number
}

/** Steps of what is left: at least so many, and at most, however little a job takes off. */
const LEAST_STEPS = 96
const MOST_STEPS = 240
/** Policies are few, and each round finds a better one; more rounds than this are a mistake. */
const MOST_ROUNDS = 60

/** What one action does in one state: its cost and spells, what is left, and the grade of hurt that is left. */
interface Act {
  readonly takesUm: number
  readonly costMinor: number
  readonly spells: number
  /** Depth that stays on the cutters that were hurt. */
  readonly staysUm: number
}

/**
 * Everything that can be done in a grade of hurt: each job until all is clean, or as usual with the hurt ones left
 * blunt until the next ones have worked through.
 */
function actsOf({ jobs }: LoopKind, hurt: Strike | null): Act[] {
  return jobs.flatMap(({ takesUm, costMinor, spells }) => {
    const usual = { takesUm, costMinor: costMinor(takesUm), spells, staysUm: 0 }
    if (hurt === null || hurt.depthUm <= takesUm) return [usual]
    const clean = { takesUm: hurt.depthUm, costMinor: costMinor(hurt.depthUm), spells, staysUm: 0 }
    return [clean, { ...usual, spells: spells * (1 - hurt.part), staysUm: hurt.depthUm - takesUm }]
  })
}

/** Value and expected spells of a policy, by what is left and by the grade of hurt. */
interface Table {
  readonly value: Float64Array
  readonly spells: Float64Array
}

/** Grades of hurt: none, then the strikes by their depth; a new one of them comes in a spell with its chance. */
interface Grades {
  readonly steps: number
  readonly depths: readonly number[]
  readonly chances: readonly number[]
}

/** Where a depth lies among the grades: the one below it, and the part of the next. */
function gradeAt({ depths }: Grades, depthUm: number): number {
  if (depthUm <= 0) return 0
  let grade = 0
  while (grade + 1 < depths.length && (depths[grade + 1] ?? 0) <= depthUm) grade += 1
  const below = depths[grade] ?? 0
  const above = depths[grade + 1]
  return above === undefined ? grade : grade + (depthUm - below) / (above - below)
}

/** A figure of a table between its steps and grades. */
function between({ steps, depths }: Grades, list: Float64Array, step: number, grade: number): number {
  const width = depths.length
  const [i, j] = [Math.max(0, Math.floor(step)), Math.floor(grade)]
  const [u, v] = [step - i, grade - j]
  const of = (row: number, column: number): number =>
    list[Math.min(steps, row) * width + Math.min(width - 1, column)] ?? 0
  return (1 - v) * ((1 - u) * of(i, j) + u * of(i + 1, j)) + v * ((1 - u) * of(i, j + 1) + u * of(i + 1, j + 1))
}

/** What follows when so much is left: the next strike comes on top of what was left hurt. */
function ahead(grades: Grades, list: Float64Array, step: number, stays: number): number {
  let sum = 0
  for (let grade = 0; grade < grades.chances.length; grade += 1)
    sum += (grades.chances[grade] ?? 0) * between(grades, list, step, Math.max(grade, stays))
  return sum
}

/** What a loop is worth by what is left of it, where nothing is hurt: between the steps in a straight line. */
function worthBy(value: Float64Array, width: number, stepUm: number): Programme['worthMinor'] {
  const steps = value.length / width - 1
  const worthAt = (step: number): number => 0 - (value[Math.min(steps, step) * width] ?? 0)
  return (left) => {
    const step = Math.min(steps, Math.max(0, left / stepUm))
    const i = Math.floor(step)
    return (1 - (step - i)) * worthAt(i) + (step - i) * worthAt(i + 1)
  }
}

/** How fine what is left is told apart: what the smallest job takes is whole steps, unless those are too many. */
function stepOf({ usableUm, jobs }: LoopKind): number {
  const longUm = Math.max(1, usableUm)
  const finestUm = Math.max(1, Math.min(longUm, ...jobs.map(({ takesUm }) => takesUm)))
  const stepUm = finestUm / Math.ceil((LEAST_STEPS * finestUm) / longUm)
  return Math.max(stepUm, longUm / MOST_STEPS)
}

/**
 * The programme of one kind of loop: a semi-Markov decision process over lives of loops, each of which begins with a
 * new one and ends when nothing is better than another new one. States are what is left, in steps, and how deep it was
 * hurt; a state is met whenever a sharpening is due. For a price of a spell the best of every state follows from those
 * with less left; the price under which a whole life comes to nothing is found by policy iteration: the policy that is
 * best under a price gives the next price, its cost over its spells (R. Howard, Dynamic Programming and Markov
 * Processes, 1960; M. Puterman, Markov Decision Processes, 1994; both from memory).
 *
 * @throws RangeError where the chances of strikes come to more than one
 */
export function solveProgramme(kind: LoopKind): Programme {
  const { usableUm, newLoopMinor, strikes } = kind
  const stepUm = stepOf(kind)
  const newAt = usableUm / stepUm
  const steps = Math.ceil(newAt)
  const acts = [null, ...strikes].map((hurt) => actsOf(kind, hurt))
  const chanceOfNone = 1 - strikes.reduce((sum, { chance }) => sum + chance, 0)
  if (chanceOfNone < 0) throw new RangeError('strikes come at most once in a spell')
  const grades: Grades = {
    steps,
    depths: [0, ...strikes.map(({ depthUm }) => depthUm)],
    chances: [chanceOfNone, ...strikes.map(({ chance }) => chance)],
  }
  const width = acts.length
  const solveAt = (spellMinor: number): Table => {
    const table: Table = {
      value: new Float64Array((steps + 1) * width),
      spells: new Float64Array((steps + 1) * width),
    }
    const { value, spells } = table
    for (let step = 0; step <= steps; step += 1) {
      for (let grade = 0; grade < width; grade += 1) {
        const place = step * width + grade
        for (const act of acts[grade] ?? []) {
          // At least a step comes off: the one below is known by now.
          const after = step - Math.max(1, act.takesUm / stepUm)
          if (after < 0) continue
          const stays = gradeAt(grades, act.staysUm)
          const comes = act.costMinor - spellMinor * act.spells + ahead(grades, value, after, stays)
          if (comes >= (value[place] ?? 0)) continue
          value[place] = comes
          spells[place] = act.spells + ahead(grades, spells, after, stays)
        }
      }
    }
    return table
  }
  // A new loop comes sharp; the dearest way is to use each for that one spell.
  let spellMinor = Math.max(0, newLoopMinor)
  let table = solveAt(spellMinor)
  let rounds = 1
  for (; rounds < MOST_ROUNDS; rounds += 1) {
    const life = newLoopMinor - spellMinor + ahead(grades, table.value, newAt, 0)
    const livesFor = 1 + ahead(grades, table.spells, newAt, 0)
    const better = spellMinor + life / livesFor
    if (Math.abs(better - spellMinor) <= 1e-9 * Math.max(1, spellMinor)) break
    spellMinor = better
    table = solveAt(spellMinor)
  }
  return { spellMinor, rounds, worthMinor: worthBy(table.value, width, stepUm) }
}
