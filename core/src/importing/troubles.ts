import type { ImportField } from './columns'
import type { RowFate } from './planImport'

/** The same words in the same column, doubtful or wrong in several rows: settled once for all of them. */
export interface SharedTrouble {
  readonly field: ImportField
  /** What stands in each of the cells; empty where nothing does. */
  readonly text: string
  /** Why they are doubtful, in the words of the first row. */
  readonly message: string
  /** Numbers of the rows. */
  readonly rows: readonly number[]
}

/**
 * Troubles that several rows share, those of most rows first. A row's tag is its own and is never among them.
 */
export function sharedTroubles(rows: readonly RowFate[]): SharedTrouble[] {
  const groups = new Map<string, SharedTrouble & { rows: number[] }>()
  for (const { row, problems, doubts, texts } of rows) {
    const seen = new Set<ImportField>()
    for (const { field, message, asks } of [...problems, ...doubts]) {
      if (field === null || field === 'tag' || !asks || seen.has(field)) continue
      seen.add(field)
      const text = texts[field] ?? ''
      const key = `${field}\n${text.toLowerCase()}`
      const group = groups.get(key) ?? { field, text, message, rows: [] }
      group.rows.push(row)
      groups.set(key, group)
    }
  }
  return [...groups.values()].filter((group) => group.rows.length > 1).sort((a, b) => b.rows.length - a.rows.length)
}
