import type { AnyNewEntry, Saw } from '@undercliff/contract'
import {
  fitCheck,
  TOOL_FACTS,
  type EntryBodies,
  type EntryKind,
  type LoopCard,
  type LoopState,
  type NewEntry,
  type NewSawEntry,
  type SawEntryBodies,
  type SawEntryKind,
  type SharpeningPlan,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, ref, shallowRef } from 'vue'
import { entriesFor } from '../../move/entriesFor'
import { keptRef } from '../../remote/keptRef'
import { useOutbox } from '../../remote/outbox'
import { sayingOf } from '../../remote/parcels'
import { FIRST_LOOK_MINUTES, useReminders } from '../../remote/reminders'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import { useWriting } from '../../remote/writing'
import { useDay } from './day'
import { lookOf, sayLook, type Looked } from './look'

/** How long what was just logged is taken back in the same place, in ms. */
const UNDO_MS = 60_000

/** Which of the saws that are here somebody used last comes first; where that is not known, what was logged last. */
function useSawOrder() {
  const shed = useShed()
  const session = useSession()
  const used = keptRef<Readonly<Record<string, readonly string[]>>>('undercliff:used-saws', {})
  const mine = computed(() => used.value[session.me?.personId ?? ''] ?? [])
  const saws = computed(() => {
    const place = ({ id }: Saw): number => {
      const at = mine.value.indexOf(id)
      return at === -1 ? mine.value.length : at
    }
    const latest = ({ id }: Saw): number => Date.parse(shed.loopOn(id)?.lastEntryAt ?? '') || 0
    return shed.saws.filter(({ gone }) => gone === null).sort((a, b) => place(a) - place(b) || latest(b) - latest(a))
  })
  /** Somebody has this saw in hand now. */
  function use(sawId: string): void {
    const personId = session.me?.personId ?? ''
    if (mine.value[0] === sawId) return
    used.value = { ...used.value, [personId]: [sawId, ...mine.value.filter((id) => id !== sawId)] }
  }
  return { saws, use }
}

/** What was just logged, while it can be taken back. */
interface Just {
  readonly text: string
  readonly entries: readonly AnyNewEntry[]
  /** What is undone besides the entries. */
  readonly undone: () => void
  /** It was kept on this device when it was logged, or in this page alone. */
  readonly became: 'sent' | 'kept' | 'held'
}

/** A glove that bounces presses twice within this, in ms. Starting value. */
const BOUNCE_MS = 400

/** Logging with one tap: it shows at once, whatever becomes of it, and is taken back in the same place. */
function useJust() {
  const outbox = useOutbox()
  const writing = useWriting()
  /** The latest last: once it is taken back, the one before can be. */
  const all = shallowRef<readonly Just[]>([])
  const wrong = ref('')
  let lastTap: { readonly saying: string; readonly atMs: number } | null = null
  const once = ref(false)

  const idOf = ({ entries }: Just): string => entries[0]?.id ?? ''
  const forget = (one: Just): void => {
    all.value = all.value.filter((other) => idOf(other) !== idOf(one))
  }
  const waits = computed(() => new Set(outbox.waiting.flatMap(({ entries }) => entries.map(({ id }) => id))))
  /** What is kept here is said only while it is. */
  const keptAs = (one: Just): string => {
    if (one.became === 'sent' || !waits.value.has(idOf(one))) return ''
    return one.became === 'held' ? '; kept here in this page alone' : '; kept here'
  }
  const just = computed(() => {
    const last = all.value.at(-1)
    if (last === undefined) return null
    const same = all.value.filter(({ text }) => text === last.text).length
    const times = same > 1 ? `, ${same} in a row` : ''
    return { text: `${last.text}${times}${once.value ? ', once: the second tap came too fast' : ''}${keptAs(last)}` }
  })

  async function log(entries: readonly AnyNewEntry[], text: string, undone = (): void => undefined): Promise<void> {
    wrong.value = ''
    const saying = sayingOf(entries)
    const atMs = performance.now()
    once.value = lastTap?.saying === saying && atMs - lastTap.atMs < BOUNCE_MS
    if (once.value) return
    lastTap = { saying, atMs }
    const mine: Just = { text, entries, undone, became: 'sent' }
    all.value = [...all.value, mine]
    setTimeout(() => {
      forget(mine)
    }, UNDO_MS)
    const sent = await outbox.send(entries, 'again')
    if (sent.outcome === 'refused') {
      wrong.value = sent.why
      forget(mine)
    } else {
      const { outcome } = sent
      all.value = all.value.map((one) => (idOf(one) === idOf(mine) ? { ...one, became: outcome } : one))
    }
  }
  async function undo(): Promise<void> {
    const taken = all.value.at(-1)
    if (taken === undefined) return
    once.value = false
    lastTap = null
    forget(taken)
    taken.undone()
    await writing.strikeOut(taken.entries, 'Undone')
  }
  return { just, wrong, log, undo }
}

/** Entries as they are written now, by whoever is at work on this device. */
function useEntries() {
  const session = useSession()
  const base = () => ({ id: nanoid(), happenedAt: new Date().toISOString(), personId: session.me?.personId ?? null })
  const ofLoop = <K extends EntryKind>(loopId: string, kind: K, body: EntryBodies[K]): NewEntry =>
    ({ ...base(), loopId, kind, ...body }) as unknown as NewEntry
  const ofSaw = <K extends SawEntryKind>(sawId: string, kind: K, body: SawEntryBodies[K]): NewSawEntry =>
    ({ ...base(), sawId, kind, ...body }) as unknown as NewSawEntry
  /** What puts a loop on a saw, and what is on it off. */
  const onto = (other: LoopCard, sawId: string, off: LoopCard | undefined, barFlipped: boolean): NewEntry[] => {
    const { personId, happenedAt: at } = base()
    const target = { to: 'saw', sawId, barFlipped, tensionChecked: false } as const
    return entriesFor(other, target, off, { personId, at, newId: nanoid })
  }
  return { ofLoop, ofSaw, onto }
}

/** What is sharp on the truck first, then what is sharp elsewhere, then what is due. */
const nearness = ({ place, action }: LoopCard): number =>
  (place.at === 'truck' ? 0 : place.at === 'sharpRack' ? 1 : 2) + (action === 'runOn' ? 0 : 4)

/** Whether a loop could go on a saw as both are. */
const couldGoOn = (card: LoopCard, saw: Saw): boolean =>
  !card.retired &&
  card.fitForUse &&
  card.sawId === null &&
  card.place.at !== 'shop' &&
  fitCheck(card.spec, saw, saw, card.fitForUse).level === 'fits'

/** The saws out there, and the one in hand with its loop. */
function useInHand() {
  const shed = useShed()
  const { saws, use } = useSawOrder()
  const picked = ref<string | null>(null)
  const saw = computed(() => saws.value.find(({ id }) => id === picked.value) ?? saws.value[0])
  const loop = computed(() => (saw.value === undefined ? undefined : shed.loopOn(saw.value.id)))
  /** Loops that fit and are fit, the sharpest and nearest first. */
  const others = computed((): readonly LoopCard[] => {
    const on = saw.value
    if (on === undefined) return []
    return shed.loops
      .filter((card) => couldGoOn(card, on))
      .sort((a, b) => nearness(a) - nearness(b) || a.tag.localeCompare(b.tag))
  })
  const take = (sawId: string): void => {
    picked.value = sawId
  }
  return { saws, saw, loop, others, take, use }
}

/** What a plan says of the tool and the file that a touch-up is logged with. */
type TouchUpPlan = Pick<SharpeningPlan, 'tool' | 'fileBite'>

interface SideStrokes {
  readonly left: number
  readonly right: number
}
/** A touch-up; a tool that brings the gauges down with every stroke is logged so by itself. */
function touchUpOf(strokes: SideStrokes, plan: TouchUpPlan | null) {
  const gaugesLowered = plan !== null && TOOL_FACTS[plan.tool].gaugesToo
  return {
    method: 'fileField',
    strokes,
    gaugesLowered,
    ...(gaugesLowered ? { tool: plan.tool } : {}),
    ...(plan === null || plan.fileBite === null ? {} : { fileBite: plan.fileBite }),
  } as const
}

/** How long so many tanks took, as somebody says. */
function saysHours(log: ReturnType<typeof useJust>['log'], ofSaw: ReturnType<typeof useEntries>['ofSaw']) {
  const shed = useShed()
  return (sawId: string, tanks: number, hours: number): void => {
    void log([ofSaw(sawId, 'hoursSaid', { tanks, hours })], `${hours} h for ${tanks} tanks of ${shed.sawName(sawId)}`)
  }
}

/** The saws out there, the one in hand, and what is logged of it by a tap or two. */
export function useField() {
  const reminders = useReminders()
  const day = useDay()
  const { use, ...hand } = useInHand()
  const { just, wrong, log, undo } = useJust()
  const { ofLoop, ofSaw, onto } = useEntries()
  /** What was logged is taken back, and what is due since then with it. */
  const unasked = (sawId: string, what: 'tension' | 'oil') => (): void => {
    reminders.settled(sawId, what)
  }
  /** Does something with the saw in hand and the loop on it; from then on this person used that saw last. */
  function withHand(act: (saw: Saw, loop: LoopCard) => void): void {
    const { saw, loop } = hand
    if (saw.value === undefined || loop.value === undefined) return
    use(saw.value.id)
    act(saw.value, loop.value)
  }
  const tank = (): void => {
    withHand((saw, { loopId, tag }) => {
      reminders.remindOil(saw.id)
      const body = { tanks: 1, conditions: day.value.conditions }
      void log([ofLoop(loopId, 'ran', body)], `A tank on ${tag} logged`, unasked(saw.id, 'oil'))
    })
  }
  const touchedUp = (strokes: SideStrokes, plan: TouchUpPlan | null = null): void => {
    withHand((saw, { loopId, tag }) => {
      reminders.remindTension(saw.id, FIRST_LOOK_MINUTES)
      const body = touchUpOf(strokes, plan)
      void log([ofLoop(loopId, 'sharpened', body)], `Touch-up of ${tag} logged`, unasked(saw.id, 'tension'))
    })
  }
  const struck = (against: EntryBodies['struck']['against']): void => {
    withHand((_saw, { loopId, tag }) => {
      void log([ofLoop(loopId, 'struck', { against })], `${tag} struck something: look it over`)
    })
  }
  const lookedOver = (found: Looked, state: Pick<LoopState, 'cutters' | 'parts'>): void => {
    withHand((_saw, { loopId, tag }) => {
      void log([ofLoop(loopId, 'inspected', lookOf(state, found))], sayLook(tag, found))
    })
  }
  const oiled = (): void => {
    if (hand.saw.value === undefined) return
    const { id, nickname } = hand.saw.value
    use(id)
    reminders.settled(id, 'oil')
    void log([ofSaw(id, 'oilFilled', {})], `Oil filled on ${nickname}`)
  }
  const swap = (other: LoopCard, barFlipped: boolean): void => {
    const { saw, loop } = hand
    if (saw.value === undefined) return
    const { id, nickname } = saw.value
    use(id)
    reminders.remindTension(id, FIRST_LOOK_MINUTES)
    const off = loop.value === undefined ? '' : `; ${loop.value.tag} came off`
    void log(onto(other, id, loop.value, barFlipped), `${other.tag} is on ${nickname}${off}`, unasked(id, 'tension'))
  }
  const hoursSaid = saysHours(log, ofSaw)
  return { day, ...hand, just, wrong, tank, touchedUp, struck, lookedOver, oiled, swap, hoursSaid, undo }
}

export type Field = ReturnType<typeof useField>
