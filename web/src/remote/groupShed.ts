import {
  fitCheck,
  PITCH_PROFILES,
  saySawFit,
  unreadOf,
  type FitLevel,
  type FitSpec,
  type LoopCard,
  type SawFit,
} from '@undercliff/core'
import type { Saw } from '@undercliff/contract'

/** A loop beside the saws that it goes on, and how well it goes on them. */
interface Beside {
  readonly loop: LoopCard
  readonly level: Exclude<FitLevel, 'mustNot'>
}

/** Saws that take the same loops, what is on each, and the loops beside them. */
interface FitGroup {
  readonly key: string
  readonly spec: string
  readonly saws: readonly { readonly saw: Saw; readonly loop: LoopCard | null }[]
  readonly beside: readonly Beside[]
}

export interface GroupedShed {
  readonly groups: readonly FitGroup[]
  /** Loops that no saw takes. */
  readonly homeless: readonly LoopCard[]
  readonly retired: readonly LoopCard[]
  /** Saws that are lent out or done with, and what is on them. */
  readonly gone: readonly { readonly saw: Saw; readonly loop: LoopCard | null }[]
}

/** Made when it is first used: a phone takes a tenth of a second for it, and not every page sorts tags. */
let collator: Intl.Collator | null = null
function byTag(a: LoopCard, b: LoopCard): number {
  collator ??= new Intl.Collator(undefined, { numeric: true })
  return collator.compare(a.tag, b.tag)
}

const loopKey = ({ pitchClass, gaugeUm, driveLinks }: SawFit): string => `${pitchClass}|${gaugeUm}|${driveLinks}`
/** Everything of a saw that decides which loops it takes; one that is not known in every part shares none. */
const sawKey = (saw: Saw): string =>
  unreadOf(saw).length === 0 ? `${loopKey(saw)}|${saw.nosePitchClass ?? ''}` : `not known|${saw.id}`

interface Members {
  readonly key: string
  readonly saws: readonly [Saw, ...Saw[]]
}

function membersOf(saws: readonly Saw[]): Members[] {
  const byKey = new Map<string, [Saw, ...Saw[]]>()
  for (const saw of saws) {
    const some = byKey.get(sawKey(saw))
    if (some === undefined) byKey.set(sawKey(saw), [saw])
    else some.push(saw)
  }
  return [...byKey].map(([key, members]) => ({ key, saws: members }))
}

/**
 * The group that a kind of loop belongs beside: the first whose saws it fits, else the first on whose
 * saws it will run with a drawback. What is worn on a saw changes nothing about where its loops hang.
 */
function groupFor(spec: FitSpec, groups: readonly Members[]): { key: string; level: Beside['level'] } | null {
  const levels = groups.map(({ key, saws: [saw] }) => ({ key, level: fitCheck(spec, saw).level }))
  const found = levels.find(({ level }) => level === 'fits') ?? levels.find(({ level }) => level === 'but')
  return found === undefined || found.level === 'mustNot' ? null : { key: found.key, level: found.level }
}

const weight = ({ saws: [saw] }: Members): number =>
  (saw.pitchClass === null ? 0 : PITCH_PROFILES[saw.pitchClass].newLengthUm.value * 1000) + (saw.driveLinks ?? 0)

/**
 * The shed as it hangs on the wall: saws from light to heavy, those that share loops together,
 * each with the loop on it and the loops that go on it beside it.
 */
export function groupShed(saws: readonly Saw[], loops: readonly LoopCard[]): GroupedShed {
  const live = loops.filter(({ retired }) => !retired)
  const bySaw = new Map(live.flatMap((loop) => (loop.sawId === null ? [] : [[loop.sawId, loop] as const])))
  const groups = membersOf(saws.filter(({ gone }) => gone === null)).sort(
    (a, b) => weight(a) - weight(b) || a.key.localeCompare(b.key),
  )
  const placeOf = new Map<string, ReturnType<typeof groupFor>>()
  const beside = new Map<string, Beside[]>(groups.map(({ key }) => [key, []]))
  const homeless: LoopCard[] = []
  for (const loop of live) {
    if (loop.sawId !== null) continue
    const kind = loopKey(loop.spec)
    let place = placeOf.get(kind)
    if (place === undefined) {
      place = groupFor(loop.spec, groups)
      placeOf.set(kind, place)
    }
    if (place === null) homeless.push(loop)
    else beside.get(place.key)?.push({ loop, level: place.level })
  }
  return {
    groups: groups.map(({ key, saws: members }) => ({
      key,
      spec: saySawFit(members[0]),
      saws: members.map((saw) => ({ saw, loop: bySaw.get(saw.id) ?? null })),
      beside: (beside.get(key) ?? []).sort((a, b) => byTag(a.loop, b.loop)),
    })),
    homeless: homeless.sort(byTag),
    gone: saws.filter(({ gone }) => gone !== null).map((saw) => ({ saw, loop: bySaw.get(saw.id) ?? null })),
    retired: loops.filter(({ retired }) => retired).sort(byTag),
  }
}
