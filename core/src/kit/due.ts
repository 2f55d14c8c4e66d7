import type { KitItem } from './kitItem'
import { fileLife, wheelLife, type KitUsage } from './usage'

/** What a thing of the kit calls for. */
export type KitDue =
  /** It has done the strokes that files last on this crew: it scrapes. */
  | 'usedUp'
  /** Few unopened files are left. */
  | 'low'
  | 'dress'
  /** Nobody has said that it rang clear. */
  | 'ring'
  /** What is marked on it, or how fast the spindle turns, is not known. */
  | 'speed'

/** What everything of the kit calls for, by its id; nothing for what is in order or gone. */
export function kitDue(kit: readonly KitItem[], usage: readonly KitUsage[]): Map<string, KitDue[]> {
  const used = new Map(usage.map((one) => [one.id, one]))
  const [strokes, loops] = [fileLife(kit, usage).mean, wheelLife(kit, usage).mean]
  const due = (item: KitItem): KitDue[] => {
    const worn = used.get(item.id)?.used ?? 0
    switch (item.kind) {
      case 'file':
        return worn >= strokes ? ['usedUp'] : []
      case 'stock':
        return item.left <= item.lowAt ? ['low'] : []
      case 'wheel':
        return [
          ...(item.markedRpm === undefined ? (['speed'] as const) : []),
          ...(item.rungAt === undefined ? (['ring'] as const) : []),
          ...(item.glazed === true ? (['dress'] as const) : []),
          ...(worn >= loops ? (['usedUp'] as const) : []),
        ]
      case 'grinder':
        return item.spindleRpm === undefined ? ['speed'] : []
      case 'guide':
      case 'plate':
      case 'caliper':
      case 'vise':
        return []
    }
  }
  return new Map(
    kit
      .filter(({ gone }) => gone === undefined)
      .flatMap((item) => {
        const calls = due(item)
        return calls.length === 0 ? [] : [[item.id, calls] as const]
      }),
  )
}
