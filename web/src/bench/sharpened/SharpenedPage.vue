<script setup lang="ts">
import { keptRef } from '../../remote/keptRef'
import {
  BUMPER_CAUTION,
  hasBumpers,
  damageDepth,
  decide,
  FILE_AGE_NAMES,
  FILE_AGES,
  METHOD_CAUTIONS,
  METHOD_NAMES,
  SHARPEN_METHODS,
  settingBounds,
  specLengthBounds,
  type Action,
  type FileAge,
  TOOL_FACTS,
  writeLength,
  type PlateUsed,
  type SharpenMethod,
} from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import LoopAway from '../../parts/LoopAway.vue'
import LoopInHand from '../../parts/LoopInHand.vue'
import LogFoot from '../note/LogFoot.vue'
import { useDraft, usePageDrafts } from '../../parts/draft'
import { useFigure } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import WhoField from '../../parts/WhoField.vue'
import WhenField from '../../parts/WhenField.vue'
import { useOpenLoop } from '../../remote/openLoop'
import PlateStep from '../../parts/PlateStep.vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import { strokesBySide, useOnePlan } from '../../parts/onePlan'
import { usePlate } from '../../parts/plate'

const props = defineProps<{ tag: string }>()
const router = useRouter()
const route = useRoute()
const { loop, shed, rules } = useOpenLoop(() => props.tag)

const methods = SHARPEN_METHODS.map((value) => ({ value, label: METHOD_NAMES[value] }))
const fileAges = FILE_AGES.map((value) => ({ value, label: FILE_AGE_NAMES[value] }))
const TITLES: Readonly<Record<SharpenMethod, string>> = {
  fileField: 'Log a touch-up of',
  fileBench: 'Log a filing of',
  grinder: 'Log a regrind of',
  shop: 'Log a shop’s sharpening of',
}
const NO_YES = [
  { value: false, label: 'No' },
  { value: true, label: 'Yes' },
] as const
const DULL = [
  { value: true, label: 'Dull' },
  { value: false, label: 'Still cut' },
] as const
const EVENED = [
  { value: false, label: 'Same for all' },
  { value: true, label: 'All down to the shortest' },
] as const
const STOP_CHECKED = [
  { value: true, label: 'Checked' },
  { value: false, label: 'Not checked' },
] as const
const CLEARED = [
  { value: true, label: 'All clean' },
  { value: false, label: 'Some left' },
] as const
/** What was logged last on this device; what is only looked at here does not stick. */
const lastMethod = keptRef<SharpenMethod>('undercliff:method', 'fileField')
const method = ref<SharpenMethod>(lastMethod.value)
/** Counts as somebody gave them; those of the plan until then. */
const given = ref<{ left: number; right: number } | null>(null)
const counted = ref(true)
/** Whether gauges were lowered, as somebody said; what is advised for the way it was done until then. */
const gaugesSaid = ref<boolean | null>(null)
/** They were lowered without a plate. */
const byEye = ref(false)
const cleared = ref<boolean | null>(null)
const evened = ref<boolean | null>(null)
const stopChecked = ref<boolean | null>(null)
const dull = ref<boolean | null>(null)
const fileAge = ref<FileAge | null>(null)
const who = ref<string | null>(null)
const happenedAt = ref<string | null>(null)
const note = ref('')
const setting = useFigure('Gauge setting', () => settingBounds(loop.state?.spec ?? { settingUm: 650 }))
/** About what cutter 1 is thought to be. */
const cutterOne = () => {
  const { length, newLengthUm } = {
    length: loop.state?.cutters[0]?.length.um,
    newLengthUm: loop.state?.spec.newLengthUm,
  }
  return { ...specLengthBounds(length ?? 5000), leastUm: 200, mostUm: (newLengthUm ?? 9000) * 1.06 }
}
const before = useFigure('Before', cutterOne)
const after = useFigure('After', cutterOne)
const more = ref(false)
const wrong = ref('')
const busy = ref(false)
const asAdvised = ref(true)
const drafts = usePageDrafts()
useDraft(`sharpened:${props.tag}:${route.query.as === 'touchUp' ? 'touchUp' : ''}`, {
  method,
  given,
  counted,
  gaugesSaid,
  byEye,
  cleared,
  evened,
  stopChecked,
  dull,
  fileAge,
  happenedAt,
  note,
  setting: setting.text,
  before: before.text,
  after: after.text,
  more,
  asAdvised,
})

/** The method that the verdict calls for; the last one used where it calls for none. */
const CALLED_FOR: Partial<Record<Action, SharpenMethod>> = {
  regrind: 'grinder',
  file: 'fileBench',
  touchUp: 'fileField',
  shop: 'shop',
}
const verdict = computed(() => (loop.state === null ? null : decide(loop.state, rules.value)))
const gaugesDue = computed(
  () => verdict.value?.also.includes('lowerGauges') === true || verdict.value?.action === 'lowerGauges',
)

const gauges = computed({
  get: () =>
    gaugesSaid.value ??
    (gaugesDue.value && verdict.value !== null && method.value === CALLED_FOR[verdict.value.action]),
  set: (lowered: boolean | null) => {
    gaugesSaid.value = lowered
  },
})
watch(
  () => verdict.value?.action,
  (action, before) => {
    if (action === undefined || before !== undefined || drafts.restored.value) return
    // Whoever says that it was a touch-up says so whatever is advised.
    method.value = route.query.as === 'touchUp' ? 'fileField' : (CALLED_FOR[action] ?? method.value)
  },
  { immediate: true },
)
const filed = computed(() => method.value === 'fileField' || method.value === 'fileBench')
const onePlan = useOnePlan()
/** What the card, the job sheet and the work step by step say of it too. */
const plan = computed(() =>
  loop.state === null || method.value === 'shop'
    ? null
    : onePlan({
        state: loop.state,
        rules: rules.value,
        action: method.value === 'grinder' ? 'regrind' : method.value === 'fileField' ? 'touchUp' : 'file',
        personId: who.value,
      }),
)
const strokes = computed({
  get: () => given.value ?? (plan.value === null ? { left: 4, right: 4 } : strokesBySide(plan.value)),
  set: (is: { left: number; right: number }) => {
    given.value = is
  },
})
/** The house’s guide brings the gauges down with every stroke: nothing of that is asked. */
const onTheWay = computed(() => filed.value && plan.value !== null && TOOL_FACTS[plan.value.tool].gaugesToo)
const damaged = computed(
  () =>
    loop.state?.cutters.filter(({ damage }) => damageDepth(damage).knownUm > 0 || damageDepth(damage).unknown).length ??
    0,
)
/** What is advised, where it is what was done: one answer says how all of it came out. */
const advised = computed(() => {
  const now = verdict.value
  if (now === null || method.value === 'shop' || CALLED_FOR[now.action] !== method.value) return null
  return now.options.find(({ action, feasible }) => action === now.action && feasible) ?? null
})
const DONE_WORDS = { fileField: 'Touched up', fileBench: 'Filed', grinder: 'Ground', shop: '' } as const
const advisedChoices = computed(() => {
  if (advised.value === null) return []
  const to = writeLength(Math.min(...advised.value.afterUm), shed.lengths)
  const left = advised.value.damagedLeft
  const clean = damaged.value === 0 ? '' : left === 0 ? ', all clean' : `, ${left} still to catch up`
  return [
    { value: true, label: `${DONE_WORDS[method.value]} as advised, to about ${to}${clean}` },
    { value: false, label: 'Otherwise' },
  ]
})
/** What the advised way leaves behind, where it was done as advised. */
const outcome = computed(() => {
  if (advised.value === null || !asAdvised.value)
    return { damageCleared: cleared.value, evened: filed.value ? evened.value : null }
  const { damagedLeft, way } = advised.value
  return {
    damageCleared: damaged.value > 0 && damagedLeft === 0 ? true : null,
    evened: filed.value && way === 'matchShortest' ? true : null,
  }
})

const change = (side: 'left' | 'right', by: number): void => {
  strokes.value = { ...strokes.value, [side]: Math.max(0, Math.min(500, strokes.value[side] + by)) }
}
const both = (by: number): void => {
  change('left', by)
  change('right', by)
}

/** The plate that gauges come down to where nobody read a setting. */
const plate = usePlate(() =>
  loop.state === null ? null : { state: loop.state, rules: rules.value, middleUm: plan.value?.gauges.middleUm },
)

/** The figures of the more detailed part; a sentence when one cannot be read. */
function details():
  | { settingUm?: number; plate?: PlateUsed; pairs?: { cutter: number; beforeUm: number; afterUm: number }[] }
  | string {
  const ofGauges = gaugeDetails()
  if (typeof ofGauges === 'string') return ofGauges
  const [beforeUm, afterUm] = [before.read(), after.read()]
  if (typeof beforeUm === 'string') return beforeUm
  if (typeof afterUm === 'string') return afterUm
  if (beforeUm === null && afterUm === null) return ofGauges
  if (beforeUm === null || afterUm === null) return 'Give both lengths of cutter 1, before and after, or neither.'
  return { ...ofGauges, pairs: [{ cutter: 1, beforeUm, afterUm }] }
}
/** How gauges were lowered in a pass of their own: by eye, to what was read of the plate, or to the house's. */
function gaugeDetails(): { settingUm?: number; gaugesByEye?: true; plate?: PlateUsed } | string {
  if (!gauges.value || onTheWay.value) return {}
  const settingUm = rules.value.gaugeSchool === 'constant' ? setting.read() : null
  if (typeof settingUm === 'string') return settingUm
  const read = settingUm === null ? {} : { settingUm }
  if (byEye.value) return { ...read, gaugesByEye: true }
  return settingUm === null && plate.value !== null ? { plate: plate.value.used } : read
}
/** What the file in use bites, as the plan has it; nothing where somebody says how it is. */
const biteOfPlan = () => (plan.value?.fileBite == null ? {} : { fileBite: plan.value.fileBite })
/** How it was filed; nothing of a grinding. */
const filing = () => ({
  ...(counted.value ? { strokes: { ...strokes.value } } : {}),
  ...(fileAge.value !== null ? { fileAge: fileAge.value } : counted.value ? biteOfPlan() : {}),
})

async function save(): Promise<void> {
  const extra = details()
  if (typeof extra === 'string') {
    wrong.value = extra
    return
  }
  busy.value = true
  wrong.value = ''
  const { damageCleared, evened: wasEvened } = outcome.value
  const problem = await loop.write(
    {
      kind: 'sharpened',
      method: method.value,
      gaugesLowered: onTheWay.value || gauges.value,
      ...(onTheWay.value && plan.value !== null ? { tool: plan.value.tool } : {}),
      personId: who.value,
      ...(filed.value ? filing() : {}),
      ...(dull.value === null ? {} : { wasDull: dull.value }),
      ...(damageCleared === null ? {} : { damageCleared }),
      ...(wasEvened === null ? {} : { evened: wasEvened }),
      ...(method.value === 'grinder' && stopChecked.value !== null ? { stopChecked: stopChecked.value } : {}),
      ...(note.value.trim() === '' ? {} : { note: note.value.trim() }),
      ...(happenedAt.value === null ? {} : { happenedAt: happenedAt.value }),
      ...extra,
    },
    `Sharpening of ${props.tag} logged`,
  )
  busy.value = false
  if (problem !== null) {
    wrong.value = problem
    return
  }
  lastMethod.value = method.value
  for (const end of [...drafts.ends]) end(false)
  await router.push({ name: 'loop', params: { tag: props.tag } })
}
</script>

<template>
  <LoopAway v-if="loop.state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <div v-else class="desk">
    <form class="sheet log-form" @submit.prevent="save">
      <h1>
        {{ TITLES[method] }} <RouterLink :to="{ name: 'loop', params: { tag } }" class="figures">{{ tag }}</RouterLink>
      </h1>
      <WhoField v-model="who" />
      <fieldset>
        <legend>How</legend>
        <RadioChoice v-model="method" label="How" :options="methods" />
        <p class="caution">{{ METHOD_CAUTIONS[method] }}</p>
      </fieldset>
      <fieldset v-if="filed">
        <legend>Strokes a side</legend>
        <div class="row strokes">
          <template v-if="counted">
            <button type="button" class="act" aria-label="One stroke fewer on both sides" @click="both(-1)">−</button>
            <span class="figures count" aria-live="polite">{{
              strokes.left === strokes.right ? strokes.left : `${strokes.left} L, ${strokes.right} R`
            }}</span>
            <button type="button" class="act" aria-label="One stroke more on both sides" @click="both(1)">+</button>
          </template>
          <button type="button" class="act small" :aria-pressed="!counted" @click="counted = !counted">
            Not counted
          </button>
        </div>
      </fieldset>
      <p v-if="onTheWay" class="soft" data-on-the-way>
        With the two-in-one: the gauges came down with every stroke, and are logged so.
      </p>
      <fieldset v-else>
        <legend>Gauges lowered? <span v-if="gaugesDue" class="soft">They are due.</span></legend>
        <RadioChoice v-model="gauges" label="Gauges lowered?" :options="NO_YES" />
        <p v-if="gauges" class="caution">
          Use the plate. Gauges too low cannot be put back: the saw snatches and kicks.
          <button type="button" class="act small" :aria-pressed="byEye" @click="byEye = !byEye">By eye</button>
        </p>
        <p v-if="gauges && hasBumpers(loop.state.spec)" class="caution">{{ BUMPER_CAUTION }}</p>
        <PlateStep v-if="gauges && !byEye" :saw-id="loop.state.sawId" :rules="rules" />
      </fieldset>
      <fieldset v-if="loop.state.tanksSinceSharpened > 0">
        <legend>Was it dull?</legend>
        <RadioChoice v-model="dull" label="Was it dull?" :options="DULL" clearable />
      </fieldset>
      <fieldset v-if="advised !== null">
        <legend>How it came out</legend>
        <RadioChoice v-model="asAdvised" label="How it came out" :options="advisedChoices" small />
      </fieldset>
      <fieldset v-if="damaged > 0 && (advised === null || !asAdvised)">
        <legend>{{ damaged }} {{ damaged === 1 ? 'cutter was' : 'cutters were' }} damaged. All clean now?</legend>
        <RadioChoice v-model="cleared" label="All clean now?" :options="CLEARED" />
      </fieldset>
      <fieldset v-if="filed && (damaged > 0 || more) && (advised === null || !asAdvised)">
        <legend>How far was each filed?</legend>
        <RadioChoice v-model="evened" label="How far was each filed?" :options="EVENED" clearable />
      </fieldset>
      <fieldset v-if="method === 'grinder'">
        <legend>Stop checked after the clamp was turned?</legend>
        <RadioChoice
          v-model="stopChecked"
          label="Stop checked after the clamp was turned?"
          :options="STOP_CHECKED"
          clearable
        />
      </fieldset>
      <div v-if="more" class="details">
        <div v-if="filed && counted" class="field">
          <span class="legend">Strokes left and right apart</span>
          <div class="row">
            <button type="button" class="act small" @click="change('left', -1)">L −</button
            ><button type="button" class="act small" @click="change('left', 1)">L +</button
            ><button type="button" class="act small" @click="change('right', -1)">R −</button
            ><button type="button" class="act small" @click="change('right', 1)">R +</button>
          </div>
        </div>
        <FigureField
          v-if="gauges && !onTheWay && rules.gaugeSchool === 'constant'"
          id="setting"
          :figure="setting"
          placeholder="0.65"
          >Gauge setting on the plate</FigureField
        >
        <FigureField id="before" :figure="before" placeholder="5.2">Cutter 1 before</FigureField>
        <FigureField id="after" :figure="after" placeholder="5.0">Cutter 1 after</FigureField>
        <fieldset v-if="filed">
          <legend>The file</legend>
          <RadioChoice v-model="fileAge" label="The file" :options="fileAges" small clearable />
        </fieldset>
        <WhenField v-model="happenedAt" />
        <div class="field wide">
          <label for="note">Note</label
          ><NInput
            v-model:value="note"
            type="textarea"
            :autosize="{ minRows: 1, maxRows: 4 }"
            :maxlength="2000"
            :input-props="{ id: 'note' }"
            placeholder=""
          />
        </div>
      </div>
      <button type="button" class="act small more" :aria-expanded="more" @click="more = !more">
        {{ more ? 'Less' : 'More detail' }}
      </button>
      <LogFoot :tag="tag" save="Log the sharpening" :wrong="wrong" :busy="busy" />
    </form>
    <LoopInHand :state="loop.state" />
  </div>
</template>

<style scoped>
.strokes .act {
  min-width: 64px;
  font-size: 1.2rem;
}
.strokes .small {
  font-size: 0.92rem;
}
.caution {
  margin-top: 8px;
}
.more {
  justify-self: start;
}
.details {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .details {
    grid-template-columns: 1fr;
  }
  .log-form {
    border: 0;
    background: var(--ground);
    padding: 0;
  }
  .row > .act {
    flex: 1 1 auto;
  }
}
</style>
