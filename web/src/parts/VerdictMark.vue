<script setup lang="ts">
import { type Action } from '@undercliff/core'

/** A verdict's own shape, told apart without colour. */
defineProps<{ action: Action }>()
</script>

<template>
  <svg class="mark" :class="action" viewBox="0 0 20 20" aria-hidden="true">
    <template v-if="action === 'retire'">
      <path d="M3 3h14v14H3z" class="solid" />
      <path d="M6 6l8 8M14 6l-8 8" class="over" />
    </template>
    <template v-else-if="action === 'stop'">
      <path d="M6.5 2h7L18 6.5v7L13.5 18h-7L2 13.5v-7z" class="solid" />
      <path d="M6 10h8" class="over" />
    </template>
    <template v-else-if="action === 'inspect'">
      <path d="M1.5 10Q10 1 18.5 10Q10 19 1.5 10z" class="line" />
      <circle cx="10" cy="10" r="2.6" class="solid" />
    </template>
    <template v-else-if="action === 'measure'">
      <path d="M3 4v12M17 4v12M3 10h14M6 7l-3 3 3 3M14 7l3 3-3 3" class="line" />
    </template>
    <template v-else-if="action === 'regrind'">
      <circle cx="10" cy="10" r="7.5" class="line" />
      <circle cx="10" cy="10" r="2.4" class="solid" />
    </template>
    <template v-else-if="action === 'file'"><path d="M3 15L15 3M6 18L18 6" class="line thick" /></template>
    <template v-else-if="action === 'lowerGauges'">
      <path d="M3 3h14M10 5v11M5.5 11.5L10 16l4.5-4.5" class="line" />
    </template>
    <template v-else-if="action === 'touchUp'"><path d="M3.5 16.5l13-13" class="line thick" /></template>
    <template v-else-if="action === 'shop'">
      <path d="M2 9l8-6 8 6M4.5 9v8h11V9" class="line" />
      <path d="M10 12v5" class="line" />
    </template>
    <template v-else-if="action === 'dirtyDuty'">
      <path d="M1.5 15.5q4-4 8.5 0t8.5 0" class="line" />
      <path d="M5 11V6h10v5" class="line" />
    </template>
    <template v-else><circle cx="10" cy="10" r="6.5" class="line" /></template>
  </svg>
</template>

<style scoped>
.mark {
  width: 1.15em;
  height: 1.15em;
  flex: none;
  vertical-align: -0.2em;
  color: var(--ink);
}
.retire,
.stop {
  color: var(--stop);
}
.runOn {
  color: var(--ink-soft);
}
.line {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
}
.thick {
  stroke-width: 3.5;
}
.solid {
  fill: currentColor;
}
.over {
  fill: none;
  stroke: var(--sheet);
  stroke-width: 2.4;
}
</style>
