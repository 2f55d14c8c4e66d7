import type { DoubtKind } from '../../state'
import type { EntryBase } from '../../log'
import { READING_SD_UM } from '../../measure/accuracy'
import type { Um } from '../../units'
import type { Draft, DraftCutter } from '../draft'

/** Deviations by which two figures of one cutter may differ before they are doubted. Starting value. */
const DOUBT_DEVIATIONS = 3

export function doubt(draft: Draft, kind: DoubtKind, entryId: string, cutter: number, byUm: Um): void {
  draft.doubts.push({ kind, entryId, cutter, byUm })
}

/**
 * Whether a length contradicts what was known of a cutter, and how: longer than anything allows,
 * or different from a measurement since which nothing was taken off.
 */
export function doubtOfLength(draft: Draft, entry: EntryBase, cutter: DraftCutter, lengthUm: Um): DoubtKind | null {
  const byUm = lengthUm - cutter.length.um
  if (Math.abs(byUm) <= DOUBT_DEVIATIONS * Math.hypot(cutter.length.sdUm, READING_SD_UM)) return null
  const before = draft.readBy.get(cutter.number)
  if (
    cutter.length.known === 'measured' &&
    before !== undefined &&
    before !== entry.personId &&
    before !== null &&
    entry.personId !== null
  ) {
    return 'disagree'
  }
  if (byUm > 0) return 'grew'
  return cutter.length.known === 'measured' ? 'shrank' : null
}

/** Doubts about a cutter that a new look at it settles. */
export function settleDoubts(draft: Draft, kinds: readonly DoubtKind[], cutters: ReadonlySet<number>): void {
  if (draft.doubts.length > 0)
    draft.doubts = draft.doubts.filter(({ kind, cutter }) => !kinds.includes(kind) || !cutters.has(cutter))
}
