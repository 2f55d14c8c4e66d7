<script setup lang="ts">
import { readLength, sayRefusal, stampedGauge, type Instrument } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed } from 'vue'
import { useShed } from '../../remote/shedStore'
import RadioChoice from '../../parts/RadioChoice.vue'

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
  if (text.value.trim() === '' || (props.id === 'thickness' && stampedGauge(text.value) !== null)) return ''
  const reading = readLength(text.value, shed.bareUnit)
  return reading.ok ? '' : sayRefusal(reading)
})
const fraction = computed(() => {
  const reading = readLength(text.value, shed.bareUnit)
  return reading.ok && reading.fraction
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
    <p v-else-if="fraction && instrument === 'caliper'" class="soft">
      A fraction is a ruler's answer, and is taken as one.
    </p>
  </div>
</template>

<style scoped>
.value {
  flex: 1 1 130px;
  max-width: 220px;
}
</style>
