<script setup lang="ts">
import { writeLength, type FigureBounds, type Um } from '@undercliff/core'
import { ref, watchEffect } from 'vue'
import { useShed } from '../remote/shedStore'
import { useFigure } from './figure'

/** A length in an entry that is put right, in the crew's unit, checked for slips as every figure is. */
const model = defineModel<Um>({ required: true })
const props = defineProps<{ label: string; bounds: FigureBounds }>()
const shed = useShed()
const field = ref<HTMLInputElement | null>(null)
const figure = useFigure(props.label, () => props.bounds, ref(writeLength(model.value, shed.bareUnit)))
const { text, odd, meant } = figure
function look(): void {
  figure.look()
  const um = odd.value === '' ? figure.read() : null
  if (typeof um === 'number') model.value = um
}
function type(event: Event): void {
  text.value = (event.target as HTMLInputElement).value
  odd.value = ''
}
function answer(by: 'take' | 'insist'): void {
  figure[by]()
  look()
}
/** A form does not go off with a figure that nobody has answered for. */
watchEffect(() => {
  field.value?.setCustomValidity(odd.value)
})
</script>

<template>
  <input
    ref="field"
    class="plain figures"
    inputmode="decimal"
    autocomplete="off"
    :value="text"
    :aria-label="label"
    @input="type"
    @change="look"
  />
  <span v-if="odd !== ''" class="stop-text" role="alert">{{ odd }}</span>
  <span v-if="odd !== ''" class="row">
    <button v-if="meant !== null" type="button" class="act small" @click="answer('take')">{{ meant }}</button>
    <button type="button" class="act small" @click="answer('insist')">As typed</button>
  </span>
</template>
