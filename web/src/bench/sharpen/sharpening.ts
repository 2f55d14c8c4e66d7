import type { KeptWalk, UnderWay } from '@undercliff/contract'
import {
  fileInUse,
  fileAgeOf,
  kitOf,
  planSharpening,
  toolFor,
  walkOf,
  type EntryOf,
  type HouseRules,
  type KitItemOf,
  type LoopState,
  type Sharpening,
  type SharpeningPlan,
  type WalkEvent,
} from '@undercliff/core'
import { keptRef } from '../../remote/keptRef'
import { nanoid } from 'nanoid'
import { computed, watch, type ComputedRef } from 'vue'
import { useKit } from '../../remote/kitStore'
import { useOutbox } from '../../remote/outbox'
import { useWriting } from '../../remote/writing'
import { useHands } from '../../parts/onePlan'
import { usePlate } from '../../parts/plate'
import { useElsewhere } from './elsewhere'

type EventBody = WalkEvent extends infer E ? (E extends { readonly at: string } ? Omit<E, 'at'> : never) : never
/** What a sharpening is begun with. */
type Wanted = Omit<KeptWalk, 'events'>
type NewBegun = Omit<EntryOf<'begun'>, 'writtenAt' | 'writtenBy' | 'saidAt'>

/** Steps that a person can be in longer than a day without it being forgotten work. */
const FORGOTTEN_MS = 24 * 3_600_000

/** The things of the kit that a sharpening uses up: what was chosen, else what is in use. */
function useUsed(wanted: ComputedRef<Wanted>, fileUm: ComputedRef<number | null>) {
  const kit = useKit()
  void kit.load()
  const files = computed(() => kitOf(kit.kit, 'file').filter((file) => file.fileUm === fileUm.value))
  const grinders = computed(() => kitOf(kit.kit, 'grinder').filter(({ tool }) => tool === wanted.value.tool))
  const wheels = computed(() => kitOf(kit.kit, 'wheel'))
  const chosen = <T extends { readonly id: string }>(all: readonly T[], id: string | undefined): T | undefined =>
    all.find((one) => one.id === id)
  const file = computed(() => chosen(files.value, wanted.value.fileId) ?? fileInUse(files.value, fileUm.value ?? 0))
  const grinder = computed(() => chosen(grinders.value, wanted.value.grinderId) ?? grinders.value[0])
  const wheel = computed(
    () => chosen(wheels.value, wanted.value.wheelId) ?? chosen(wheels.value, grinder.value?.set?.wheelId),
  )
  const fileUsage = computed(() => (file.value === undefined ? null : kit.usageOf(file.value.id)))
  return { kit, files, grinders, wheels, file, grinder, wheel, fileUsage }
}

/** What is kept of it on the device, with the tool that it is, and what was wanted when it was begun. */
function useKept(
  tag: string,
  state: ComputedRef<LoopState | null>,
  rules: ComputedRef<HouseRules>,
  fresh: () => Pick<Wanted, 'action' | 'personId'>,
) {
  const kept = keptRef<KeptWalk | null>(`undercliff:sharpening:${tag}`, null, {
    serializer: { read: (text) => JSON.parse(text) as KeptWalk | null, write: (one) => JSON.stringify(one) },
  })
  const kit = useKit()
  const now = computed<KeptWalk>(() => {
    const one = kept.value ?? { ...fresh(), events: [] }
    if (state.value === null) return one
    return { ...one, tool: toolFor(state.value, rules.value, { ...one, kit: kit.kit }) }
  })
  /** As text: what happens does not change what is wanted, and nothing is worked out again for it. */
  const wantedText = computed(() => {
    const { events: _events, begunId: _begun, ...rest } = now.value
    return JSON.stringify(rest)
  })
  const wanted = computed(() => JSON.parse(wantedText.value) as Wanted)
  return { kept, now, wanted }
}

type Used = ReturnType<typeof useUsed>

/** What is planned: with the file's bite, the wheel that is to be mounted and the pace of who does it. */
function usePlan(
  state: ComputedRef<LoopState | null>,
  rules: ComputedRef<HouseRules>,
  wanted: ComputedRef<Wanted>,
  used: Used,
) {
  const hands = useHands()
  const mounted = computed((): { wheel: KitItemOf<'wheel'>; grinder: KitItemOf<'grinder'> } | null =>
    used.wheel.value === undefined || used.grinder.value === undefined
      ? null
      : { wheel: used.wheel.value, grinder: used.grinder.value },
  )
  const sharpening = computed((): Sharpening => {
    const one = state.value
    const {
      fileId: _file,
      wheelId: _wheel,
      grinderId: _grinder,
      fromPaper: _paper,
      begunId: _begun,
      ...rest
    } = wanted.value
    const { fileUsage } = used
    return {
      ...rest,
      ...(one === null ? {} : hands({ state: one, rules: rules.value, ...rest })),
      ...(rest.fileBite !== undefined || fileUsage.value === null ? {} : { fileBite: fileUsage.value.bite }),
      ...(mounted.value === null ? {} : { mounted: mounted.value }),
    }
  })
  const plan = computed(() => planOf(state.value, rules.value, sharpening.value))
  return { mounted, sharpening, plan }
}

/** What was settled on before stands in the way of no sharpening. */
const planOf = (state: LoopState | null, rules: HouseRules, sharpening: Sharpening): SharpeningPlan | null =>
  state === null ? null : planSharpening({ ...state, decision: null }, rules, sharpening)

/** What moves a sharpening on, and back. */
function useMoves(
  { kept, now }: Pick<ReturnType<typeof useKept>, 'kept' | 'now'>,
  plan: ComputedRef<SharpeningPlan | null>,
  { file, wheel, grinder, fileUsage }: Used,
) {
  const add = (...more: readonly EventBody[]): void => {
    const at = new Date().toISOString()
    const { tool, sides } = plan.value ?? {}
    const first = sides?.[0]?.hand
    kept.value = {
      ...now.value,
      ...(tool === undefined ? {} : { tool }),
      ...(first === undefined ? {} : { first }),
      ...(file.value === undefined ? {} : { fileId: file.value.id }),
      // What the file bites is settled with the first thing that happens, or counts would change under the hand.
      ...(fileUsage.value === null ? {} : { fileBite: now.value.fileBite ?? fileUsage.value.bite }),
      ...(wheel.value === undefined ? {} : { wheelId: wheel.value.id }),
      ...(grinder.value === undefined ? {} : { grinderId: grinder.value.id }),
      events: [...now.value.events, ...more.map((event) => ({ at, ...event }))],
    }
  }
  /** Takes the last thing back; a reading goes with the strokes that it was typed with. */
  const undo = (): void => {
    const last = now.value.events.at(-1)
    const together = now.value.events.findLastIndex(({ at }) => at !== last?.at)
    kept.value = { ...now.value, events: now.value.events.slice(0, together + 1) }
  }
  /** Another person, another file, or another tool while nothing has happened yet. */
  const want = (part: Partial<Wanted>): void => {
    const { first, fileBite, ...rest } = now.value
    const settled = rest.events.length === 0 || first === undefined ? {} : { first }
    const asBefore = fileBite === undefined || part.fileId !== undefined ? {} : { fileBite }
    kept.value = { ...rest, ...settled, ...asBefore, ...part }
  }
  return { add, undo, want }
}

/**
 * Tells the loop's log, and so every device, that one side of it is sharp and the other is not, from the first cutter
 * on; where that was taken back, the log is told that too.
 */
function useBegun(
  { kept, now }: Pick<ReturnType<typeof useKept>, 'kept' | 'now'>,
  state: ComputedRef<LoopState | null>,
  plan: ComputedRef<SharpeningPlan | null>,
  walk: ComputedRef<ReturnType<typeof walkOf> | null>,
  /** The sharpening of the loop that ended this one; what is begun is then told no more. */
  overtaken: ComputedRef<unknown>,
) {
  const outbox = useOutbox()
  const writing = useWriting()
  /** The side of the first cutter that was worked; null while none was, or where the log knows that a side waits. */
  const side = computed(() => {
    if (plan.value === null || walk.value === null || plan.value.waiting !== null) return null
    const worked = [...walk.value.work].find(([, { done }]) => done)?.[0]
    return worked === undefined ? null : (state.value?.cutters[worked - 1]?.hand ?? null)
  })
  const entryOf = (id: string, loopId: string): NewBegun => ({
    id,
    loopId,
    happenedAt: new Date().toISOString(),
    personId: now.value.personId,
    kind: 'begun',
    side: side.value ?? 'left',
    ...(plan.value === null ? {} : { tool: plan.value.tool }),
  })
  /** What is said of the first cutter worked is written at once; a page that was reloaded has said it already. */
  watch(side, (is) => {
    const { begunId } = now.value
    const loopId = state.value?.loopId
    if (loopId === undefined || kept.value === null || overtaken.value !== null) return
    if (is !== null && begunId === undefined) {
      const id = nanoid()
      kept.value = { ...kept.value, begunId: id }
      void outbox.send([entryOf(id, loopId)])
    } else if (is === null && begunId !== undefined && now.value.events.length > 0) void nothingWasDone()
  })
  /** Nothing was filed after all: the log says so, and the loop is as it was. */
  async function nothingWasDone(): Promise<void> {
    const { begunId } = now.value
    const loopId = state.value?.loopId
    if (begunId === undefined || loopId === undefined || kept.value === null) return
    const { begunId: _gone, ...rest } = kept.value
    kept.value = rest
    await writing.strikeOut([entryOf(begunId, loopId)], 'Nothing was filed: as it was')
  }
  return { begunSide: side, nothingWasDone }
}

/** What the gauges are brought down to, once the edges have gone back as planned. */
const plateAsked = (state: LoopState | null, rules: HouseRules, plan: SharpeningPlan | null) =>
  state === null || plan === null ? null : { state, rules, middleUm: plan.gauges.middleUm, tool: plan.tool }

/** The sharpening of a loop that was logged after something was begun; null while there is none. */
function sharpenedSince(state: LoopState | null, begun: WalkEvent | undefined) {
  const last = state?.lastSharpened ?? null
  return begun !== undefined && last !== null && Date.parse(last.at) > Date.parse(begun.at) ? last : null
}

/**
 * The sharpening of a loop: its plan, where it stands, and what moves it on. What happens is kept on the device at
 * once, so that a reload, a flat battery or a dead server lose nothing, and by the server for other devices.
 *
 * @param fresh what is begun where nothing is under way
 */
export function useSharpening(
  tag: string,
  state: ComputedRef<LoopState | null>,
  rules: ComputedRef<HouseRules>,
  fresh: () => Pick<Wanted, 'action' | 'personId'>,
) {
  const { kept, now, wanted } = useKept(tag, state, rules, fresh)
  const fileUm = computed(() => {
    const setUp = planOf(state.value, rules.value, wanted.value)?.setUp
    return setUp?.with === 'file' ? setUp.fileUm : null
  })
  const used = useUsed(wanted, fileUm)
  const { mounted, sharpening, plan } = usePlan(state, rules, wanted, used)
  const walk = computed(() => (plan.value === null ? null : walkOf(plan.value, now.value.events)))
  /** The loop was sharpened after this was begun, on another device or in one go: what is left of it may be done. */
  const overtaken = computed(() => sharpenedSince(state.value, now.value.events[0]))
  const begun = useBegun({ kept, now }, state, plan, walk, overtaken)
  const elsewhere = useElsewhere(() => state.value?.loopId ?? null, kept)
  /** Whether it was left open since another day. */
  const leftOpen = computed(() => {
    const last = now.value.events.at(-1)
    return last !== undefined && Date.now() - Date.parse(last.at) > FORGOTTEN_MS
  })
  /** What it uses up, as the log names it: the file, or the wheel. */
  const usedIds = computed(() => {
    const thing = plan.value?.gives === 'touches' ? used.wheel.value : used.file.value
    return thing === undefined ? [] : [thing.id]
  })
  const fileAge = computed(() =>
    used.fileUsage.value === null ? undefined : fileAgeOf(used.fileUsage.value, used.kit.strokesLast),
  )
  return {
    now,
    plan,
    sharpening,
    walk,
    events: computed(() => now.value.events),
    used,
    usedIds,
    fileAge,
    mounted,
    there: elsewhere.there,
    leftOpen,
    overtaken,
    ...begun,
    plate: usePlate(() => plateAsked(state.value, rules.value, plan.value)),
    ...useMoves({ kept, now }, plan, used),
    end: (): void => {
      kept.value = null
      elsewhere.ended()
    },
    /** Goes on here with what is under way on another device. */
    takeOver: (there: UnderWay): void => {
      kept.value = there.walk
      elsewhere.take()
    },
  }
}

export type SharpeningHere = ReturnType<typeof useSharpening>
