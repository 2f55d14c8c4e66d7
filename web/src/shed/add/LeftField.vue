<script setup lang="ts">
import { readAbout, writeMm, type LengthPreference, type Um } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import ToothSign from '../../parts/ToothSign.vue'

/** About so much of a used loop's cutters is left: dragged beside the drawn tooth, or typed. Never a reading. */
const props = defineProps<{ newUm: Um; markUm: Um; unit: Exclude<LengthPreference, 'both'> }>()
/** What a reading would say; null where nobody looked. */
const model = defineModel<Um | null>({ required: true })
/** Half the width of what was said; null where a single figure was. */
const within = defineModel<Um | null>('within', { required: true })
/** Why what stands in the field cannot be read; empty where it can. */
const wrong = defineModel<string>('wrong', { required: true })
const usable = computed(() => Math.max(1, props.newUm - props.markUm))
const part = computed(() =>
  model.value === null ? 0.5 : Math.min(1, Math.max(0, (model.value - props.markUm) / usable.value)),
)
const typed = ref('')
const of = computed(() => ({ newUm: props.newUm, markUm: props.markUm, bare: props.unit }))
watch(
  model,
  (um) => {
    const reading = readAbout(typed.value, of.value)
    if (um !== null && !(reading.ok && reading.um === um)) typed.value = writeMm(um, 1)
    if (um === null && wrong.value === '') typed.value = ''
  },
  { immediate: true },
)
const WORDS = ['almost none', 'a quarter', 'half', 'three quarters', 'nearly all'] as const
const said = computed(() => {
  if (model.value === null) return 'nobody has looked'
  const wide = within.value === null ? '' : ` give or take ${writeMm(within.value, 1)}`
  return `about ${writeMm(model.value, 1)}${wide}, ${WORDS[Math.round(part.value * 4)] ?? ''}`
})
function drag(event: Event): void {
  wrong.value = ''
  within.value = null
  model.value =
    Math.round((props.markUm + (Number((event.target as HTMLInputElement).value) / 20) * usable.value) / 100) * 100
}
function read(text: string): void {
  typed.value = text
  const said = text.trim() === '' ? null : readAbout(text, of.value)
  const tooLong = said?.ok === true && said.um > props.newUm * 1.1
  wrong.value = tooLong ? `A new cutter has ${writeMm(props.newUm, 1)}.` : said?.ok === false ? said.message : ''
  // A figure that cannot be read leaves none behind, least of all the last that could be.
  const taken = said?.ok === true && !tooLong ? said : null
  within.value = taken?.withinUm ?? null
  model.value = taken?.um ?? null
}
const tooth = computed(
  () =>
    ({
      left: part.value,
      damaged: 0,
      known: 'estimated',
      setting: 1,
      damage: null,
      shape: null,
      gauge: 'fine',
    }) as const,
)
</script>

<template>
  <fieldset class="left">
    <legend>About so much is left</legend>
    <ToothSign class="sign" :tooth="tooth" />
    <input
      type="range"
      min="0"
      max="20"
      step="1"
      :value="Math.round(part * 20)"
      aria-label="About so much is left, edge to mark"
      :aria-valuetext="said"
      @input="drag"
    />
    <NInput
      class="typed"
      :value="typed"
      :input-props="{ 'aria-label': 'Left, as you would measure it', inputmode: 'decimal' }"
      placeholder="4.0, ~4, half"
      @update:value="read"
    />
    <p class="said" :class="wrong ? 'stop-text' : 'soft'" role="status">
      {{
        wrong ||
        (model === null
          ? 'Nobody has looked: it does not cut before it is measured.'
          : `By eye: ${said}. The verdict asks for a measurement.`)
      }}
    </p>
  </fieldset>
</template>

<style scoped>
.left {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) 120px;
  gap: 4px 14px;
  align-items: center;
}
legend {
  grid-column: 1 / -1;
}
.sign {
  width: 110px;
}
input[type='range'] {
  width: 100%;
  height: var(--target);
  accent-color: var(--ink);
}
.said {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .left {
    grid-template-columns: 90px minmax(0, 1fr);
  }
  .typed {
    grid-column: 1 / -1;
  }
}
</style>
