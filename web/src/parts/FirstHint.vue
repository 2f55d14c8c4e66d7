<script setup lang="ts">
import { computed, ref } from 'vue'
import { keep, keptJson } from '../remote/device'

/** A word for whoever is here for the first time; once read it never comes back on this device. */
const props = defineProps<{ id: string }>()
const KEPT = 'undercliff:hintsRead'
const read = ref(keptJson<string[]>(KEPT) ?? [])
const shown = computed(() => !read.value.includes(props.id))
const away = (): void => {
  read.value = [...(keptJson<string[]>(KEPT) ?? read.value), props.id]
  void keep(KEPT, JSON.stringify(read.value))
}
</script>

<template>
  <aside v-if="shown" class="hint no-print" aria-label="Hint">
    <p><slot /></p>
    <button type="button" class="act small" @click="away">I know now</button>
  </aside>
</template>

<style scoped>
.hint {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  justify-content: space-between;
  padding: 6px 12px;
  border: 1px dashed var(--rule-strong);
  border-radius: 4px;
}
.hint p {
  flex: 1 1 300px;
}
</style>
