<script setup lang="ts">
import {
  actionInWords,
  fitCheck,
  FIT_WORDS,
  moneyField,
  priceBounds,
  readMoney,
  sayFit,
  SHELF_NAMES,
  SHELVES,
  writeMoney,
  type FitCheck,
  type LoopCard,
  type Shelf,
} from '@undercliff/core'
import type { Saw } from '@undercliff/contract'
import { useEventListener } from '@vueuse/core'
import { NInput } from 'naive-ui'
import { computed, nextTick, onMounted, onUnmounted, ref, watch } from 'vue'
import { useCount } from '../parts/figure'
import FigureField from '../parts/FigureField.vue'
import FitMark from '../parts/FitMark.vue'
import Panel from '../parts/Panel.vue'
import RadioChoice from '../parts/RadioChoice.vue'
import { isTyping } from '../parts/typing'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'
import { shelfFor, type Target } from './entriesFor'
import { useMoves } from './moveStore'

/** Where loops go: a place by its letter, a saw by its number. */
const SHELF_KEYS: readonly { readonly shelf: Shelf; readonly key: string }[] = [
  { shelf: 'truck', key: 't' },
  { shelf: 'sharpRack', key: 'r' },
  { shelf: 'dullBox', key: 'd' },
  { shelf: 'bench', key: 'b' },
]
const MOST_NUMBERED = 9
const moves = useMoves()
const shed = useShed()
const session = useSession()
const loops = computed(() =>
  (moves.asked?.loopIds ?? [])
    .map((id) => shed.loops.find(({ loopId }) => loopId === id))
    .filter((loop): loop is LoopCard => loop !== undefined),
)
const only = computed(() => (loops.value.length === 1 ? loops.value[0] : undefined))
/** What an unfit loop asks for before it goes on any saw. */
const todo = computed(() =>
  only.value === undefined || only.value.action === 'stop'
    ? 'see what is wrong with it'
    : actionInWords(only.value.action),
)
const title = computed(() =>
  only.value === undefined ? `Move ${loops.value.length} loops` : `Where does ${only.value.tag} go?`,
)

const step = ref<'where' | 'saw' | 'shop'>(moves.asked?.sawId === null ? 'where' : 'saw')
const sawId = ref(moves.asked?.sawId ?? null)
const wrong = ref('')
const check = (saw: Saw): FitCheck | null =>
  only.value === undefined ? null : fitCheck(only.value.spec, saw, saw, only.value.fitForUse)
const RANK = { fits: 0, but: 1, mustNot: 2 } as const
const saws = computed(() =>
  only.value === undefined
    ? []
    : shed.saws
        .filter(({ id }) => id !== only.value?.sawId)
        .map((saw) => ({ saw, level: check(saw)?.level ?? 'mustNot', on: shed.loopOn(saw.id) }))
        .sort((a, b) => RANK[a.level] - RANK[b.level]),
)
const saw = computed(() => shed.saws.find(({ id }) => id === sawId.value))
const fit = computed(() => (saw.value === undefined ? null : check(saw.value)))
const occupant = computed(() => (sawId.value === null ? undefined : shed.loopOn(sawId.value)))
const SHELF_CHOICES = SHELVES.map((value) => ({ value, label: SHELF_NAMES[value] }))
/** Where the loop that makes room goes: as such a one usually does, unless somebody says otherwise. */
const offTo = ref<Shelf | null>(null)
watch(
  () => occupant.value?.loopId,
  () => (offTo.value = occupant.value === undefined ? null : shelfFor(occupant.value)),
  { immediate: true },
)
const flipped = ref(false)
const tensioned = ref(false)
const why = ref('')
const shop = ref('')
const dueBack = ref('')
const cost = ref('')
/** What a shop took, held against what the house expects of one. */
const costFigure = useCount(
  'The cost',
  {
    bounds: () => priceBounds(shed.rules.shopFeeMinor),
    read: (text) => readMoney(text, shed.figures.currency),
    wanted: 'an amount is wanted, such as 16.00.',
    say: (minor) => writeMoney(minor, shed.figures.currency),
    field: (minor) => moneyField(minor, shed.figures.currency),
  },
  cost,
)
const away = computed(() => only.value?.place.at === 'shop')
const example = computed(() => moneyField(1450, shed.figures.currency))

async function go(target: Target): Promise<void> {
  wrong.value =
    (await moves.move(
      loops.value.map(({ loopId }) => loopId),
      target,
    )) ?? ''
}
function toShelf(shelf: Shelf): void {
  const costMinor = costFigure.read()
  if (costMinor === null) void go({ to: 'shelf', shelf })
  else if (typeof costMinor === 'string') wrong.value = costMinor
  else void go({ to: 'shelf', shelf, costMinor })
}
async function toSaw(id: string): Promise<void> {
  sawId.value = id
  step.value = 'saw'
  wrong.value = ''
  await nextTick()
  document.querySelector<HTMLElement>('[data-first-choice]')?.focus()
}
function fitIt(): void {
  if (sawId.value === null || fit.value === null || fit.value.level === 'mustNot') return
  const overruled = why.value.trim()
  if (fit.value.level === 'but' && overruled.length < 3) {
    wrong.value = 'Say in a few words why it goes on all the same. It is logged.'
    return
  }
  void go({
    to: 'saw',
    sawId: sawId.value,
    barFlipped: flipped.value,
    tensionChecked: tensioned.value,
    ...(occupant.value === undefined || offTo.value === null ? {} : { offTo: offTo.value }),
    ...(fit.value.level === 'but' ? { overruled } : {}),
  })
}
function sendOut(): void {
  const name = shop.value.trim()
  if (name === '') {
    wrong.value = 'Which shop does it go to?'
    return
  }
  void go({
    to: 'shop',
    shop: name,
    ...(dueBack.value === '' ? {} : { dueBackAt: new Date(`${dueBack.value}T12:00:00Z`).toISOString() }),
  })
}
function chooseWhere(key: string): void {
  const shelf = SHELF_KEYS.find((one) => one.key === key)?.shelf
  const numbered = /^[1-9]$/.test(key) ? saws.value[Number(key) - 1] : undefined
  if (shelf !== undefined) toShelf(shelf)
  else if (numbered !== undefined) void toSaw(numbered.saw.id)
  else if (key === 'h' && !away.value) step.value = 'shop'
}
function tickDone(key: string): void {
  if (key === 'f') flipped.value = !flipped.value
  else if (key === 'n') tensioned.value = !tensioned.value
}
const KEYS_OF = { where: chooseWhere, saw: tickDone, shop: null } as const
function onKey(event: KeyboardEvent): void {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return
  const keys = KEYS_OF[step.value]
  // A button under the focus is pressed with the space bar; arrows and the like keep their sense.
  if (keys === null || event.key === ' ' || event.key.length > 1) return
  keys(event.key.toLowerCase())
  // The keys of the screen behind the panel are not meant.
  event.preventDefault()
  event.stopPropagation()
}
useEventListener(window, 'keydown', onKey, { capture: true })
onMounted(() => {
  moves.isHeard = true
  if (sawId.value !== null) void toSaw(sawId.value)
  for (const event of moves.early.splice(0)) onKey(event)
})
onUnmounted(() => {
  moves.isHeard = false
})
</script>

<template>
  <Panel :title="title" :width="860" @close="moves.close()">
    <div v-if="step === 'where'" class="stack">
      <FigureField v-if="away && session.isLead" id="cost" :figure="costFigure" :placeholder="example"
        >What the shop took, if you know</FigureField
      >
      <div class="row">
        <button
          v-for="({ shelf, key }, i) in SHELF_KEYS"
          :key="shelf"
          type="button"
          class="act"
          :data-first-choice="i === 0 || undefined"
          :disabled="only?.place.at === shelf"
          @click="toShelf(shelf)"
        >
          <kbd class="keys-only">{{ key }}</kbd>{{ SHELF_NAMES[shelf] }}
        </button>
        <button v-if="!away" type="button" class="act" @click="step = 'shop'">
          <kbd class="keys-only">h</kbd>a shop
        </button>
      </div>
      <template v-if="only">
        <h3>Onto a saw</h3>
        <p v-if="!only.fitForUse" class="caution grave">
          {{ only.tag }} must not go on a saw as it is. What has to be done first:
          <RouterLink :to="{ name: 'loop', params: { tag: only.tag } }" data-first @click="moves.close()">{{
            todo
          }}</RouterLink>
        </p>
        <ol class="saws">
          <li v-for="({ saw: one, level, on }, i) in saws" :key="one.id">
            <button type="button" class="act" :class="level" @click="toSaw(one.id)">
              <kbd v-if="i < MOST_NUMBERED" class="keys-only">{{ i + 1 }}</kbd><strong>{{ one.nickname }}</strong
              ><span class="level"><FitMark :level="level" /> {{ FIT_WORDS[level] }}</span
              ><span v-if="on" class="soft">{{ on.tag }} is on it</span>
            </button>
          </li>
        </ol>
      </template>
      <p v-else class="soft">Loops go onto saws one at a time.</p>
    </div>

    <div v-else-if="step === 'saw' && saw && only && fit" class="stack">
      <p class="verdict" :class="fit.level" role="alert">
        <FitMark :level="fit.level" /> <strong>{{ sayFit(only.tag, saw.nickname, fit) }}</strong>
      </p>
      <ul class="parts">
        <li v-for="part in fit.parts" :key="part.part + part.reason">
          <FitMark :level="part.level" /> {{ part.reason }}
        </li>
      </ul>
      <RouterLink
        v-if="!only.fitForUse"
        class="act"
        :to="{ name: 'loop', params: { tag: only.tag } }"
        data-first
        @click="moves.close()"
        >First: {{ todo }}</RouterLink
      >
      <template v-if="fit.level !== 'mustNot'">
        <p class="caution">
          Engine off and cold or battery out, brake on, gloves on. Set the tension; check it again after a few minutes.
        </p>
        <fieldset v-if="occupant && occupant.loopId !== only.loopId">
          <legend>{{ occupant.tag }} comes off, to the</legend>
          <RadioChoice v-model="offTo" :label="`Where ${occupant.tag} goes`" :options="SHELF_CHOICES" small />
        </fieldset>
        <div class="row">
          <button type="button" class="act" :aria-pressed="flipped" data-first-choice @click="flipped = !flipped">
            <kbd class="keys-only">f</kbd>Bar flipped, groove cleaned
          </button>
          <button type="button" class="act" :aria-pressed="tensioned" @click="tensioned = !tensioned">
            <kbd class="keys-only">n</kbd>Tension checked
          </button>
        </div>
        <div v-if="fit.level === 'but'" class="field">
          <label for="why">Why it goes on all the same</label
          ><NInput v-model:value="why" :maxlength="200" :input-props="{ id: 'why' }" placeholder="" />
        </div>
      </template>
      <div class="row">
        <button v-if="fit.level !== 'mustNot'" type="button" class="act next" @click="fitIt">
          Put {{ only.tag }} on {{ saw.nickname }}
        </button>
        <button
          type="button"
          class="act"
          :data-first-choice="fit.level === 'mustNot' || undefined"
          @click="step = 'where'"
        >
          Somewhere else
        </button>
      </div>
    </div>

    <form v-else class="stack" @submit.prevent="sendOut">
      <div class="field">
        <label for="shop">Shop</label
        ><NInput v-model:value="shop" :maxlength="60" :input-props="{ id: 'shop' }" placeholder="" />
      </div>
      <div class="field">
        <label for="due">Due back</label><input id="due" v-model="dueBack" class="plain" type="date" />
      </div>
      <div class="row">
        <button type="submit" class="act next">Send out</button
        ><button type="button" class="act" @click="step = 'where'">Somewhere else</button>
      </div>
    </form>
    <p v-if="wrong" class="stop-text wrong" role="alert">{{ wrong }}</p>
  </Panel>
</template>

<style scoped>
.saws {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(370px, 1fr));
  gap: 6px;
}
.saws .act {
  width: 100%;
  justify-content: flex-start;
  gap: 8px;
}
.saws .mustNot {
  border-style: dashed;
  font-weight: 400;
  color: var(--ink-soft);
}
@media (max-width: 700px) {
  .saws .act {
    flex-wrap: wrap;
  }
}
.saws strong {
  white-space: nowrap;
}
.level {
  margin-left: auto;
  font-weight: 400;
  white-space: nowrap;
}
.saws .soft {
  font-weight: 400;
  white-space: nowrap;
}
.verdict.mustNot {
  color: var(--stop);
}
.parts {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.wrong {
  margin-top: 10px;
}
@media (max-width: 700px) {
  .saws {
    grid-template-columns: 1fr;
  }
}
</style>
