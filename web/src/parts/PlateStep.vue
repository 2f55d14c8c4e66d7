<script setup lang="ts">
import { kitOf, WOOD_STEP_NAMES, WOOD_STEPS, type HouseRules, type WoodStep } from '@undercliff/core'
import { computed } from 'vue'
import { useKit } from '../remote/kitStore'
import RadioChoice from './RadioChoice.vue'
import { useWoodStep } from './woodStep'

/** Which step of a progressive plate is used: it goes by the saw and what it cuts today, never by millimetres. */
const props = defineProps<{ sawId: string | null; rules: HouseRules }>()
const kit = useKit()
const { step, say } = useWoodStep(() => props.sawId)
const model = computed({
  get: (): WoodStep => step.value ?? props.rules.woodStep,
  set: say,
})
const options = WOOD_STEPS.map((value) => ({ value, label: WOOD_STEP_NAMES[value] }))
const plates = computed(() =>
  kitOf(kit.kit, 'plate')
    .filter(({ rests }) => rests === 'progressive')
    .map(({ name }) => name)
    .join(', '),
)
</script>

<template>
  <fieldset v-if="rules.gaugeSchool === 'progressive'" data-plate-step>
    <legend>Step of the plate <span v-if="plates" class="soft">{{ plates }}</span></legend>
    <RadioChoice v-model="model" label="Step of the plate" :options="options" small />
    <p class="soft">By the saw and the wood today. The setting grows with wear by itself.</p>
  </fieldset>
</template>
