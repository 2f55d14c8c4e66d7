<script setup lang="ts">
import { readLength, type Instrument } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed } from 'vue'
import { useShed } from '../remote/shedStore'
import RadioChoice from '../parts/RadioChoice.vue'

/** A length with what it was taken with. */
const props = defineProps<{ id: string; label: string; hint: string }>()
const text = defineModel<string>('text', { required: true })
const instrument = defineModel<Instrument>('instrument', { required: true })
const shed = useShed()
const INSTRUMENTS = [
  { value: 'caliper', label: 'Caliper' },
  { value: 'ruler', label: 'Ruler' },
] as const
const wrong = computed(() => {
  if (text.value.trim() === '') return ''
  const reading = readLength(text.value, shed.bareUnit)
  return reading.ok ? '' : `${reading.message} It would be read as: ${reading.nearest}`
})
</script>

<template>
  <div class="field">
    <label :for="props.id">{{ label }}</label>
    <p class="soft">{{ hint }}</p>
    <div class="row">
      <NInput
        v-model:value="text"
        class="value"
        :input-props="{ id: props.id, inputmode: 'decimal', autocomplete: 'off' }"
        placeholder=""
      />
      <RadioChoice v-model="instrument" :label="`${label}: taken with`" :options="INSTRUMENTS" small />
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.value {
  flex: 1 1 130px;
  max-width: 220px;
}
</style>
