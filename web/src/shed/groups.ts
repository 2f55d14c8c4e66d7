import { PITCH_PROFILES, specLine, type LoopCard } from '@undercliff/core'
import type { Saw } from '@undercliff/contract'

/** Saws that take the same loops, what is on each, and the loops beside them. */
export interface FitGroup {
  readonly key: string
  readonly spec: string
  readonly saws: readonly { readonly saw: Saw; readonly loop: LoopCard | null }[]
  readonly beside: readonly LoopCard[]
}

export interface GroupedShed {
  readonly groups: readonly FitGroup[]
  /** Loops that no saw takes. */
  readonly homeless: readonly LoopCard[]
  readonly retired: readonly LoopCard[]
}

const keyOf = ({ pitchClass, gaugeUm, driveLinks }: LoopCard['spec'] | Saw): string =>
  `${pitchClass}|${gaugeUm}|${driveLinks}`
const collator = new Intl.Collator(undefined, { numeric: true })
const byTag = (a: LoopCard, b: LoopCard): number => collator.compare(a.tag, b.tag)

/**
 * The shed as it hangs on the wall: saws from light to heavy, those that share loops together,
 * each with the loop on it and the loops that fit beside it.
 */
export function groupShed(saws: readonly Saw[], loops: readonly LoopCard[]): GroupedShed {
  const live = loops.filter(({ retired }) => !retired)
  const bySaw = new Map(live.flatMap((loop) => (loop.sawId === null ? [] : [[loop.sawId, loop] as const])))
  const keys = [...new Set(saws.map(keyOf))]
  /** Loops on no saw, by what they go on: the same key means the same pitch, gauge and links. */
  const off = new Map<string, LoopCard[]>()
  for (const loop of live) {
    if (loop.sawId !== null) continue
    const key = keyOf(loop.spec)
    const some = off.get(key)
    if (some === undefined) off.set(key, [loop])
    else some.push(loop)
  }
  const groups = keys.map((key): FitGroup => {
    const members = saws.filter((saw) => keyOf(saw) === key)
    const [first] = members
    return {
      key,
      spec: first === undefined ? '' : specLine(first),
      saws: members.map((saw) => ({ saw, loop: bySaw.get(saw.id) ?? null })),
      beside: (off.get(key) ?? []).sort(byTag),
    }
  })
  const weight = ({ saws: [first] }: FitGroup): number =>
    first === undefined ? 0 : PITCH_PROFILES[first.saw.pitchClass].newLengthUm.value * 1000 + first.saw.driveLinks
  return {
    groups: groups.sort((a, b) => weight(a) - weight(b) || a.key.localeCompare(b.key)),
    homeless: [...off].flatMap(([key, some]) => (keys.includes(key) ? [] : some)).sort(byTag),
    retired: loops.filter(({ retired }) => retired).sort(byTag),
  }
}
