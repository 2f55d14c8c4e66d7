<script setup lang="ts">
import { NInput } from 'naive-ui'
import { ref } from 'vue'
import type { SharpeningHere } from './sharpening'

/** Both speeds as they are read off the wheel and off what turns it: without them no wheel is started. */
const props = defineProps<{ here: SharpeningHere }>()
const marked = ref('')
const spindle = ref('')
const wrong = ref('')
const NUMBER = { inputmode: 'numeric', autocomplete: 'off' } as const
const readRpm = (text: string): number | null => {
  const rpm = Number(text.replace(/[\s,.’']/g, '').replace(/rpm|\/?min$/i, ''))
  return Number.isInteger(rpm) && rpm >= 100 && rpm <= 50_000 ? rpm : null
}
function take(): void {
  const [markedRpm, spindleRpm] = [readRpm(marked.value), readRpm(spindle.value)]
  if (markedRpm === null || spindleRpm === null) {
    wrong.value = 'Read both as turns a minute: the greatest speed marked on the wheel, and that of the spindle.'
    return
  }
  wrong.value = ''
  props.here.want({ speeds: { markedRpm, spindleRpm } })
}
</script>

<template>
  <form class="stack" data-speeds @submit.prevent="take">
    <p>
      A wheel that turns faster than the speed marked on it may burst. Name both under <strong>With</strong>, or read
      them off:
    </p>
    <div class="row">
      <div class="field">
        <label for="marked-rpm">Marked on the wheel</label
        ><NInput v-model:value="marked" placeholder="" :input-props="{ id: 'marked-rpm', ...NUMBER }" />
      </div>
      <div class="field">
        <label for="spindle-rpm">Speed of the spindle</label
        ><NInput v-model:value="spindle" placeholder="" :input-props="{ id: 'spindle-rpm', ...NUMBER }" />
      </div>
    </div>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <button type="submit" class="act">Both were read so</button>
  </form>
</template>
