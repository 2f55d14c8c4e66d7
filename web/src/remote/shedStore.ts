import {
  isChanges,
  withChanges,
  type Crew,
  type EntriesAnswer,
  type Person,
  type Saw,
  type ShedAnswer,
  type ShedChanges,
} from '@undercliff/contract'
import {
  DEFAULT_RULES,
  sayAgo,
  whatNext,
  withDefaults,
  type CrewProfile,
  type Figures,
  type HouseRules,
  type LoopCard,
} from '@undercliff/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { groupShed } from './groupShed'
import { KEPT_SHED, KEPT_SHEDS } from './keptShed'
import { keepUpWithLogs, keepUpWithSaws } from './logKeeper'
import { useOutbox } from './outbox'
import { useSession } from './sessionStore'
import { reckonerAtHand } from './reckoner'
import { hearToday } from './todaysEntries'
import { cardByLog, safeCards, unsentCards } from './unsentCards'
import { fetchShed, ServerAway, SignedOut } from './api'
import { forget as forgetKept, keep, keptJson, keptKeys } from './device'

const KEEP_AFTER_MS = 400
/** How long an answer will do for who only opens a screen, in ms. */
const FRESH_MS = 1000
/** How long logs that could not be read or kept wait for the next time, in ms. */
const LOGS_AGAIN_MS = 30_000
const HEARD = 'undercliff:heard'
/** The first and the last wait before a shed that did not answer is asked again, in ms. */
const FIRST_WAIT_MS = 2000
const LAST_WAIT_MS = 30_000
/** How long what was logged here may be on its way before it is drawn as if it had arrived, in ms. */
const UNSENT_AFTER_MS = 1500
/** The same where it is known that nothing answers: as soon as the tap has its answer. */
const UNSENT_AWAY_MS = 150
/** How long what somebody else changed is marked, in ms. */
const MARKED_MS = 30_000

/** The whole shed as the server last told it; the last answer is kept for when it is away. */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useShed = defineStore('shed', () => {
  const answer = shallowRef<ShedAnswer | null>(keptJson<ShedAnswer>(KEPT_SHED))
  const away = ref(false)
  /** When the server was last heard, ms since 1970; null where it never was. */
  const heardAt = ref(keptJson<number>(HEARD))
  const loaded = ref(false)
  /** What went wrong on the server when it was asked last; null when nothing did. */
  const fault = ref<string | null>(null)

  let asked = 0
  let latest: Promise<void> = Promise.resolve()
  /** The number of the latest question while it has no answer; null when none is on its way. */
  let open: number | null = null
  /** When it was last heard, by a clock that nobody sets. */
  let heardMs = -Infinity
  let waitMs = FIRST_WAIT_MS
  let again: ReturnType<typeof setTimeout> | undefined
  /** Answers to entries that were taken. */
  let taken = 0

  /** Keeps the answer on the device once nobody waits for the page. */
  function keepSoon(): void {
    clearTimeout(keeping)
    keeping = setTimeout(() => void keepNow(), KEEP_AFTER_MS)
  }
  let keeping: ReturnType<typeof setTimeout> | undefined
  function heard(): void {
    heardAt.value = Date.now()
    heardMs = performance.now()
    void keep(HEARD, String(heardAt.value))
  }
  /**
   * When what the crew wrote is to be read on although nothing changed: once a page, since the one before may have
   * been left in the middle of it, and after a while where it could not be read or kept.
   */
  let logsDueMs = 0
  /** Logs are read on once nobody waits for the page. */
  function keepLogsSoon(): void {
    const crewId = session.me?.crewId
    if (crewId === undefined) return
    logsDueMs = Infinity
    setTimeout(() => {
      reckonerAtHand()
      void keepUpWithLogs(crewId).then(async (logs) => {
        const kept = (await keepUpWithSaws(saws.value)) && logs
        if (!kept) logsDueMs = performance.now() + LOGS_AGAIN_MS
      })
    }, KEEP_AFTER_MS)
  }
  /** Where the device has no room, the shed is asked for anew when the page is opened; half of it is not kept. */
  async function keepNow(): Promise<void> {
    if (answer.value === null) return
    if ((await keep(KEPT_SHED, JSON.stringify(answer.value))) !== 'kept') forgetKept(KEPT_SHED)
  }

  /**
   * Asks for the shed, and settles once the latest question is answered: whoever waits for it has it then,
   * however many asked meanwhile.
   */
  async function load(): Promise<void> {
    asked += 1
    const mine = asked
    open = mine
    latest = ask(mine)
    await settled()
  }

  async function settled(): Promise<void> {
    let before
    do {
      before = latest
      await before
    } while (before !== latest)
  }

  /** As {@link load} for who only opens a screen: a question on its way will do, and so will an answer just heard. */
  async function look(): Promise<void> {
    const fresh = loaded.value && !away.value && performance.now() - heardMs < FRESH_MS
    if (open !== null) await settled()
    else if (!fresh) await load()
  }

  /** Loops that somebody else changed while they were looked at; marked for a while. */
  const changed = shallowRef<ReadonlySet<string>>(new Set())
  let unmark: ReturnType<typeof setTimeout> | undefined
  function markChanged(next: ShedAnswer): void {
    if (answer.value === null || !loaded.value) return
    const before = new Map(answer.value.loops.map(({ loopId, lastEntryAt }) => [loopId, lastEntryAt]))
    const ids = next.loops.filter(({ loopId, lastEntryAt }) => before.get(loopId) !== lastEntryAt)
    if (ids.length === 0) return
    changed.value = new Set([...changed.value, ...ids.map(({ loopId }) => loopId)])
    clearTimeout(unmark)
    unmark = setTimeout(() => (changed.value = new Set()), MARKED_MS)
  }

  /** The shed that is known with what changed: since the place that was asked for, which a question does not lose. */
  function changedBy(changes: ShedChanges): ShedAnswer {
    const before = answer.value
    if (before?.place !== changes.since) throw new Error('changes since a place that is not known')
    return withChanges(before, changes)
  }

  /**
   * Puts the question. An answer that is overtaken by a later question is dropped; one that entries
   * overtook while it was on its way is asked for again.
   */
  async function ask(mine: number): Promise<void> {
    const before = taken
    try {
      const news = await fetchShed(answer.value?.place ?? null)
      if (mine !== asked) return
      open = null
      if (before !== taken) {
        await load()
        return
      }
      if (news !== null) {
        const shed = isChanges(news) ? changedBy(news) : news
        markChanged(shed)
        answer.value = shed
        keepSoon()
      }
      if (news !== null || performance.now() >= logsDueMs) keepLogsSoon()
      heard()
      away.value = false
      waitMs = FIRST_WAIT_MS
      fault.value = null
      loaded.value = true
    } catch (error) {
      if (mine !== asked) return
      open = null
      away.value = error instanceof ServerAway
      if (away.value) askAgain()
      fault.value = away.value || error instanceof SignedOut ? null : (error as Error).message
    }
  }

  /** Asks again by itself, less and less often, until there is an answer. */
  function askAgain(): void {
    clearTimeout(again)
    again = setTimeout(() => void load(), waitMs)
    waitMs = Math.min(LAST_WAIT_MS, waitMs * 2)
  }

  /** Asks whether anything changed, while somebody looks; nothing did costs the server next to nothing. */
  function keepFresh(): void {
    if (loaded.value && !away.value && document.visibilityState === 'visible') void load()
  }

  /** Asks at once, when there is reason to think that the server can be reached again. */
  function hurry(): void {
    waitMs = FIRST_WAIT_MS
    if (away.value) void load()
  }

  /** Takes what entries changed, so that the whole shed need not be asked for anew. */
  function take({ entries, cards, saws: changed }: EntriesAnswer): void {
    taken += 1
    hearToday(entries.filter((entry) => 'loopId' in entry))
    if (answer.value === null) return
    const replaced = <T>(all: readonly T[], some: readonly T[], idOf: (one: T) => string): T[] => {
      const byId = new Map(some.map((one) => [idOf(one), one]))
      const kept = all.map((one) => byId.get(idOf(one)) ?? one)
      const known = new Set(all.map(idOf))
      return [...kept, ...some.filter((one) => !known.has(idOf(one)))]
    }
    answer.value = {
      ...answer.value,
      loops: replaced(answer.value.loops, cards, ({ loopId }) => loopId),
      saws: replaced(answer.value.saws, changed, ({ id }) => id),
    }
    keepSoon()
  }
  const outbox = useOutbox()
  const session = useSession()
  outbox.onWritten(take)
  outbox.onSentElsewhere(() => void load())

  /** Forgets everything, when another crew signs in. */
  function forget(): void {
    asked += 1
    open = null
    clearTimeout(keeping)
    clearTimeout(again)
    answer.value = null
    loaded.value = false
    logsDueMs = 0
  }

  /** How old it is; of use while the server is away. */
  const age = (): string => (heardAt.value === null ? 'before' : sayAgo(Date.now() - heardAt.value))

  const crew = computed<Crew | null>(() => answer.value?.crew ?? null)
  /** House rules, or those that ship while the shed has not answered. */
  const rules = computed<HouseRules>(() => crew.value?.rules ?? DEFAULT_RULES)
  const people = computed<readonly Person[]>(() => answer.value?.people ?? [])
  const saws = computed<readonly Saw[]>(() => answer.value?.saws ?? [])
  const profiles = computed<readonly CrewProfile[]>(() => answer.value?.profiles ?? [])
  /** Loops of which something waits on this device, as they will be once it has gone home. */
  const unsent = shallowRef<ReadonlyMap<string, LoopCard>>(new Map())
  /** Loops of which something waits, and whose cards cannot be worked out on this device: why. */
  const unworked = shallowRef<ReadonlyMap<string, string>>(new Map())
  const loops = computed<readonly LoopCard[]>(() => {
    const told = answer.value?.loops ?? []
    if (unsent.value.size === 0) return told
    const known = new Set(told.map(({ loopId }) => loopId))
    const fresh = [...unsent.value.values()].filter(({ loopId }) => !known.has(loopId))
    return [...told.map((card) => unsent.value.get(card.loopId) ?? card), ...fresh]
  })
  let unsentTimer: ReturnType<typeof setTimeout> | undefined
  let unsentAsked = 0
  async function drawUnsent(): Promise<void> {
    unsentAsked += 1
    const mine = unsentAsked
    const entries = outbox.waiting.flatMap((parcel) => parcel.entries)
    const told = new Map((answer.value?.loops ?? []).map((card) => [card.loopId, card]))
    const { cards, unworked: without } = await unsentCards(entries, rules.value, told)
    if (mine !== unsentAsked) return
    unsent.value = cards
    unworked.value = without
  }
  // What goes home at once is drawn from the answer.
  watch(
    () => [outbox.waiting, away.value] as const,
    ([waiting, isAway]) => {
      clearTimeout(unsentTimer)
      if (waiting.length === 0 && unsent.value.size === 0) return
      // A strike keeps a saw off at once, whatever is worked out behind it.
      const shown = new Map(loops.value.map((card) => [card.loopId, card]))
      const safe = safeCards(
        waiting.flatMap((parcel) => parcel.entries),
        shown,
      )
      if (safe.size > 0) unsent.value = new Map([...unsent.value, ...safe])
      unsentTimer = setTimeout(() => void drawUnsent(), isAway ? UNSENT_AWAY_MS : UNSENT_AFTER_MS)
    },
  )
  /** A version before this one kept the shed: its cards are worked out anew from the logs that are kept too. */
  async function readOlder(): Promise<void> {
    const older = keptKeys(KEPT_SHEDS).findLast((key) => key !== KEPT_SHED)
    const shed = older === undefined ? null : keptJson<ShedAnswer>(older)
    if (shed === null || answer.value !== null) return
    const cards: LoopCard[] = []
    try {
      for (const { loopId } of shed.loops) {
        const card = await cardByLog(loopId, [], withDefaults(shed.crew.rules))
        if (card !== null) cards.push(card)
      }
    } catch {
      // What cannot be worked out now stays where it is kept, for another time.
      return
    }
    // An answer that came meanwhile is newer.
    if ((answer.value as ShedAnswer | null) === null && cards.length > 0) answer.value = { ...shed, loops: cards }
    for (const key of keptKeys(KEPT_SHEDS)) if (key !== KEPT_SHED) forgetKept(key)
    keepSoon()
  }
  if (answer.value === null) void readOlder()
  /** Worked out once for each answer, however often a screen that shows it is opened. */
  const grouped = computed(() => groupShed(saws.value, loops.value))
  const due = computed(() => whatNext(loops.value))
  const lengths = computed(() => crew.value?.lengths ?? 'mm')
  const dates = computed(() => crew.value?.dates ?? 'dayFirst')
  /** How this crew reads lengths and money. */
  const figures = computed<Figures>(() => ({
    lengths: lengths.value,
    currency: rules.value.currency,
  }))
  const bareUnit = computed((): 'mm' | 'inch' => (lengths.value === 'inch' ? 'inch' : 'mm'))
  const byTag = computed(() => new Map(loops.value.map((loop) => [loop.tag, loop])))
  const loopByTag = (tag: string): LoopCard | undefined => byTag.value.get(tag)
  /** Who is at work on this device. */
  const meId = (): string | null => session.me?.personId ?? null
  const nameOf = (personId: string | null): string =>
    people.value.find(({ id }) => id === personId)?.name ?? 'nobody named'
  const bySawId = computed(() => new Map(saws.value.map((saw) => [saw.id, saw])))
  const sawName = (sawId: string): string => bySawId.value.get(sawId)?.nickname ?? 'a saw'
  /** Where two are said to be on one saw, the first of them. */
  const onSaws = computed(
    () => new Map(loops.value.flatMap((loop) => (loop.sawId === null ? [] : [[loop.sawId, loop] as const])).reverse()),
  )
  const loopOn = (sawId: string): LoopCard | undefined => onSaws.value.get(sawId)

  return {
    answer,
    age,
    away,
    fault,
    loaded,
    load,
    look,
    hurry,
    keepFresh,
    take,
    forget,
    crew,
    rules,
    people,
    saws,
    profiles,
    loops,
    unworked,
    changed,
    grouped,
    due,
    lengths,
    dates,
    figures,
    bareUnit,
    loopByTag,
    meId,
    nameOf,
    sawName,
    loopOn,
  }
})
