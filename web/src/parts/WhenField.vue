<script setup lang="ts">
import { computed } from 'vue'

/** When it happened: now, unless told otherwise. The value is a UTC instant; null is now. */
const model = defineModel<string | null>({ required: true })
const pad = (n: number): string => String(n).padStart(2, '0')
const local = computed({
  get: () => {
    if (model.value === null) return ''
    const at = new Date(model.value)
    const day = [at.getFullYear(), pad(at.getMonth() + 1), pad(at.getDate())].join('-')
    return `${day}T${pad(at.getHours())}:${pad(at.getMinutes())}`
  },
  set: (text: string) => {
    const at = new Date(text)
    model.value = text === '' || Number.isNaN(at.getTime()) ? null : at.toISOString()
  },
})
</script>

<template>
  <div class="field">
    <label for="when">When <span class="soft">(empty: now)</span></label>
    <input id="when" v-model="local" type="datetime-local" />
  </div>
</template>

<style scoped>
input {
  min-height: var(--target);
  padding: 4px 12px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  font: 400 1rem var(--figures);
}
</style>
