import { fits, PITCH_PROFILES, specLine, type LoopCard } from '@undercliff/core'
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
const byTag = (a: LoopCard, b: LoopCard): number => a.tag.localeCompare(b.tag, undefined, { numeric: true })

/**
 * The shed as it hangs on the wall: saws from light to heavy, those that share loops together,
 * each with the loop on it and the loops that fit beside it.
 */
export function groupShed(saws: readonly Saw[], loops: readonly LoopCard[]): GroupedShed {
  const live = loops.filter(({ retired }) => !retired)
  const bySaw = new Map(live.flatMap((loop) => (loop.sawId === null ? [] : [[loop.sawId, loop] as const])))
  const keys = [...new Set(saws.map(keyOf))]
  const groups = keys.map((key): FitGroup => {
    const members = saws.filter((saw) => keyOf(saw) === key)
    const [first] = members
    return {
      key,
      spec: first === undefined ? '' : specLine(first),
      saws: members.map((saw) => ({ saw, loop: bySaw.get(saw.id) ?? null })),
      beside: live.filter((loop) => loop.sawId === null && first !== undefined && keyOf(loop.spec) === key && fits(loop.spec, first)).sort(byTag),
    }
  })
  const weight = ({ saws: [first] }: FitGroup): number =>
    first === undefined ? 0 : PITCH_PROFILES[first.saw.pitchClass].newLengthUm.value * 1000 + first.saw.driveLinks
  return {
    groups: groups.sort((a, b) => weight(a) - weight(b) || a.key.localeCompare(b.key)),
    homeless: live.filter((loop) => loop.sawId === null && !keys.includes(keyOf(loop.spec))).sort(byTag),
    retired: loops.filter(({ retired }) => retired).sort(byTag),
  }
}
