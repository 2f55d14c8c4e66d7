<script setup lang="ts">
import type { SetAsideRow } from '@undercliff/contract'
import { onMounted, shallowRef } from 'vue'
import { fetchAside } from '../../remote/api'

/** Rows of a backup that could not be brought in as what they were: each with its reason, and as it stood there. */
const rows = shallowRef<readonly SetAsideRow[]>([])
onMounted(async () => {
  // Where nothing answers, the page says so already.
  rows.value = (await fetchAside().catch(() => ({ rows: [] }))).rows
})
const PARTS: Readonly<Record<string, string>> = {
  entries: 'From the logs of loops',
  sawEntries: 'From the logs of saws',
  people: 'A person',
  saws: 'A saw',
  profiles: 'A profile',
  kit: 'A tool',
  photos: 'A photograph',
  rules: 'House rules',
}
</script>

<template>
  <section v-if="rows.length > 0" class="sheet stack" data-aside>
    <h2>Set aside when the backup came back</h2>
    <p class="soft">
      Everything else is in the shed. These are kept as they stood, and go into the next backup; write anew what is
      missing.
    </p>
    <details v-for="({ part, why, row }, i) in rows" :key="i">
      <summary>{{ PARTS[part] ?? part }}: {{ why }}</summary>
      <pre>{{ JSON.stringify(row, null, 1) }}</pre>
    </details>
  </section>
</template>

<style scoped>
pre {
  max-height: 14rem;
  overflow: auto;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
summary {
  min-height: 48px;
  padding: 10px 0;
  cursor: pointer;
}
</style>
