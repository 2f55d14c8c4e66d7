<script setup lang="ts">
import {
  KIT_KIND_WORDS,
  KIT_KINDS,
  PITCH_CLASSES,
  PITCH_PROFILES,
  SHARPENING_TOOLS,
  TOOL_NAMES,
  writeLength,
  writeMm,
  type KitItem,
  type KitKind,
  type PitchClass,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, onMounted, ref } from 'vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import SelectField from '../../parts/SelectField.vue'
import { useKit } from '../../remote/kitStore'
import { useShed } from '../../remote/shedStore'
import { bodyOf, draftOf, FILES_UM, WHEELS_UM, type KitDraft } from './kitForm'

/** A thing of the kit is added, or changed. */
const props = defineProps<{ item: KitItem | null }>()
const emit = defineEmits<{ done: [] }>()
const kit = useKit()
const shed = useShed()
const kind = ref<KitKind>(props.item?.kind ?? 'file')
const draft = ref<KitDraft>(draftOf(props.item))
const wrong = ref('')
const busy = ref(false)
const kinds = KIT_KINDS.map((value) => ({ value, label: KIT_KIND_WORDS[value].one }))
const lengths = (all: readonly number[]) => all.map((value) => ({ value, label: writeMm(value, 1) }))
const grinders = (['benchGrinder', 'smallGrinder', 'handGrinder'] as const).map((value) => ({
  value,
  label: TOOL_NAMES[value],
}))
const guides = SHARPENING_TOOLS.filter(
  (tool): tool is KitDraft['guide'] => !tool.endsWith('Grinder') && tool !== 'freehand',
).map((value) => ({ value, label: TOOL_NAMES[value] }))
const reads = [10, 20, 100].map((value) => ({ value, label: writeLength(value, shed.lengths) }))
const SENDS = [
  { value: 'nothing', label: 'Nothing' },
  { value: 'typed', label: 'It types' },
  { value: 'serial', label: 'By cable' },
] as const
const RESTS = [
  { value: 'constant', label: 'One setting for life' },
  { value: 'progressive', label: 'Grows with wear' },
] as const
const WHERE = [
  { value: 'bench', label: 'On the bench' },
  { value: 'stump', label: 'For a stump' },
] as const
function serve(pitch: PitchClass): void {
  const { serves } = draft.value
  draft.value.serves = serves.includes(pitch) ? serves.filter((one) => one !== pitch) : [...serves, pitch]
}
/** The form stands above the list: whoever opened it from below is brought to it. */
const root = ref<HTMLFormElement | null>(null)
onMounted(() => {
  root.value?.scrollIntoView({ block: 'center' })
  root.value?.querySelector<HTMLElement>('select, input')?.focus({ preventScroll: true })
})
const named = computed(() => draft.value.name.trim())
async function save(): Promise<void> {
  if (named.value === '') {
    wrong.value = 'Give it a name that the crew knows it by.'
    return
  }
  const body = bodyOf(kind.value, draft.value, props.item, shed.bareUnit)
  if (typeof body === 'string') {
    wrong.value = body
    return
  }
  busy.value = true
  const kept = await kit.put({ id: props.item?.id ?? nanoid(), name: named.value, ...body })
  busy.value = false
  wrong.value = kit.wrong
  if (kept) emit('done')
}
</script>

<template>
  <form ref="root" class="sheet stack" @submit.prevent="save">
    <h2>{{ item === null ? 'Add to the kit' : `Change ${item.name}` }}</h2>
    <div v-if="item === null" class="field">
      <span class="legend">What</span><SelectField v-model="kind" :options="kinds" aria-label="What" />
    </div>
    <div class="field">
      <label for="kit-name">Called</label><input id="kit-name" v-model="draft.name" class="plain" maxlength="40" />
    </div>
    <div v-if="kind === 'file' || kind === 'stock'" class="field">
      <span class="legend">Diameter</span
      ><SelectField v-model="draft.fileUm" :options="lengths(FILES_UM)" aria-label="Diameter" />
    </div>
    <div v-if="kind === 'stock'" class="row">
      <div class="field">
        <label for="kit-left">Left</label
        ><input id="kit-left" v-model="draft.left" class="plain figures short" inputmode="numeric" />
      </div>
      <div class="field">
        <label for="kit-low">Few at</label
        ><input id="kit-low" v-model="draft.lowAt" class="plain figures short" inputmode="numeric" />
      </div>
    </div>
    <template v-if="kind === 'wheel'">
      <div class="field">
        <span class="legend">Width</span
        ><SelectField v-model="draft.widthUm" :options="lengths(WHEELS_UM)" aria-label="Width" />
      </div>
      <div class="field">
        <label for="kit-marked">Greatest speed marked on it, turns a minute</label
        ><input id="kit-marked" v-model="draft.markedRpm" class="plain figures short" inputmode="numeric" />
      </div>
    </template>
    <template v-if="kind === 'grinder'">
      <div class="field">
        <span class="legend">Kind</span><SelectField v-model="draft.grinder" :options="grinders" aria-label="Kind" />
      </div>
      <div class="field">
        <label for="kit-spindle">Speed of the spindle, turns a minute</label
        ><input id="kit-spindle" v-model="draft.spindleRpm" class="plain figures short" inputmode="numeric" />
      </div>
      <div class="field">
        <label for="kit-angles">Angles of its clamp, such as 25, 30; empty where it turns to any</label
        ><input id="kit-angles" v-model="draft.angles" class="plain figures short" />
      </div>
    </template>
    <template v-if="kind === 'guide'">
      <div class="field">
        <span class="legend">Kind</span><SelectField v-model="draft.guide" :options="guides" aria-label="Kind" />
      </div>
      <div class="field">
        <label for="kit-lines">Angle lines on it, such as 25, 30, 35; empty where nobody looked</label
        ><input id="kit-lines" v-model="draft.lines" class="plain figures short" inputmode="decimal" />
      </div>
      <fieldset>
        <legend>Serves <span class="soft">(all, where none is pressed)</span></legend>
        <div class="row">
          <button
            v-for="pitch in PITCH_CLASSES"
            :key="pitch"
            type="button"
            class="act small"
            :aria-pressed="draft.serves.includes(pitch)"
            @click="serve(pitch)"
          >
            {{ PITCH_PROFILES[pitch].name }}
          </button>
        </div>
      </fieldset>
    </template>
    <template v-if="kind === 'plate'">
      <div class="field">
        <span class="legend">Its setting</span
        ><RadioChoice v-model="draft.rests" label="Its setting" :options="RESTS" small />
      </div>
      <div class="field">
        <label for="kit-steps">Settings, the first the harder wood’s</label
        ><input id="kit-steps" v-model="draft.steps" class="plain figures" inputmode="decimal" />
      </div>
    </template>
    <template v-if="kind === 'caliper'">
      <div class="field">
        <span class="legend">Reads to</span
        ><SelectField v-model="draft.readsUm" :options="reads" aria-label="Reads to" />
      </div>
      <div class="field">
        <span class="legend">Sends what it reads</span
        ><RadioChoice v-model="draft.sends" label="Sends what it reads" :options="SENDS" small />
      </div>
    </template>
    <div v-if="kind === 'vise'" class="field">
      <span class="legend">Where</span><RadioChoice v-model="draft.where" label="Where" :options="WHERE" small />
    </div>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <p class="row">
      <button type="submit" class="act next" :disabled="busy">{{ item === null ? 'Add it' : 'Save' }}</button>
      <button type="button" class="act" @click="emit('done')">Cancel</button>
    </p>
  </form>
</template>

<style scoped>
.short {
  width: 8em;
}
</style>
