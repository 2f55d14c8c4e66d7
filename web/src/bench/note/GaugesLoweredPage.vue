<script setup lang="ts">
import { BUMPER_CAUTION, hasBumpers, settingBounds } from '@undercliff/core'
import { computed } from 'vue'
import { useDraft } from '../../parts/draft'
import { useFigure } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import { useOpenLoop } from '../../remote/openLoop'
import NoteForm from './NoteForm.vue'
import type { NoteBody } from './noteBody'

/** The depth gauges came down to the plate. */
const props = defineProps<{ tag: string }>()
const { loop } = useOpenLoop(() => props.tag)
const bumpers = computed(() => loop.state !== null && hasBumpers(loop.state.spec))
const setting = useFigure('Setting', () => settingBounds(loop.state?.spec ?? { settingUm: 650 }))
useDraft(`gauges:${props.tag}`, { setting: setting.text })
function body(): NoteBody | string {
  const settingUm = setting.read()
  if (typeof settingUm === 'string') return settingUm
  return settingUm === null ? { kind: 'gaugesLowered' } : { kind: 'gaugesLowered', settingUm }
}
</script>

<template>
  <NoteForm :tag="tag" title="Log gauges lowered on" save="Log the gauges" :body="body">
    <p class="caution">
      Use the plate, file flush, then round the front again. Gauges too low cannot be put back: the saw snatches and
      kicks.
    </p>
    <p v-if="bumpers" class="caution">{{ BUMPER_CAUTION }}</p>
    <FigureField id="setting" :figure="setting" placeholder="0.65"
      >Setting on the plate <span class="soft">(empty: as new)</span></FigureField
    >
  </NoteForm>
</template>
