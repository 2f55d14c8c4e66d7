<script setup lang="ts">
import {
  chainSpeed,
  CONDITIONS,
  CUTTER_DAMAGE,
  CUTTER_DAMAGE_KINDS,
  damageName,
  FULL_THROTTLE,
  PART_DAMAGE_KINDS,
  pitchUmOf,
  readLength,
  STRIKE_OBJECTS,
  strikeExposure,
  TOUCH_MS,
  URGENCY_WORDS,
  type Conditions,
  type CutterDamage,
  type CutterDamageKind,
  type CutterReading,
  type PartDamage,
  type PartDamageKind,
  type RetireReason,
  type StrikeObject,
} from '@undercliff/core'
import { NInput, NSelect } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import LoopAway from '../loop/LoopAway.vue'
import WhenField from '../parts/WhenField.vue'
import LoopInHand from '../parts/LoopInHand.vue'
import WhoField from '../parts/WhoField.vue'
import { type EntryDraft } from '../remote/loopStore'
import { useOpenLoop } from '../remote/openLoop'
import LoopMap from '../loop/LoopMap.vue'
import { inTheirOrder, readCutterNumbers, sayRun } from './cutterNumbers'

const props = defineProps<{ tag: string; kind: string }>()
const router = useRouter()
const { loop, shed } = useOpenLoop(() => props.tag)

const PAGES = {
  ran: { title: 'Ran', save: 'Log the tanks' },
  struck: { title: 'Struck something', save: 'Log the strike' },
  inspected: { title: 'Inspected', save: 'Log the inspection' },
  gaugesLowered: { title: 'Gauges lowered', save: 'Log the gauges' },
  retired: { title: 'Retire', save: 'Retire this loop' },
} as const
type Kind = keyof typeof PAGES
const isKind = (kind: string): kind is Kind => kind in PAGES
const page = computed(() => (isKind(props.kind) ? PAGES[props.kind] : null))

const CONDITION_LABELS: Record<Conditions, string> = { clean: 'Clean wood', gritty: 'Gritty bark', soil: 'Soil' }
const STRIKE_LABELS: Record<StrikeObject, string> = {
  stone: 'Stone',
  metal: 'Metal',
  soil: 'Soil',
  unknown: 'Not sure',
}
const RETIRE_LABELS: Record<RetireReason, string> = {
  worn: 'Worn out',
  damaged: 'Damaged',
  lost: 'Lost',
  other: 'Something else',
}
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
const who = ref<string | null>(null)
const happenedAt = ref<string | null>(null)
const note = ref('')
const wrong = ref('')
const busy = ref(false)
const tanks = ref(1)
const conditions = ref<Conditions>('clean')
const against = ref<StrikeObject>('stone')
const cuttersText = ref('')
const strikeDepth = ref('')
const struckOn = ref<number | undefined>()
/** The run as the map draws it: what the text says, as far as it can be read. */
const struckRun = computed<number[]>(() => {
  const numbers = readCutterNumbers(cuttersText.value, loop.state?.cutters.length ?? 0)
  return typeof numbers === 'string' ? [] : inTheirOrder(numbers, loop.state?.cutters.length ?? 0)
})
const chooseRun = (run: number[]): void => {
  cuttersText.value = sayRun(run)
  struckOn.value = undefined
}
/** The cutter that was looked at: the one chosen on the map, else the middle of the run. */
const deepestOn = computed(() =>
  struckOn.value !== undefined && struckRun.value.includes(struckOn.value)
    ? struckOn.value
    : struckRun.value[Math.floor(struckRun.value.length / 2)],
)
/** At full throttle a touch meets so many in a row: as many have to be looked at. */
const exposure = computed(() => {
  const spec = loop.state?.spec
  return spec === undefined
    ? null
    : strikeExposure(spec, chainSpeed(pitchUmOf(spec), FULL_THROTTLE.perMinute, FULL_THROTTLE.teeth), TOUCH_MS)
})
const setting = ref('')
const reason = ref<RetireReason>('worn')

const damageKind = ref<CutterDamageKind>('chipped')
const damageCutters = ref('')
const damageDepth = ref('')
const found = ref<{ numbers: number[]; damage: CutterDamage }[]>([])
const partKind = ref<PartDamageKind>('strapCut')
const parts = ref<PartDamage[]>([])
watch(
  () => loop.state?.parts,
  (known) => {
    parts.value = [...(known ?? [])]
  },
  { immediate: true },
)
const cutterOptions = CUTTER_DAMAGE_KINDS.map((value) => ({ value, label: damageName(value) }))
const partOptions = PART_DAMAGE_KINDS.map((value) => ({ value, label: damageName(value) }))

function addFound(): void {
  const numbers = readCutterNumbers(damageCutters.value, loop.state?.cutters.length ?? 0)
  if (typeof numbers === 'string') {
    wrong.value = numbers
    return
  }
  let depthUm: number | null = null
  if (CUTTER_DAMAGE[damageKind.value].effect === 'depth' && damageDepth.value.trim() !== '') {
    const reading = readLength(damageDepth.value, shed.bareUnit)
    if (!reading.ok) {
      wrong.value = `Depth: ${reading.message} It would be read as: ${reading.nearest}`
      return
    }
    depthUm = reading.um
  }
  wrong.value = ''
  found.value = [...found.value, { numbers, damage: { kind: damageKind.value, depthUm } }]
  damageCutters.value = ''
  damageDepth.value = ''
}

/** What was found, added to what was known of each cutter. */
function readings(): CutterReading[] {
  const byCutter = new Map<number, CutterDamage[]>()
  for (const { numbers, damage } of found.value) {
    for (const number of numbers) {
      const before = byCutter.get(number) ?? [...(loop.state?.cutters[number - 1]?.damage ?? [])]
      byCutter.set(number, [...before.filter(({ kind }) => kind !== damage.kind), damage])
    }
  }
  return [...byCutter].map(([cutter, damage]) => ({ cutter, damage }))
}

function draftOf(kind: Kind): EntryDraft | string {
  const base = {
    personId: who.value,
    ...(note.value.trim() === '' ? {} : { note: note.value.trim() }),
    ...(happenedAt.value === null ? {} : { happenedAt: happenedAt.value }),
  }
  switch (kind) {
    case 'ran':
      return { ...base, kind, tanks: tanks.value, conditions: conditions.value }
    case 'struck': {
      if (cuttersText.value.trim() === '') return { ...base, kind, against: against.value }
      const numbers = readCutterNumbers(cuttersText.value, loop.state?.cutters.length ?? 0)
      if (typeof numbers === 'string') return numbers
      const cutters = inTheirOrder(numbers, loop.state?.cutters.length ?? 0)
      if (strikeDepth.value.trim() === '' || deepestOn.value === undefined || against.value === 'soil')
        return { ...base, kind, against: against.value, cutters }
      const reading = readLength(strikeDepth.value, shed.bareUnit)
      if (!reading.ok) return `Depth: ${reading.message} It would be read as: ${reading.nearest}`
      return {
        ...base,
        kind,
        against: against.value,
        cutters,
        deepest: { cutter: deepestOn.value, depthUm: reading.um },
      }
    }
    case 'inspected':
      return { ...base, kind, readings: readings(), parts: parts.value }
    case 'gaugesLowered': {
      if (setting.value.trim() === '') return { ...base, kind }
      const reading = readLength(setting.value, shed.bareUnit)
      return reading.ok
        ? { ...base, kind, settingUm: reading.um }
        : `Setting: ${reading.message} It would be read as: ${reading.nearest}`
    }
    case 'retired':
      return { ...base, kind, reason: reason.value }
  }
}

async function save(): Promise<void> {
  if (!isKind(props.kind)) return
  if (props.kind === 'inspected' && damageCutters.value.trim() !== '') {
    addFound()
    if (wrong.value !== '') return
  }
  const draft = draftOf(props.kind)
  if (typeof draft === 'string') {
    wrong.value = draft
    return
  }
  busy.value = true
  const problem = await loop.write(draft, `${PAGES[props.kind].title}: ${props.tag} logged`)
  busy.value = false
  if (problem === null) await router.push(`/loops/${encodeURIComponent(props.tag)}`)
  else wrong.value = problem
}
</script>

<template>
  <LoopAway
    v-if="loop.state === null || page === null"
    :status="page === null ? 'missing' : loop.status"
    :tag="tag"
    @again="loop.open(tag)"
  />
  <div v-else class="desk">
    <form class="sheet log-form" @submit.prevent="save">
      <h1>
        {{ page.title }} <RouterLink :to="`/loops/${encodeURIComponent(tag)}`" class="figures">{{ tag }}</RouterLink>
      </h1>

      <template v-if="kind === 'ran'">
        <fieldset>
          <legend>Tanks or batteries</legend>
          <div class="row steps">
            <button type="button" class="act" aria-label="Half a tank less" @click="tanks = Math.max(0.5, tanks - 0.5)">
              −</button
            ><span class="figures count" aria-live="polite">{{ tanks }}</span
            ><button type="button" class="act" aria-label="Half a tank more" @click="tanks += 0.5">+</button>
          </div>
        </fieldset>
        <fieldset>
          <legend>In</legend>
          <div class="row" role="radiogroup" aria-label="Conditions">
            <button
              v-for="one in CONDITIONS"
              :key="one"
              type="button"
              class="act"
              role="radio"
              :aria-checked="conditions === one"
              @click="conditions = one"
            >
              {{ CONDITION_LABELS[one] }}
            </button>
          </div>
        </fieldset>
      </template>

      <template v-else-if="kind === 'struck'">
        <p class="caution grave">
          Stop the engine before you touch the chain. A struck chain is looked over, every cutter, strap and rivet,
          before it cuts again.
        </p>
        <fieldset>
          <legend>What</legend>
          <div class="row" role="radiogroup" aria-label="What it struck">
            <button
              v-for="one in STRIKE_OBJECTS"
              :key="one"
              type="button"
              class="act"
              role="radio"
              :aria-checked="against === one"
              @click="against = one"
            >
              {{ STRIKE_LABELS[one] }}
            </button>
          </div>
        </fieldset>
        <fieldset>
          <legend>Where, if you can see: draw over the cutters</legend>
          <LoopMap
            :state="loop.state"
            :lengths="shed.lengths"
            :target-um="loop.state.spec.settingUm"
            :selected="struckOn"
            :run="struckRun"
            low
            @run="chooseRun"
            @select="struckOn = $event"
          />
          <p v-if="exposure" class="soft">
            At full speed a touch of {{ TOUCH_MS }} ms meets about {{ exposure.cutters }} cutters in a row.
          </p>
        </fieldset>
        <div class="trio">
          <div class="field">
            <label for="cutters">Cutters <span class="soft">(such as 5-9, 12)</span></label
            ><NInput v-model:value="cuttersText" :input-props="{ id: 'cutters' }" placeholder="" />
          </div>
          <div v-if="struckRun.length > 0 && against !== 'soil'" class="field">
            <label for="strike-depth"
              >How deep on cutter {{ deepestOn }}, the worst <span class="soft">(if measured)</span></label
            ><NInput
              v-model:value="strikeDepth"
              :input-props="{ id: 'strike-depth', inputmode: 'decimal' }"
              placeholder=""
            />
          </div>
        </div>
        <p v-if="strikeDepth.trim() !== '' && struckRun.length > 1" class="soft">
          The others of the run are worked out from it, as estimates, until somebody looks.
        </p>
      </template>

      <template v-else-if="kind === 'inspected'">
        <p class="caution">
          Engine off or battery out, brake on, gloves on. Look at working corners first, then straps, rivets, drive
          links and bumpers. A sharp edge throws no light.
        </p>
        <fieldset class="stack">
          <legend>Damaged cutters</legend>
          <ul v-if="found.length > 0">
            <li v-for="({ numbers, damage }, i) in found" :key="i">
              {{ damageName(damage.kind) }}{{ damage.depthUm === null ? '' : `, ${damage.depthUm / 1000} mm` }} on
              {{ numbers.join(', ') }}
              <button type="button" class="act small" @click="found.splice(i, 1)">Remove</button>
            </li>
          </ul>
          <div class="trio">
            <NSelect v-model:value="damageKind" :options="cutterOptions" aria-label="Kind of damage" />
            <NInput
              v-model:value="damageCutters"
              placeholder="Cutters: 5-9, 12"
              :input-props="{ 'aria-label': 'Damaged cutters' }"
            />
            <NInput
              v-if="CUTTER_DAMAGE[damageKind].effect === 'depth'"
              v-model:value="damageDepth"
              placeholder="Depth, if measured"
              :input-props="{ 'aria-label': 'Depth' }"
            />
            <button type="button" class="act small" @click="addFound">Add</button>
          </div>
          <p class="soft">
            {{ capital(damageName(damageKind)) }}: {{ URGENCY_WORDS[CUTTER_DAMAGE[damageKind].urgency]
            }}{{ CUTTER_DAMAGE[damageKind].fileBites ? '' : '; a file skates on it'
            }}{{ CUTTER_DAMAGE[damageKind].effect === 'depth' ? '; the edge has to be taken back behind it' : '' }}.
          </p>
        </fieldset>
        <fieldset class="stack">
          <legend>Straps, drive links, rivets</legend>
          <ul v-if="parts.length > 0">
            <li v-for="(part, i) in parts" :key="i">
              {{ damageName(part.kind) }}
              <button type="button" class="act small" @click="parts.splice(i, 1)">Remove</button>
            </li>
          </ul>
          <p v-else class="soft">Nothing found</p>
          <div class="trio">
            <NSelect v-model:value="partKind" :options="partOptions" aria-label="Damage to a part" /><button
              type="button"
              class="act small"
              @click="parts.push({ kind: partKind, nearCutter: null })"
            >
              Add
            </button>
          </div>
        </fieldset>
      </template>

      <template v-else-if="kind === 'gaugesLowered'">
        <p class="caution">
          Use the plate, file flush, then round the front again. Gauges too low cannot be put back: the saw snatches and
          kicks.
        </p>
        <div class="field">
          <label for="setting">Setting on the plate <span class="soft">(empty: as new)</span></label
          ><NInput v-model:value="setting" placeholder="0.65" :input-props="{ id: 'setting', inputmode: 'decimal' }" />
        </div>
      </template>

      <template v-else>
        <p>The loop leaves the shed. Its log stays, and the retirement can be struck out.</p>
        <fieldset>
          <legend>Why</legend>
          <div class="row" role="radiogroup" aria-label="Why">
            <button
              v-for="(label, one) in RETIRE_LABELS"
              :key="one"
              type="button"
              class="act"
              role="radio"
              :aria-checked="reason === one"
              @click="reason = one"
            >
              {{ label }}
            </button>
          </div>
        </fieldset>
      </template>

      <WhoField v-model="who" />
      <div class="trio">
        <WhenField v-model="happenedAt" />
        <div class="field">
          <label for="note">Note</label
          ><NInput v-model:value="note" :maxlength="2000" :input-props="{ id: 'note' }" placeholder="" />
        </div>
      </div>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <button type="submit" class="act save" :class="kind === 'retired' ? 'grave' : 'next'" :disabled="busy">
        {{ page.save }}
      </button>
    </form>
    <LoopInHand :state="loop.state" />
  </div>
</template>

<style scoped>
.steps .act {
  min-width: 64px;
  font-size: 1.2rem;
}
.trio {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 10px;
  align-items: end;
}
ul {
  margin: 0;
  padding-left: 1.1em;
}
</style>
