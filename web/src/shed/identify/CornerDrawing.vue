<script setup lang="ts">
import type { CutterType } from '@undercliff/core'

/** A cutter seen from in front: what tells the types apart is the corner where both edges meet. */
defineProps<{ type: CutterType }>()

const OUTLINES: Record<CutterType, string> = {
  fullChisel: 'M10 8H46L40 52H32L37 15H10Z',
  semiChisel: 'M10 8H34Q45 9 43 22L39 52H31L35 24Q36 16 28 15H10Z',
  chipper: 'M10 8H24Q46 10 42 34L39 52H31L34 34Q36 17 22 15H10Z',
  ripping: 'M10 10H34Q44 11 42 22L39 52H31L35 24Q36 17 28 17H10Z M10 10L44 8',
  squareGround: 'M10 8H46L40 52H32L36 18L33 15H10Z M46 8L33 15',
}
</script>

<template>
  <svg class="corner" viewBox="0 0 56 58" aria-hidden="true"><path :d="OUTLINES[type]" /></svg>
</template>

<style scoped>
.corner {
  width: 52px;
  height: 54px;
}
path {
  fill: var(--steel);
  stroke: var(--steel);
  stroke-width: 1.5;
}
[aria-checked='true'] path {
  fill: var(--sheet);
  stroke: var(--sheet);
}
</style>
