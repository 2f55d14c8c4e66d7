<script setup lang="ts">
import { damageName, type ToothSign as Sign } from '@undercliff/core'
import { computed } from 'vue'

/**
 * A cutter drawn from the loop's own figures: how far the edge has come back toward the mark, how
 * much of that is damaged, and where the depth gauge stands. Travels to the left.
 */
const props = defineProps<{ tooth: Sign; retired?: boolean }>()

const NEW_EDGE = 40
const MARK = 84
const HEEL = 91
const STRAP = 46
/** The gap between gauge and corner, drawn larger than life. */
const GAP = 9
const topAt = (x: number): number => 9 + (x - NEW_EDGE) * 0.16

const edge = computed(() => NEW_EDGE + (1 - Math.min(1, props.tooth.left)) * (MARK - NEW_EDGE))
/** How far the side plate runs back under the edge: a hook runs far, a back slope comes forward. */
const LEAN = { hook: 10, straight: 3, backSlope: -5 } as const
const lean = computed(() => LEAN[props.tooth.shape ?? 'straight'])
const body = (x: number, under: number): string =>
  [
    `M${x} ${topAt(x)}L${HEEL} ${topAt(HEEL)}L${HEEL - 1} ${STRAP}H${Math.min(x + 10, HEEL - 3)}`,
    `C${x + 1} ${STRAP - 6} ${Math.min(HEEL - 4, x + under)} ${topAt(x) + 10} ${x} ${topAt(x)}Z`,
  ].join('')
const damageEnd = computed(() => Math.min(HEEL, edge.value + props.tooth.damaged * (MARK - NEW_EDGE)))
const gaugeTop = computed(() => Math.min(STRAP - 8, topAt(edge.value) + GAP * props.tooth.setting))
/** A gauge with its front rounded, or left flat by the file. */
const gauge = computed(() =>
  props.tooth.gauge === 'flat'
    ? `M11 ${STRAP}V${gaugeTop.value}H22Q28 ${gaugeTop.value} 29 ${STRAP}Z`
    : `M11 ${STRAP}V${gaugeTop.value + 8}Q13 ${gaugeTop.value} 20 ${gaugeTop.value}Q27 ${gaugeTop.value} 29 ${STRAP}Z`,
)
const GAUGE_WORDS: Record<Sign['gauge'], string> = {
  high: ', gauges high',
  low: ', gauges too low',
  flat: ', gauges flat-fronted',
  fine: '',
}
const KNOWN_WORDS: Record<Sign['known'], string> = { measured: 'measured', new: 'as new', estimated: 'estimated' }
const said = computed(() => {
  const { left, known, damage, shape } = props.tooth
  const length = `${Math.round(left * 100)} % of the cutter left, ${KNOWN_WORDS[known]}`
  const wrong = damage === null ? '' : shape === null || damage !== shape ? `, ${damageName(damage)}` : ''
  const leans = shape === 'hook' ? ', hook' : shape === 'backSlope' ? ', back slope' : ''
  return `${length}${wrong}${leans}${GAUGE_WORDS[props.tooth.gauge]}`
})
</script>

<template>
  <svg
    class="tooth"
    :class="{ retired, estimated: tooth.known === 'estimated' }"
    viewBox="0 0 100 64"
    role="img"
    :aria-label="said"
  >
    <path :d="body(NEW_EDGE, LEAN.straight)" class="ghost" />
    <path :d="gauge" class="steel" :class="{ off: tooth.gauge !== 'fine' }" />
    <path :d="body(edge, lean)" class="steel cutter" :class="{ leaning: tooth.shape !== null }" />
    <path
      v-if="tooth.damaged > 0"
      class="hurt"
      :d="`M${edge} ${topAt(edge)}L${damageEnd} ${topAt(damageEnd)}V${STRAP - 3}H${edge + 6}Z`"
    />
    <path v-else-if="tooth.damage" class="hurt-line" :d="`M${edge - 3} ${topAt(edge) - 5}l5 8 -4 5 6 7`" />
    <path class="mark" :d="`M${MARK} ${topAt(MARK) - 5}V${STRAP}`" />
    <path class="strap" d="M8 46H92Q97 46 97 52T92 60H8Q3 60 3 52T8 46Z" />
    <circle class="rivet" cx="20" cy="53" r="3.4" />
    <circle class="rivet" cx="80" cy="53" r="3.4" />
  </svg>
</template>

<style scoped>
.tooth {
  display: block;
  width: 100%;
  height: auto;
  overflow: visible;
}
.ghost {
  fill: none;
  stroke: var(--steel-light);
  stroke-width: 1.5;
  stroke-dasharray: 3 2.5;
}
.steel {
  fill: var(--steel);
}
.off {
  fill: none;
  stroke: var(--stop);
  stroke-width: 2.5;
}
.estimated .cutter {
  fill: var(--sheet);
  stroke: var(--steel);
  stroke-width: 2.5;
}
.strap {
  fill: var(--steel);
}
.rivet {
  fill: var(--sheet);
}
.mark {
  stroke: var(--ink);
  stroke-width: 2.2;
}
.hurt {
  fill: var(--stop);
}
.hurt-line {
  fill: none;
  stroke: var(--stop);
  stroke-width: 3;
}
.leaning {
  stroke: var(--stop);
  stroke-width: 2;
}
.retired {
  opacity: 0.45;
}
</style>
