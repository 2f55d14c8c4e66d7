<script setup lang="ts">
import { cutterName, writeLength, type CutterJob, type LengthPreference, type Um } from '@undercliff/core'
import { computed } from 'vue'

/** The cutter in hand from above, to scale: what is left of it, what comes off, how deep its damage goes. */
const props = defineProps<{ job: CutterJob; newLengthUm: Um; markLengthUm: Um; lengths: LengthPreference }>()
const W = 320
const H = 84
/** The line of the mark stands at the left, the edge goes back toward it. */
const x = (um: Um): number => 12 + ((um - props.markLengthUm) / (props.newLengthUm - props.markLengthUm)) * (W - 24)
const edge = computed(() => x(props.job.lengthUm))
const target = computed(() => x(props.job.targetUm))
/** The top plate's edge leans as it does on the chain. */
const lean = computed(() => (props.job.hand === 'left' ? 12 : -12))
const plate = (from: number, to: number): string =>
  `M${from + lean.value} 14 L${to + lean.value} 14 L${to - lean.value} ${H - 14} L${from - lean.value} ${H - 14} Z`
const said = computed(() => {
  const { number, hand, lengthUm, removeUm, targetUm, known } = props.job
  const how = known === 'measured' ? '' : ' by estimate'
  const write = (um: Um): string => writeLength(um, props.lengths)
  const off = `${write(removeUm)} comes off, to ${write(targetUm)}`
  return `Cutter ${cutterName(number, hand)}: ${write(lengthUm)}${how}, ${off}`
})
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="said">
    <defs>
      <pattern id="comes-off" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="3" height="6" />
      </pattern>
    </defs>
    <path class="new" :d="plate(12, W - 12)" />
    <path class="stays" :d="plate(12, target)" />
    <path class="off" :d="plate(target, edge)" />
    <path
      v-if="job.damageUm > 0"
      class="hurt"
      :d="plate(x(Math.max(markLengthUm, job.lengthUm - job.damageUm)), edge)"
    />
    <line class="mark" x1="12" x2="12" y1="4" :y2="H - 4" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-height: 150px;
}
.new {
  fill: none;
  stroke: var(--rule-strong);
  stroke-dasharray: 3 4;
}
.stays {
  fill: var(--steel);
}
.off {
  fill: url(#comes-off);
  stroke: var(--ink);
}
pattern rect {
  fill: var(--ink);
}
.hurt {
  fill: none;
  stroke: var(--stop);
  stroke-width: 2;
}
.mark {
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
