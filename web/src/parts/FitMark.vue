<script setup lang="ts">
import type { FitLevel } from '@undercliff/core'

/** Fits, will run but, must not: told apart by shape before colour. */
defineProps<{ level: FitLevel }>()
</script>

<template>
  <svg class="mark" :class="`fit-${level}`" viewBox="0 0 16 16" width="16" height="16" aria-hidden="true">
    <path v-if="level === 'fits'" d="M2.5 8.5 6.5 12.5 13.5 4" />
    <path v-else-if="level === 'but'" d="M2 10Q5 5 8 8.5T14 7" />
    <path v-else d="M3.5 3.5 12.5 12.5M12.5 3.5 3.5 12.5" />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
  vertical-align: -2px;
}
path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 2.6;
  stroke-linecap: round;
}
.fit-mustNot {
  color: var(--stop);
}
</style>
