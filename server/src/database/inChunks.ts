/** Rows in one statement: some hundred kilobytes at most. */
const CHUNK = 200

/** Writes rows in pieces that fit into one statement, one piece after the other. */
export async function inChunks<T>(rows: readonly T[], write: (some: T[]) => Promise<unknown>): Promise<void> {
  for (let from = 0; from < rows.length; from += CHUNK) await write(rows.slice(from, from + CHUNK))
}
