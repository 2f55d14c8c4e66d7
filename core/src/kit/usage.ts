import type { SpentOn } from '../state'
import type { KitItem, KitItemOf } from './kitItem'

/** What one thing of the kit has done so far. */
export interface KitUsage {
  readonly id: string
  /** Strokes of a file, loops of a wheel. */
  readonly used: number
  readonly sharpenings: number
  readonly lastAt: string | null
  /** What a stroke of it takes against a file as it usually is, learned from readings; 1 where nothing was read. */
  readonly bite: number
  /** Readings behind that. */
  readonly told: number
}

/** Strokes that a round file is good for. Common practice. */
export const FILE_STROKES = 2000
/** Loops that a wheel is good for, dressed now and then. Starting value. */
export const WHEEL_LOOPS = 120

/**
 * What a stroke takes as a file ages, against what is usual: a tenth more while it is fresh, a fifth less once it has
 * done its strokes, and beyond that it scrapes. Starting values.
 *
 * @example
 * expectedBite(0, 2000) // 1.1
 */
export function expectedBite(strokes: number, lasts: number): number {
  const part = strokes / Math.max(1, lasts)
  return Math.max(0.35, 1.1 - 0.3 * Math.min(1, part) - 0.6 * Math.max(0, part - 1))
}

/** How far a file's bite strays from what its age says, and a reading from its bite, as parts. Starting values. */
const BITE = { between: 0.15, once: 0.2 } as const

/** Uses between which the bite of a file that was read has aged too much to say anything of it now. */
const LATEST = 4

/** A sharpening that used a file, with the strokes that the file had done before. */
interface Use extends SpentOn {
  readonly before: number
}

/** No file is taken to bite less, or more, against a usual one: the log takes no other. Starting values. */
const [LEAST_BITE, MOST_BITE] = [0.1, 3]

function learnedBite(spent: readonly Use[], used: number, lasts: number): Pick<KitUsage, 'bite' | 'told'> {
  const told = spent.filter(({ bite }) => bite !== null).slice(-LATEST)
  const prior = expectedBite(used, lasts)
  const weight = told.length / BITE.once ** 2
  const own = 1 / BITE.between ** 2
  // Read while it was younger, it takes less by now, as files do.
  const now = told.map(({ bite, before }) => ((bite ?? 1) * prior) / expectedBite(before, lasts))
  const mean = now.reduce((sum, one) => sum + one, 0) / Math.max(1, now.length)
  const bite = told.length === 0 ? prior : (prior * own + mean * weight) / (own + weight)
  return { bite: Math.min(MOST_BITE, Math.max(LEAST_BITE, bite)), told: told.length }
}

/**
 * What everything of a kit has done, by the sharpenings that name it.
 *
 * @param spent of all loops, in any order
 */
export function kitUsage(kit: readonly KitItem[], spent: readonly SpentOn[]): KitUsage[] {
  const ordered = [...spent].sort((a, b) => (a.at < b.at ? -1 : 1))
  const before = new Map<string, number>()
  const uses = new Map<string, Use[]>()
  for (const one of ordered)
    for (const id of one.used) {
      const done = before.get(id) ?? 0
      uses.set(id, [...(uses.get(id) ?? []), { ...one, before: done }])
      before.set(id, done + (one.strokes ?? 0))
    }
  const lasts = fileLife(
    kit,
    kit.map(({ id }) => ({ id, used: before.get(id) ?? 0 })),
  ).mean
  return kit.map((item) => {
    const mine = uses.get(item.id) ?? []
    const used = item.kind === 'file' ? (before.get(item.id) ?? 0) : mine.length
    return {
      id: item.id,
      used,
      sharpenings: mine.length,
      lastAt: mine.at(-1)?.at ?? null,
      ...(item.kind === 'file' ? learnedBite(mine, used, lasts) : { bite: 1, told: 0 }),
    }
  })
}

/** Things that common practice counts for when a crew's own tell how long they last. Starting value. */
const COUNTS_FOR = 4

/** How long things of one kind last. */
export interface KitLife {
  readonly mean: number
  /** Of the crew's own that were used up. */
  readonly own: number
}

/**
 * How long things of one kind last: the geometric mean of those that were used up, with common practice as if it were
 * a few of them. What was lost, or is still in use, tells nothing: a file that scrapes is often used on all the same.
 */
function lifeOf(
  kind: 'file' | 'wheel',
  usual: number,
  kit: readonly KitItem[],
  usage: readonly Pick<KitUsage, 'id' | 'used'>[],
): KitLife {
  const used = new Map(usage.map((one) => [one.id, one.used]))
  const ended = kit
    .filter((item) => item.kind === kind && item.gone === 'usedUp' && (used.get(item.id) ?? 0) > 0)
    .map(({ id }) => Math.log(used.get(id) ?? usual))
  const sum = ended.reduce((total, one) => total + one, COUNTS_FOR * Math.log(usual))
  return { mean: Math.exp(sum / (COUNTS_FOR + ended.length)), own: ended.length }
}

/** Strokes that a file lasts on this crew: common practice to begin with. */
export const fileLife = (kit: readonly KitItem[], usage: readonly Pick<KitUsage, 'id' | 'used'>[]): KitLife =>
  lifeOf('file', FILE_STROKES, kit, usage)

/** Loops that a wheel lasts on this crew. */
export const wheelLife = (kit: readonly KitItem[], usage: readonly Pick<KitUsage, 'id' | 'used'>[]): KitLife =>
  lifeOf('wheel', WHEEL_LOOPS, kit, usage)

/** What a file is called by how used it is, from what its strokes take. */
export const fileAgeOf = ({ used }: Pick<KitUsage, 'used'>, lasts: number): 'fresh' | 'used' | 'worn' =>
  used < 0.15 * lasts ? 'fresh' : used < 0.85 * lasts ? 'used' : 'worn'

/** A file that was opened last, of the diameter that is wanted. */
export const fileInUse = (files: readonly KitItemOf<'file'>[], fileUm: number): KitItemOf<'file'> | undefined =>
  files
    .filter((file) => file.fileUm === fileUm)
    .sort((a, b) => (a.openedAt < b.openedAt ? 1 : -1))
    .at(0)
