<script setup lang="ts">
import type { CutterBuild } from '@undercliff/core'

/** A low-profile and a standard cutter on links of the same pitch, drawn to one scale. */
defineProps<{ build: CutterBuild }>()
</script>

<template>
  <svg class="build" viewBox="0 0 120 70" aria-hidden="true">
    <path d="M10 50H110Q116 50 116 58T110 66H10Q4 66 4 58T10 50Z" class="body" />
    <path v-if="build === 'low'" d="M20 50V40Q24 33 31 33T40 50ZM62 28L100 32L98 50H72Q60 42 62 28Z" class="body" />
    <path v-else d="M16 50V24Q21 12 30 12T42 50ZM56 4L104 10L102 50H70Q54 34 56 4Z" class="body" />
    <circle cx="26" cy="58" r="4" class="rivet" />
    <circle cx="94" cy="58" r="4" class="rivet" />
  </svg>
</template>

<style scoped>
.build {
  width: 104px;
  height: 60px;
}
.body {
  fill: var(--steel);
}
.rivet {
  fill: var(--sheet);
}
[aria-checked='true'] .body {
  fill: var(--sheet);
}
[aria-checked='true'] .rivet {
  fill: var(--ink);
}
</style>
