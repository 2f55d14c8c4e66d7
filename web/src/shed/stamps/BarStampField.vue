<script setup lang="ts">
import { saySawFit, type Um } from '@undercliff/core'
import type { Saw } from '@undercliff/contract'
import { NInput } from 'naive-ui'
import { computed } from 'vue'
import { useShed } from '../../remote/shedStore'
import { barByStamp } from './stamps'

/** What is stamped on a bar; where the crew has had such a bar, what it was is one press away. */
const stamp = defineModel<string>({ required: true })
const { fieldId, gaugeUm, driveLinks } = defineProps<{ fieldId: string; gaugeUm: Um | null; driveLinks: string }>()
const emit = defineEmits<{ take: [bar: Saw] }>()
const shed = useShed()
const known = computed(() => {
  const found = barByStamp(stamp.value, shed.saws)
  return found?.gaugeUm === gaugeUm && String(found.driveLinks) === driveLinks ? null : found
})
</script>

<template>
  <div class="field">
    <label :for="fieldId">Stamped on the bar <span class="soft">(if you can read it)</span></label
    ><NInput v-model:value="stamp" :maxlength="40" :input-props="{ id: fieldId }" placeholder="" />
    <p v-if="known" class="row" role="status">
      <span>{{ known.barStamp }} was {{ saySawFit(known) }}, on {{ known.nickname }}.</span>
      <button type="button" class="act small" @click="emit('take', known)">It is the same</button>
    </p>
  </div>
</template>
