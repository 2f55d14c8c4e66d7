import type { DoubtKind } from '../../state'
import type { Um } from '../../units'
import type { Draft } from '../draft'

export function doubt(draft: Draft, kind: DoubtKind, entryId: string, cutter: number, byUm: Um): void {
  draft.doubts.push({ kind, entryId, cutter, byUm })
}

/** Doubts about a cutter that a new look at it settles. */
export function settleDoubts(draft: Draft, kinds: readonly DoubtKind[], about: number): void {
  if (draft.doubts.length === 0) return
  draft.doubts = draft.doubts.filter(({ cutter, kind }) => cutter !== about || !kinds.includes(kind))
}
