import type { KitItem, KitItemOf } from './kitItem'
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

const when = (so: boolean, due: KitDue): KitDue[] => (so ? [due] : [])

/** How much each thing has done, and how long such things last. */
interface Worn {
  readonly used: ReadonlyMap<string, KitUsage>
  readonly strokes: number
  readonly loops: number
}

const wornBy = ({ used }: Worn, { id }: KitItem): number => used.get(id)?.used ?? 0

function callsOfWheel(wheel: KitItemOf<'wheel'>, worn: Worn): KitDue[] {
  return [
    ...when(wheel.markedRpm === undefined, 'speed'),
    ...when(wheel.rungAt === undefined, 'ring'),
    ...when(wheel.glazed === true, 'dress'),
    ...when(wornBy(worn, wheel) >= worn.loops, 'usedUp'),
  ]
}

function callsOf(item: KitItem, worn: Worn): KitDue[] {
  switch (item.kind) {
    case 'file':
      return when(wornBy(worn, item) >= worn.strokes, 'usedUp')
    case 'stock':
      return when(item.left <= item.lowAt, 'low')
    case 'wheel':
      return callsOfWheel(item, worn)
    case 'grinder':
      return when(item.spindleRpm === undefined, 'speed')
    case 'guide':
    case 'plate':
    case 'caliper':
    case 'vise':
      return []
  }
}

/** What everything of the kit calls for, by its id; nothing for what is in order or gone. */
export function kitDue(kit: readonly KitItem[], usage: readonly KitUsage[]): Map<string, KitDue[]> {
  const worn: Worn = {
    used: new Map(usage.map((one) => [one.id, one])),
    strokes: fileLife(kit, usage).mean,
    loops: wheelLife(kit, usage).mean,
  }
  const there = kit.filter(({ gone }) => gone === undefined)
  return new Map(there.map((item) => [item.id, callsOf(item, worn)] as const).filter(([, calls]) => calls.length > 0))
}
