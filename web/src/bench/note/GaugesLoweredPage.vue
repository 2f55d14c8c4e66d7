<script setup lang="ts">
import { NInput } from 'naive-ui'
import { BUMPER_CAUTION, hasBumpers } from '@undercliff/core'
import { computed, ref } from 'vue'
import { readTyped } from '../../parts/readTyped'
import { useOpenLoop } from '../../remote/openLoop'
import NoteForm from './NoteForm.vue'
import type { NoteBody } from './noteBody'

/** The depth gauges came down to the plate. */
const props = defineProps<{ tag: string }>()
const { loop, shed } = useOpenLoop(() => props.tag)
const bumpers = computed(() => loop.state !== null && hasBumpers(loop.state.spec))
const setting = ref('')
function body(): NoteBody | string {
  const settingUm = readTyped(setting.value, 'Setting', shed.bareUnit)
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
    <div class="field">
      <label for="setting">Setting on the plate <span class="soft">(empty: as new)</span></label
      ><NInput v-model:value="setting" placeholder="0.65" :input-props="{ id: 'setting', inputmode: 'decimal' }" />
    </div>
  </NoteForm>
</template>
