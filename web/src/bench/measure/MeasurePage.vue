<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { keptRef } from '../../remote/keptRef'
import {
  ACTION_WORDS,
  cutterName,
  damageName,
  decide,
  fold,
  forecast,
  sayDamage,
  sayHeld,
  sayRange,
  sayReason,
  writeLength,
  type Chosen,
  type LoopState,
  type ReadWith,
} from '@undercliff/core'
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import CaliperBar from '../../parts/caliper/CaliperBar.vue'
import LoopAway from '../../parts/LoopAway.vue'
import LoopMap from '../../parts/LoopMap.vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import VerdictPanel from '../../parts/VerdictPanel.vue'
import WhoField from '../../parts/WhoField.vue'
import { useOpenLoop } from '../../remote/openLoop'
import { COMMONEST_DAMAGE, DAMAGE_KEYS, WALK_KEYS } from '../../parts/keys'
import NumberPad from './NumberPad.vue'
import VerdictMark from '../../parts/VerdictMark.vue'
import { useNotices } from '../../remote/notices'
import * as walking from './walk'

const WHY = [
  { value: false, label: 'As they came' },
  { value: true, label: 'They look shortest' },
] as const
const ORDERS = [
  { value: 'round', label: 'All round' },
  { value: 'sides', label: 'One side first' },
] as const satisfies readonly { value: walking.WalkOrder; label: string }[]
const WITH = [
  { value: 'caliper', label: 'Caliper' },
  { value: 'ruler', label: 'Ruler' },
  { value: 'eye', label: 'By eye' },
] as const satisfies readonly { value: ReadWith; label: string }[]
const props = defineProps<{ tag: string }>()
const router = useRouter()
const notices = useNotices()
const { loop, shed, rules } = useOpenLoop(() => props.tag)

/** The loop as it was before the walk; the walk is laid over it. */
const base = computed<LoopState | null>(() => loop.state)
const walkLoop = computed<walking.WalkLoop | null>(() =>
  base.value === null ? null : { spec: base.value.spec, cutters: base.value.cutters, bare: shed.bareUnit },
)

/** The draft lives on the device, so that a reload, a flat battery or a dropped phone keep it. */
const draft = keptRef<walking.Walk | null>(`undercliff:walk:${props.tag}`, null, {
  serializer: { read: (text) => JSON.parse(text) as walking.Walk | null, write: (walk) => JSON.stringify(walk) },
})
const lastOrder = keptRef<walking.WalkOrder>('undercliff:walkOrder', 'round')
const walk = computed<walking.Walk | null>(
  () => draft.value ?? (base.value === null ? null : walking.beginWalk(base.value.cutters, lastOrder.value)),
)
const history = shallowRef<readonly walking.Walk[]>([])
const typed = ref('')
const who = ref<string | null>(null)
const refused = ref('')
const field = ref<HTMLInputElement | null>(null)
/** Where a pad of our own stands below the field, and the phone's keyboard stays away. */
const narrow = useMediaQuery('(max-width: 700px)')
const allDamage = ref(false)
const damageKeys = computed(() =>
  narrow.value && !allDamage.value ? DAMAGE_KEYS.slice(0, COMMONEST_DAMAGE) : DAMAGE_KEYS,
)

function step(change: (walk: walking.Walk, loop: walking.WalkLoop) => walking.Walk): void {
  if (walk.value === null || walkLoop.value === null) return
  const after = change(walk.value, walkLoop.value)
  if (after === walk.value) return
  history.value = [...history.value.slice(-200), walk.value]
  draft.value = after
  refused.value = ''
}
function press(): void {
  const text = typed.value
  typed.value = ''
  if (here.value === null) void save()
  else {
    step((current, of) => {
      const after = walking.enter(current, of, text)
      const um = walking.justRead(current, after)
      const doubtful = um === null ? null : doubtfulOf(after, current, um)
      return um === null || doubtful === null ? after : walking.askAgain(current, um, doubtful)
    })
    // What could not be read stays in the field, to be put right.
    if (walk.value?.unread === true) typed.value = text
  }
}
/** A caliper does not read another cutter sooner than this, in ms. Starting value. */
const AT_ONCE_MS = 500
let lastRead = { um: -1, atMs: -Infinity }
/** Why a length is asked about while the caliper is still on the cutter: nothing that is known explains it. */
function doubtfulOf(after: walking.Walk, before: walking.Walk, um: number): walking.Doubtful | null {
  const [number, atMs] = [walking.cutterInHand(before), performance.now()]
  const twice = lastRead.um === um && atMs - lastRead.atMs < AT_ONCE_MS
  lastRead = { um, atMs }
  if (twice) return { why: 'twice' }
  const said = { ...body.value, readings: walking.readingsOf(after), personId: null }
  const then = number === null ? null : fold([...loop.entries, loop.provisional(said)])
  const held = then?.held.find((one) => one.cutter === number && one.um === um)
  if (held === undefined || then === null) return null
  const byUm = um - (then.cutters[held.cutter - 1]?.length.um ?? um)
  return { why: byUm < 0 ? 'shorter' : 'longer', byUm: Math.abs(byUm) }
}
/** A caliper over a cable reads the cutter in hand, as one that types does. */
function fromCaliper(um: number): void {
  typed.value = writeLength(um, shed.bareUnit)
  press()
}
function undo(): void {
  const before = history.value[history.value.length - 1]
  if (before === undefined) return
  history.value = history.value.slice(0, -1)
  draft.value = before
}
/** Nothing that was read here is kept, until somebody undoes it. */
function throwAway(): void {
  if (walk.value === null || base.value === null) return
  const thrown = walk.value
  history.value = [...history.value.slice(-200), thrown]
  draft.value = walking.beginWalk(base.value.cutters, thrown.order)
  typed.value = ''
  const count = walking.readingsOf(thrown).length
  notices.say(`${count} ${count === 1 ? 'reading' : 'readings'} thrown away.`, undo)
}
const COMMANDS: Record<string, () => void> = {
  s: () => {
    step(walking.skip)
  },
  b: () => {
    step(walking.back)
  },
  o: () => {
    step(walking.otherSide)
  },
  g: () => {
    step(walking.askSetting)
  },
  z: () => {
    step(walking.askAngle)
  },
  y: () => {
    step(walking.allLikeThis)
  },
  w: () => {
    step(walking.wipeDamage)
  },
  u: undo,
  e: () => void save(),
}
/** Single keys count only while the field is empty, so that a caliper may type its unit. */
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Enter') {
    event.preventDefault()
    press()
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'Escape' && walk.value !== null) {
    typed.value = ''
    step((current) => ({ ...current, asking: { what: 'length' }, wrong: null }))
    return
  }
  if (typed.value !== '') return
  const key = event.key.toLowerCase()
  const damage = DAMAGE_KEYS.find((one) => one.key === key)
  if (damage !== undefined) step((current, of) => walking.markDamage(current, of, damage.kind))
  else if (COMMANDS[key] !== undefined) COMMANDS[key]()
  else return
  event.preventDefault()
}
const tap = (run: () => void): void => {
  run()
  void nextTick(() => field.value?.focus())
}

const here = computed(() => (walk.value === null ? null : walking.cutterInHand(walk.value)))
const cutter = computed(() => (here.value === null ? undefined : base.value?.cutters[here.value - 1]))
const readings = computed(() => (walk.value === null ? [] : walking.readingsOf(walk.value)))
const readCount = computed(() => readings.value.filter(({ lengthUm }) => lengthUm !== undefined).length)
const looksShortest = ref(false)
const readWith = ref<ReadWith>('caliper')
const lengthCount = computed(() => readings.value.filter(({ lengthUm }) => lengthUm !== undefined).length)
/** Those that looked shortest say little of the others, so it matters why they were read. */
const chosen = computed<Chosen>(() =>
  lengthCount.value === base.value?.cutters.length ? 'all' : looksShortest.value ? 'shortest' : 'some',
)

const body = computed(() => ({
  kind: 'measured' as const,
  readings: readings.value,
  chosen: chosen.value,
  ...(readWith.value === 'caliper' ? {} : { readWith: readWith.value }),
}))

/** The loop as it would be with what has been read so far. */
const ahead = computed<LoopState | null>(() => {
  if (base.value === null || readings.value.length === 0) return base.value
  return fold([...loop.entries, loop.provisional({ ...body.value, personId: null })])
})
const verdict = computed(() => (ahead.value === null ? null : decide(ahead.value, rules.value)))
const outlook = computed(() => (ahead.value === null ? null : forecast(ahead.value, rules.value)))
const held = computed(() => (ahead.value === null ? null : sayHeld(ahead.value, shed.figures)))
const shownDamage = computed(() =>
  walk.value === null || walkLoop.value === null || here.value === null
    ? []
    : walking.damageOf(walk.value, walkLoop.value, here.value),
)
/** The top plate angle of the cutter in hand, as it was read on this walk or before. */
const angleHere = computed(() =>
  here.value === null ? null : (walk.value?.noted[here.value]?.angleDeg ?? cutter.value?.angleDeg ?? null),
)
/** The verdict in one line, where there is little room. */
const inShort = computed(() => {
  const [reason] = verdict.value?.reasons ?? []
  const words = verdict.value === null ? '' : ACTION_WORDS[verdict.value.action]
  return reason === undefined ? words : `${words}: ${sayReason(reason, shed.figures)}`
})
const question = computed(() => {
  const asking = walk.value?.asking
  if (asking?.what === 'depth') return `How deep is the ${damageName(asking.kind)}? Enter alone: not measured`
  if (asking?.what === 'angle') return 'Top plate angle, degrees'
  return asking?.what === 'setting' ? 'Gauge setting: corner above gauge' : 'Length, edge to mark'
})
const setOrder = (order: walking.WalkOrder): void => {
  lastOrder.value = order
  tap(() => {
    step((current, of) => walking.reorder(current, of.cutters, order))
  })
}

async function save(): Promise<void> {
  if (readings.value.length === 0) {
    refused.value = 'Nothing has been read yet.'
    return
  }
  const wrong = await loop.write(
    { ...body.value, personId: who.value },
    `${readCount.value} cutters of ${props.tag} measured`,
  )
  if (wrong !== null) {
    refused.value = wrong
    return
  }
  draft.value = null
  history.value = []
  await router.push({ name: 'loop', params: { tag: props.tag } })
}
onMounted(() => void nextTick(() => field.value?.focus()))
watch(field, (element) => element?.focus())
</script>

<template>
  <LoopAway
    v-if="base === null || ahead === null || walk === null || verdict === null || outlook === null"
    :status="loop.status"
    :tag="tag"
    @again="loop.open(tag)"
  />
  <div v-else class="measure">
    <header class="row top">
      <h1>Measure <RouterLink :to="{ name: 'loop', params: { tag } }" class="figures">{{ tag }}</RouterLink></h1>
      <RadioChoice
        v-if="!narrow"
        :model-value="walk.order"
        label="Order of the walk"
        :options="ORDERS"
        small
        @update:model-value="(order) => order && setOrder(order)"
      />
      <p class="soft caution">
        Brake on, engine off or battery out, gloves on<span class="longer">: cutters bite even when dull</span>.
      </p>
    </header>

    <div class="bench">
      <section class="sheet hand" aria-label="Cutter in hand">
        <template v-if="cutter">
          <p class="which">
            <span class="figures number">{{ cutterName(cutter.number, cutter.hand) }}</span>
            <span class="soft"
              >{{ walk.at + 1 }} of {{ walk.route.length }} <br />{{
                cutter.length.known === 'measured' ? 'was' : 'thought to be'
              }}
              <span class="figures">{{ writeLength(cutter.length.um, shed.lengths) }}</span></span
            >
          </p>
          <p v-if="angleHere !== null" class="marks-angle" data-angle>Stands at {{ angleHere }}°.</p>
          <p v-if="shownDamage.length > 0" class="stop-text marks">
            {{ shownDamage.map((one) => sayDamage(one, shed.lengths)).join('; ') }}
          </p>
        </template>
        <p v-else class="which">
          <span class="number">All round</span><span class="soft">{{ readCount }} read. Enter saves.</span>
        </p>
        <label class="field"
          ><span>{{ cutter ? question : 'Press Enter to save' }}</span>
          <span class="entry"
            ><input
              ref="field"
              v-model="typed"
              class="figures"
              :inputmode="narrow ? 'none' : 'decimal'"
              autocomplete="off"
              spellcheck="false"
              maxlength="30"
              aria-describedby="wrong"
              data-reading
              @keydown="onKey"
            />
            <button v-if="!narrow" type="button" class="act next" @click="tap(press)">
              {{ cutter ? 'Enter' : 'Save' }}
            </button></span
          ></label
        >
        <p id="wrong" class="wrong stop-text" role="alert">{{ refused || walk.wrong }}</p>
        <CaliperBar v-if="!narrow" :take="fromCaliper" />
        <p v-if="narrow" class="short" aria-hidden="true"><VerdictMark :action="verdict.action" /> {{ inShort }}</p>
        <div class="keys" :class="{ all: allDamage }" role="group" aria-label="Damage">
          <button
            v-for="{ key, kind, name } in damageKeys"
            :key="key"
            type="button"
            class="act small"
            @click="tap(() => step((current, of) => walking.markDamage(current, of, kind)))"
          >
            <kbd class="keys-only">{{ key }}</kbd>{{ name }}
          </button>
          <button
            v-if="narrow"
            type="button"
            class="act small"
            :aria-expanded="allDamage"
            @click="allDamage = !allDamage"
          >
            {{ allDamage ? 'Fewer' : 'More kinds' }}
          </button>
        </div>
        <NumberPad
          v-if="narrow"
          :enter="cutter ? 'Enter' : 'Save'"
          @type="(key) => tap(() => (typed += key))"
          @erase="tap(() => (typed = typed.slice(0, -1)))"
          @enter="tap(press)"
        />
        <div class="keys" role="group" aria-label="Walk">
          <button
            v-for="{ key, label } in WALK_KEYS.slice(1)"
            :key="key"
            type="button"
            class="act small"
            @click="tap(() => COMMANDS[key]?.())"
          >
            <kbd class="keys-only">{{ key }}</kbd>{{ label }}
          </button>
        </div>
        <LoopMap
          class="round"
          :state="ahead"
          :lengths="shed.lengths"
          :selected="here ?? undefined"
          :rules="rules"
          strip
          low
          @select="(number) => tap(() => step((current) => walking.goTo(current, number)))"
        />
      </section>
      <aside class="sheet live">
        <p class="soft">{{ readings.length === 0 ? 'As it stands' : 'With what you have read' }}</p>
        <VerdictPanel :verdict="verdict" :figures="shed.figures" :held="held !== null" />
        <p v-if="held" class="caution">{{ held }}</p>
        <dl v-else class="figures">
          <dt>Worst</dt>
          <dd>
            {{ cutterName(outlook.summary.worst.number, outlook.summary.worst.hand) }},
            {{ writeLength(outlook.summary.worstAfterUm, shed.lengths) }}
          </dd>
          <dt>Spread</dt>
          <dd>{{ writeLength(outlook.summary.spreadUm, shed.lengths) }}</dd>
          <dt>Left, right</dt>
          <dd>
            {{ writeLength(Math.round(outlook.summary.sides.left.meanUm), shed.lengths) }},
            {{ writeLength(Math.round(outlook.summary.sides.right.meanUm), shed.lengths) }}
          </dd>
          <dt>Sharpenings left</dt>
          <dd>{{ sayRange(outlook.sharpeningsLeft) }}</dd>
        </dl>
        <fieldset v-if="narrow">
          <legend>Order of the walk</legend>
          <RadioChoice
            :model-value="walk.order"
            label="Order of the walk"
            :options="ORDERS"
            small
            @update:model-value="(order) => order && setOrder(order)"
          />
        </fieldset>
        <fieldset v-if="lengthCount > 0">
          <legend>Read with</legend>
          <RadioChoice v-model="readWith" label="Read with" :options="WITH" small />
        </fieldset>
        <fieldset v-if="lengthCount > 0 && lengthCount < ahead.cutters.length">
          <legend>Why {{ lengthCount === 1 ? 'this one' : 'these' }}?</legend>
          <RadioChoice v-model="looksShortest" label="Why these?" :options="WHY" small />
        </fieldset>
        <WhoField v-model="who" small />
        <button
          type="button"
          class="act"
          :class="{ next: cutter === undefined }"
          :disabled="readings.length === 0"
          @click="save"
        >
          Save {{ readings.length }} {{ readings.length === 1 ? 'reading' : 'readings' }}
        </button>
        <button v-if="readings.length > 0" type="button" class="act small away" @click="throwAway">
          Throw {{ readings.length === 1 ? 'it' : 'them' }} away
        </button>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.measure {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
.top h1 {
  margin-right: 12px;
}
.top .caution {
  margin-left: auto;
  font-size: 0.85rem;
}
.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 12px;
}
.hand {
  border-top: 4px solid var(--work);
}
.which {
  display: flex;
  gap: 18px;
  align-items: center;
}
.number {
  font-size: 3.2rem;
  line-height: 1;
}
.entry {
  display: flex;
  gap: 8px;
  margin-top: 4px;
}
.entry input {
  flex: 1;
  min-width: 0;
  font-size: 2rem;
  min-height: 64px;
  padding: 4px 16px;
  border: 3px solid var(--ink);
  border-radius: 4px;
  background: var(--ground);
  color: var(--ink);
}
.entry .act {
  min-width: 110px;
}
.wrong {
  min-height: 1.5em;
  font-weight: 700;
  margin: 4px 0;
}
.marks {
  font-weight: 700;
}
.round {
  margin-top: 12px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.keys .act {
  font-weight: 400;
}
.hand :deep(.act),
.keys .act {
  white-space: nowrap;
}
@media (min-width: 901px) and (pointer: fine) {
  .keys .act {
    min-height: 36px;
    padding: 3px 9px;
    border-width: 1px;
    font-size: 0.86rem;
  }
  .keys {
    gap: 5px;
    margin-top: 6px;
  }
}
.short {
  max-height: 2.9em;
  overflow: hidden;
  font-size: 0.92rem;
  line-height: 1.4;
  margin-bottom: 6px;
}
.away {
  justify-self: start;
}
.live {
  display: grid;
  gap: 10px;
  align-content: start;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 14px;
  margin: 0;
  border-block: 1px solid var(--rule);
  padding: 8px 0;
  font-size: 0.95rem;
}
dt {
  font-family: var(--text);
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
@media (max-width: 900px) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
  }
  .top .caution {
    margin-left: 0;
  }
  .number {
    font-size: 2.4rem;
  }
  .entry .act {
    min-width: 84px;
  }
}
@media (max-width: 700px) {
  .measure {
    gap: 4px;
  }
  .top h1 {
    font-size: 1.2rem;
  }
  .top .longer {
    display: none;
  }
  .top .caution {
    padding-block: 2px;
  }
  .top {
    gap: 2px 10px;
  }
  .which br {
    display: none;
  }
  .hand {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
    padding: 6px 10px;
  }
  .number {
    font-size: 2rem;
  }
  .entry input {
    min-height: 52px;
    font-size: 1.6rem;
  }
  .wrong {
    margin: 0;
    min-height: 0;
    font-size: 0.92rem;
  }
  .round {
    order: -1;
    margin: 0;
    padding: 0;
    border: 0;
  }
  .round :deep(svg:not(.left, .right)) {
    height: 84px;
  }
  .round :deep(.said) {
    display: none;
  }
  .keys {
    margin: 0;
  }
  .keys[aria-label='Damage'] {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  .keys[aria-label='Damage'].all {
    flex-wrap: wrap;
  }
}
</style>
