<script setup lang="ts">
import { BUMPER_CAUTION, hasBumpers, settingBounds } from '@undercliff/core'
import { computed, ref } from 'vue'
import { useDraft } from '../../parts/draft'
import { useFigure } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import PlateStep from '../../parts/PlateStep.vue'
import { usePlate } from '../../parts/plate'
import { useOpenLoop } from '../../remote/openLoop'
import NoteForm from './NoteForm.vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import type { NoteBody } from './noteBody'

const WITH = [
  { value: false, label: 'A plate' },
  { value: true, label: 'By eye' },
]

/** The depth gauges came down to the plate. */
const props = defineProps<{ tag: string }>()
const { loop, rules } = useOpenLoop(() => props.tag)
const progressive = computed(() => rules.value.gaugeSchool === 'progressive')
const plate = usePlate(() => (loop.state === null ? null : { state: loop.state, rules: rules.value }))
const bumpers = computed(() => loop.state !== null && hasBumpers(loop.state.spec))
const setting = useFigure('Setting', () => settingBounds(loop.state?.spec ?? { settingUm: 650 }))
/** Without a plate nobody knows how far: the trade warns of it, and it happens. */
const byEye = ref(false)
useDraft(`gauges:${props.tag}`, { setting: setting.text, byEye })
function body(): NoteBody | string {
  if (byEye.value) return { kind: 'gaugesLowered', gaugesByEye: true }
  const settingUm = progressive.value ? null : setting.read()
  if (typeof settingUm === 'string') return settingUm
  if (settingUm !== null) return { kind: 'gaugesLowered', settingUm }
  return plate.value === null ? { kind: 'gaugesLowered' } : { kind: 'gaugesLowered', plate: plate.value.used }
}
</script>

<template>
  <NoteForm :tag="tag" title="Log gauges lowered on" save="Log the gauges" :body="body">
    <p class="caution">
      Use the plate, file flush, then round the front again. Gauges too low cannot be put back: the saw snatches and
      kicks.
    </p>
    <p v-if="bumpers" class="caution">{{ BUMPER_CAUTION }}</p>
    <fieldset>
      <legend>With</legend>
      <RadioChoice v-model="byEye" label="With" :options="WITH" />
      <p v-if="byEye" class="caution grave">
        By eye they come out too low as often as not. Lay a plate over some on both sides, and log what it reads, before
        the saw cuts.
      </p>
    </fieldset>
    <PlateStep v-if="!byEye && loop.state" :saw-id="loop.state.sawId" :rules="rules" />
    <FigureField v-if="!byEye && !progressive" id="setting" :figure="setting" placeholder="0.65"
      >Setting on the plate <span class="soft">(empty: the house’s plate)</span></FigureField
    >
    <p v-if="!byEye && plate" data-plate>Logged {{ plate.said }}.</p>
  </NoteForm>
</template>
