<script setup lang="ts">
import { sayMoment, type DateOrder } from '@undercliff/core'
import { computed, ref, watch, watchEffect } from 'vue'
import { useShed } from '../remote/shedStore'
import { readWhen } from './readWhen'

/** When it happened: now, unless told otherwise, as the crew writes it. The value is a UTC instant; null is now. */
const model = defineModel<string | null>({ required: true })
const shed = useShed()
const typed = ref('')
const EXAMPLES: Record<DateOrder, string> = {
  dayFirst: '24.11. 14:30',
  monthFirst: '11/24 2:30 pm',
  yearFirst: '2026-11-24 14:30',
}
const example = computed(() => EXAMPLES[shed.dates])
const at = computed(() => readWhen(typed.value, shed.dates, new Date()))
/** What was understood is said with the month by name, or the year first. */
const sayWhen = (moment: string): string => sayMoment(new Date(moment), shed.dates)
const said = computed(() => {
  if (model.value !== null) return sayWhen(model.value)
  return typed.value.trim() === '' ? '' : `Not read: write it like ${example.value}, or “yesterday 15:00”.`
})
let byHand = false
function type(event: Event): void {
  byHand = true
  typed.value = (event.target as HTMLInputElement).value
  model.value = at.value?.toISOString() ?? null
}
/** What cannot be read is never taken for now: the form does not go off with it. */
const field = ref<HTMLInputElement | null>(null)
watchEffect(() => {
  field.value?.setCustomValidity(model.value === null ? said.value : '')
})
/** What was typed before the shed said how the crew writes days is read anew. */
watch(
  () => shed.dates,
  () => {
    if (byHand && typed.value !== '') model.value = at.value?.toISOString() ?? null
  },
)
watch(
  model,
  (value) => {
    if (value === null ? at.value !== null : typed.value === '')
      typed.value = value === null ? '' : sayWhen(value).replace(/^\w+, /, '')
  },
  { immediate: true },
)
</script>

<template>
  <div class="field">
    <label for="when">When <span class="soft">(empty: now)</span></label>
    <input
      id="when"
      ref="field"
      class="plain"
      :value="typed"
      autocomplete="off"
      maxlength="40"
      :placeholder="`now, or such as ${example}`"
      aria-describedby="when-said"
      @input="type"
    />
    <p id="when-said" :class="model === null && said !== '' ? 'stop-text' : 'soft'" role="status">{{ said }}</p>
  </div>
</template>
