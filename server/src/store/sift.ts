import { validate, type FieldProblem, type Validated } from '@undercliff/contract'

/** A row of a backup that cannot be brought in as what it is, with the reason. */
export interface OddRow {
  /** The list that it stood in. */
  readonly part: string
  readonly why: string
  readonly row: unknown
}

/** Rows that can be brought in, and those that cannot. */
export interface Sifted<T> {
  readonly good: T[]
  readonly odd: OddRow[]
}

const saying = ({ field, message }: FieldProblem): string => (field === '' ? message : `${field}: ${message}`)

/** Rows of a list one by one, each by what it comes to. */
export function sift<T>(
  part: string,
  rows: readonly unknown[],
  read: (row: unknown, i: number) => Validated<T>,
): Sifted<T> {
  const sifted: Sifted<T> = { good: [], odd: [] }
  rows.forEach((row, i) => {
    const one = read(row, i)
    if (one.ok) sifted.good.push(one.value)
    else sifted.odd.push({ part, row, why: one.problems.slice(0, 3).map(saying).join(' ') })
  })
  return sifted
}

/** Rows that a schema takes; see {@link sift}. */
export const siftBy = <T>(
  part: string,
  rows: readonly unknown[],
  schema: (row: unknown) => Parameters<typeof validate>[0],
): Sifted<T> => sift(part, rows, (row) => validate<T>(schema(row), row))

/** What one row is wrong with. */
export const odd = (field: string, message: string): Validated<never> => ({ ok: false, problems: [{ field, message }] })
