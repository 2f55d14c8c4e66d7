<script setup lang="ts">
import {
  checkCutter,
  CUTTER_DAMAGE_KINDS,
  costsForNothing,
  cutterName,
  damageName,
  oddAngles,
  oddReading,
  READING_DOUBTS,
  readAngle,
  readLength,
  readMeasured,
  sayCount,
  sayRecheck,
  sayRefusal,
  writeLength,
  type CutterDamageKind,
  type CutterJob,
  type HouseRules,
  type LoopState,
} from '@undercliff/core'
import { computed, nextTick, onMounted, onUnmounted, ref, watch } from 'vue'
import CaliperBar from '../../parts/caliper/CaliperBar.vue'
import SelectField from '../../parts/SelectField.vue'
import { useShed } from '../../remote/shedStore'
import CutterInHand from './CutterInHand.vue'
import type { SharpeningHere } from './sharpening'

/** The step, or the cutter, in hand: what it gets, what it measured, and on to the next by key, tap or pedal. */
const props = defineProps<{ here: SharpeningHere; state: LoopState; rules: HouseRules }>()
const shed = useShed()
const { plan, walk, events, add, undo } = props.here
const step = computed(() => walk.value?.step ?? null)
const inSide = computed(() => step.value?.hand != null)
const checking = computed(() => step.value?.id === 'recheck')
/** The stop is found on the worst cutter: what it reads once it is clean is the stop. */
const stopping = computed(() => step.value?.id === 'stop')
/** The cutter in hand came out long, and is gone back to. */
const long = computed(() => walk.value?.long.find(({ number }) => number === job.value?.number) ?? null)
const checked = computed(() => (checking.value ? (walk.value?.check ?? null) : null))
const job = computed(() => walk.value?.cutter ?? (plan.value === null ? null : checkCutter(plan.value)))

const typed = ref('')
const field = ref<HTMLInputElement | null>(null)
const onward = ref<HTMLButtonElement | null>(null)
const refused = ref('')
/** The reading that somebody was asked about: typed again it stands. */
const asked = ref('')
/** The reading was asked about, and read so again. */
const confirmed = ref(false)
const isBefore = ref(false)
const damaging = ref(false)
/** Strokes more or fewer than planned, and those that were counted one by one. */
const moreStrokes = ref(0)
const counted = ref(0)
const MOST = 500
const count = computed(() => {
  if (counted.value > 0) return Math.min(MOST, counted.value)
  return Math.min(MOST, Math.max(0, (walk.value?.cutter?.count ?? 0) + moreStrokes.value))
})
/** Going on says that it is clean, where nothing else tells: no stop, and no strokes that are counted. */
const cleanByGoing = computed(
  () => job.value?.untilClean === true && plan.value?.gives === 'touches' && plan.value.stopUm === null,
)
const onwardSays = computed(() => {
  if (inSide.value) return cleanByGoing.value ? 'It is clean: next cutter' : 'Next cutter'
  return stopping.value || (checking.value && checked.value === null) ? 'It reads so' : 'Done, next'
})
const clean = computed(() => walk.value?.work.get(job.value?.number ?? 0)?.clean === true)
/** A stroke too many costs length and brings nothing. */
const tooMany = computed(() => {
  const [current, one] = [walk.value, job.value]
  if (current === null || one === null || plan.value?.gives !== 'strokes' || !inSide.value) return false
  const over = count.value - one.count
  const leftUm = one.targetUm - over * current.worth[one.hand].meanUm
  return over > 0 && (costsForNothing(one, leftUm, clean.value) || (!one.untilClean && over >= Math.max(3, one.count)))
})
watch(
  [() => walk.value?.cutter?.number, () => step.value?.id],
  async () => {
    moreStrokes.value = counted.value = 0
    isBefore.value = damaging.value = false
    typed.value = refused.value = asked.value = ''
    await nextTick()
    const next = field.value ?? onward.value
    next?.focus({ preventScroll: true })
  },
  { immediate: true },
)

/** What a stroke is worth today, once readings have changed it by as much as a person would notice. */
const NOTICED = 0.1
const worthSaid = computed(() => {
  const [current, one] = [walk.value, walk.value?.cutter]
  if (plan.value?.gives !== 'strokes' || current == null || one == null) return ''
  const [before, today] = [plan.value.bites[one.hand], current.worth[one.hand].meanUm]
  if (Math.abs(today - before) < NOTICED * before) return ''
  const usual = plan.value.sides
    .find(({ hand }) => hand === one.hand)
    ?.cutters.find(({ number }) => number === one.number)
  const instead = usual === undefined || usual.count === one.count ? '' : `: ${one.count} instead of ${usual.count}`
  const part = Math.round((Math.abs(today - before) / before) * 100)
  return `A stroke takes ${part} % ${today < before ? 'less' : 'more'} than usual today${instead}.`
})
const angles = computed(() =>
  walk.value === null ? [] : plan.value === null ? [] : oddAngles(props.state.spec, plan.value, walk.value),
)
const ripping = computed(() => props.state.spec.cutterType === 'ripping')
const nameOf = (number: number): string => cutterName(number, props.state.cutters[number - 1]?.hand ?? 'left')

/** Says what is wrong with a reading; typing replaces it, as a caliper does that is read again. */
function refuse(why: string): false {
  refused.value = why
  field.value?.select()
  return false
}
/** The reading that is typed; null for none, and false where it cannot be, which is said. */
function reading(one: CutterJob, worked: boolean): number | null | false {
  const text = typed.value.trim()
  if (text === '') return null
  const read = readMeasured(text, shed.bareUnit)
  if (!read.ok) return refuse(sayRefusal(read))
  // A stop is where it ends: what is read there is not held against what was planned.
  const odd = oddReading(one, read.um, worked)
  const stands = odd === null || (stopping.value && odd === 'tooShort')
  confirmed.value = asked.value === text
  if (stands || confirmed.value) return read.um
  asked.value = text
  return refuse(`${writeLength(read.um, shed.lengths)}: ${READING_DOUBTS[odd]} Enter again keeps it.`)
}

/** A reading as it is kept: said to be right where it was asked about. */
const readAs = (cutter: number, um: number) =>
  ({ kind: 'read', cutter, um, ...(confirmed.value ? { confirmed: true } : {}) }) as const

/** An angle that was measured at the cutter in hand: typed with its sign, it is no length. */
function tookAngle(one: CutterJob): boolean {
  const deg = readAngle(typed.value)
  if (deg === null) return false
  add({ kind: 'angle', cutter: one.number, deg })
  typed.value = ''
  return true
}

/** What the check reads; where both sides read alike it goes straight on. */
function takeCheck(cutter: number, um: number): void {
  add(readAs(cutter, um))
  if (checked.value?.alike === true) add({ kind: 'done' })
}
function goChecking(one: CutterJob): void {
  const um = reading(one, true)
  if (um === false) return
  if (um !== null) takeCheck(one.number, um)
  else if (checked.value !== null) add({ kind: 'done' })
  else refused.value = 'Measure it, or say that it goes on unchecked.'
  typed.value = ''
}

/** What the worst cutter reads is the stop; nobody has to read it where the plan knew how deep it goes. */
function goStopping(one: CutterJob): void {
  const um = reading(one, true)
  if (um === false) return
  typed.value = ''
  if (um === null && plan.value?.stopUnknown === true) {
    refused.value = 'Read it once it is clean: nobody knows the stop before.'
    return
  }
  if (um !== null) add(readAs(one.number, um), { kind: 'done' })
  else add({ kind: 'done' })
}

/** Goes on: with what is typed for the cutter in hand, or to the next step. */
function go(): void {
  const one = walk.value?.cutter ?? null
  if (one === null || plan.value === null) {
    add({ kind: 'done' })
    return
  }
  if (tookAngle(one)) return
  if (checking.value || stopping.value) {
    if (checking.value) goChecking(one)
    else goStopping(one)
    return
  }
  const um = reading(one, !isBefore.value)
  if (um === false) return
  refused.value = asked.value = typed.value = ''
  if (um !== null && isBefore.value) {
    add(readAs(one.number, um))
    isBefore.value = false
    return
  }
  const given = moreStrokes.value === 0 && counted.value === 0 ? {} : { count: count.value }
  add({ kind: 'done', ...given }, ...(um === null ? [] : [readAs(one.number, um)]))
}
/** Steps from here to the first cutter; nothing once one was in hand. */
const before = computed(() => {
  const at = walk.value?.at ?? 0
  const first = plan.value?.steps.findIndex(({ id, hand }) => hand !== null || id === 'stop') ?? 0
  return first - at
})
function toFirstCutter(): void {
  add(...Array.from({ length: Math.max(0, before.value) }, () => ({ kind: 'done' as const })))
}
const inASide = (act: () => void) => (): void => {
  if (inSide.value) act()
}
const KEYS: Readonly<Record<string, () => void>> = {
  Enter: go,
  ' ': go,
  PageDown: go,
  '+': () => (moreStrokes.value += 1),
  '-': () => (moreStrokes.value -= 1),
  '*': inASide(() => (counted.value += 1)),
  a: toFirstCutter,
  u: undo,
  b: () => {
    add({ kind: 'back' })
  },
  s: inASide(() => {
    add({ kind: 'skip' })
  }),
  c: inASide(() => {
    add({ kind: 'clean' })
  }),
  d: inASide(() => {
    damaging.value = !damaging.value
  }),
  m: () => {
    isBefore.value = !isBefore.value
  },
}
function key(event: KeyboardEvent): void {
  const act = KEYS[event.key]
  // `11d` is an angle that is being typed.
  const angle = event.key === 'd' && typed.value.trim() !== ''
  if (act === undefined || angle || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  event.stopPropagation()
  act()
}
/** A pedal types wherever the cursor is; nothing that has its own use of a key is robbed of it. */
function pedal(event: KeyboardEvent): void {
  const { target } = event
  if (target instanceof HTMLElement && target.closest('input, textarea, select, button, a, summary') !== null) return
  if (['Enter', ' ', 'PageDown'].includes(event.key)) key(event)
}
/** A tap anywhere on the lower half goes on, unless it is on something. */
function tap(event: PointerEvent): void {
  if (event.pointerType !== 'touch' || event.clientY < window.innerHeight / 2 || !inSide.value) return
  const { target } = event
  if (!(target instanceof Element) || target.closest('button, a, input, select, summary, label, nav') !== null) return
  go()
}
onMounted(() => {
  window.addEventListener('keydown', pedal)
  window.addEventListener('pointerup', tap)
})
onUnmounted(() => {
  window.removeEventListener('keydown', pedal)
  window.removeEventListener('pointerup', tap)
})

function fromCaliper(um: number): void {
  if (job.value === null || (!inSide.value && !checking.value && !stopping.value)) return
  typed.value = writeLength(um, shed.bareUnit)
  go()
}

const kind = ref<CutterDamageKind>('chipped')
const kinds = CUTTER_DAMAGE_KINDS.map((value) => ({ value, label: damageName(value) }))
const depth = ref('')
function takeDamage(): void {
  if (job.value === null) return
  const read = depth.value.trim() === '' ? null : readLength(depth.value, shed.bareUnit)
  if (read !== null && !read.ok) {
    refused.value = sayRefusal(read)
    return
  }
  refused.value = ''
  const damage = { kind: kind.value, depthUm: read?.um ?? null }
  add({ kind: 'damage', cutter: job.value.number, damage })
  damaging.value = false
  depth.value = ''
}
</script>

<template>
  <template v-if="plan && walk && step">
    <template v-if="(inSide || checking || stopping) && job">
      <button type="button" class="in-hand" :aria-label="`One stroke on ${nameOf(job.number)}`" @click="counted += 1">
        <span class="cutter" data-in-hand>
          <strong class="figures">{{ nameOf(job.number) }}</strong>
          <span v-if="inSide" class="figures gives">{{ sayCount({ ...job, count }, plan) }}</span>
          <span v-if="!job.depthUnknown" class="soft figures"
            >to {{ stopping ? 'about ' : '' }}{{ writeLength(job.targetUm, shed.lengths) }}</span
          >
          <span v-if="counted > 0" class="figures">counted</span>
        </span>
        <CutterInHand
          :job="job"
          :new-length-um="state.spec.newLengthUm"
          :mark-length-um="state.spec.markLengthUm"
          :lengths="shed.lengths"
        />
      </button>
      <p v-if="worthSaid" class="worth" role="status">{{ worthSaid }}</p>
      <p v-if="tooMany" class="caution" role="status">
        That takes a whole sharpening more than it needs. Is the edge clean? Then go on to the next.
      </p>
      <p v-for="odd in angles" :key="odd.cutter" class="caution" role="status">
        {{ nameOf(odd.cutter) }} stands at {{ odd.deg }}°, the others at {{ odd.wantedDeg }}°{{
          ripping ? ': ripping chain jumps by one degree' : ''
        }}. Bring it to {{ odd.wantedDeg }}°.
      </p>
      <p v-if="long && !checking" class="caution" role="status" data-long>
        {{ nameOf(long.number) }} came out {{ writeLength(long.byUm, shed.lengths) }} long: it is gone back to until it
        is right.
        {{ plan.stopUm === null ? '' : 'The stop may have moved: look at it first.' }}
      </p>
      <p v-if="checked" class="caution" role="status">{{ sayRecheck(checked, plan, shed.figures) }}</p>
      <label class="read"
        ><span
          >{{
            isBefore
              ? 'Length before it is worked'
              : stopping
                ? 'What it reads once it is clean: the stop'
                : 'Length after'
          }}
          <span v-if="!checking && !stopping" class="soft">if you measure it</span></span
        >
        <input
          ref="field"
          v-model="typed"
          data-reading
          class="plain figures"
          inputmode="decimal"
          autocomplete="off"
          @keydown="key"
      /></label>
      <p v-if="refused" class="stop-text" role="alert">{{ refused }}</p>
      <CaliperBar :take="fromCaliper" />
    </template>
    <div class="row">
      <button v-if="before > 0" type="button" class="act" @click="toFirstCutter">
        All of that is done: to the first cutter <kbd class="keys-only">a</kbd>
      </button>
      <template v-if="inSide">
        <button type="button" class="act" aria-label="One stroke fewer" @click="moreStrokes -= 1">−</button>
        <button type="button" class="act" aria-label="One stroke more" @click="moreStrokes += 1">+</button>
        <button
          v-if="job?.untilClean && !cleanByGoing"
          type="button"
          class="act"
          :aria-pressed="clean"
          @click="add({ kind: 'clean' })"
        >
          Clean <kbd class="keys-only">c</kbd>
        </button>
        <button type="button" class="act" @click="add({ kind: 'skip' })">Skip <kbd class="keys-only">s</kbd></button>
        <button type="button" class="act" :aria-pressed="isBefore" @click="isBefore = !isBefore">
          Measure before <kbd class="keys-only">m</kbd>
        </button>
        <button type="button" class="act" :aria-expanded="damaging" @click="damaging = !damaging">
          Damage … <kbd class="keys-only">d</kbd>
        </button>
      </template>
      <button v-if="checking && !checked" type="button" class="act" @click="add({ kind: 'unchecked' })">
        Go on unchecked
      </button>
      <button v-if="walk.at > 0 || walk.place > 0" type="button" class="act" @click="add({ kind: 'back' })">
        Back <kbd class="keys-only">b</kbd>
      </button>
      <button v-if="events.length > 0" type="button" class="act" @click="undo">
        Undo <kbd class="keys-only">u</kbd>
      </button>
    </div>
    <form v-if="damaging && job" class="row damage" @submit.prevent="takeDamage">
      <SelectField v-model="kind" class="kinds" :options="kinds" :aria-label="`Damage of ${nameOf(job.number)}`" />
      <label>Deep <input v-model="depth" class="plain figures deep" inputmode="decimal" autocomplete="off" /> </label>
      <button type="submit" class="act small">Found it</button>
    </form>
    <button ref="onward" type="button" class="act next go" @click="go" @keydown="key">
      {{ onwardSays }}
      <kbd class="keys-only">Enter</kbd>
    </button>
  </template>
</template>

<style scoped>
.in-hand {
  display: block;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.cutter {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: baseline;
}
.cutter strong {
  font-size: 2.6rem;
}
.gives {
  font-size: 1.9rem;
  font-weight: 700;
}
.worth {
  margin: 0;
  font-weight: 700;
}
.read {
  display: grid;
  gap: 4px;
  font-weight: 700;
}
.read input {
  font-size: 1.6rem;
  min-height: 56px;
}
.damage {
  align-items: center;
}
.kinds {
  width: 14em;
}
.deep {
  width: 6em;
}
.go {
  font-size: 1.25rem;
  min-height: 64px;
  width: 100%;
}
@media (max-width: 700px) {
  .go {
    position: sticky;
    bottom: calc(var(--foot) + 6px);
  }
}
</style>
