<script setup lang="ts">
import type { Conditions, CutterType, SharpCurve } from '@undercliff/core'
import { scaleLinear } from 'd3-scale'
import { computed, ref } from 'vue'
import RadioChoice from '../../parts/RadioChoice.vue'

/** How long does a loop stay sharp? The part still sharp after so many tanks, with its range. */
const props = defineProps<{
  curves: readonly SharpCurve[]
  names: Record<CutterType, string>
  conditions: Record<Conditions, string>
}>()
const W = 620
const H = 260
const M = { top: 14, right: 14, bottom: 34, left: 44 }
const chosen = ref<number | null>(0)
const sorted = computed(() => [...props.curves].sort((a, b) => b.ended - a.ended || b.spells - a.spells))
const curve = computed(() => sorted.value[chosen.value ?? 0] ?? null)
const choices = computed(() =>
  sorted.value.map((one, value) => ({ value, label: name(one), ended: one.ended, spells: one.spells })),
)
const name = ({ cutterType, conditions }: SharpCurve): string =>
  `${props.names[cutterType]} in ${props.conditions[conditions]}`
const last = computed(() =>
  Math.max(4, ...(curve.value?.steps.map(({ time }) => time) ?? []), curve.value?.mean.mean ?? 0),
)
const x = computed(() => scaleLinear([0, last.value * 1.1], [M.left, W - M.right]))
const y = computed(() => scaleLinear([0, 1], [H - M.bottom, M.top]))
function stairs(of: (step: SharpCurve['steps'][number]) => number): string {
  let path = `M${x.value(0)} ${y.value(1)}`
  for (const step of curve.value?.steps ?? []) path += `H${x.value(step.time)}V${y.value(of(step))}`
  return `${path}H${W - M.right}`
}
const band = computed(() => {
  const steps = curve.value?.steps ?? []
  let path = `M${x.value(0)} ${y.value(1)}`
  for (const step of steps) path += `H${x.value(step.time)}V${y.value(step.high)}`
  path += `H${W - M.right}`
  let back = ''
  let level = 1
  for (const step of steps) {
    back = `H${x.value(step.time)}V${y.value(level)}${back}`
    level = step.low
  }
  return steps.length === 0 ? '' : `${path}V${y.value(level)}${back}H${x.value(0)}Z`
})
const title = computed(() => {
  const one = curve.value
  if (one === null) return 'Nothing has run yet'
  if (one.medianTanks !== null) return `Half the time, ${name(one)} is dull after ${one.medianTanks} tanks`
  return one.ended === 0
    ? `${name(one)}: never logged as dull yet`
    : `More than half the time, ${name(one)} outlasts what was logged`
})
</script>

<template>
  <section aria-labelledby="sharp-title">
    <h2 id="sharp-title">{{ title }}</h2>
    <RadioChoice
      v-if="sorted.length > 0"
      v-model="chosen"
      v-slot="{ option }"
      label="Cutter type and wood"
      :options="choices"
      small
    >
      {{ option.label }} <span class="figures">{{ option.ended }}/{{ option.spells }}</span>
    </RadioChoice>
    <template v-if="curve">
      <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="`${title}. Part still sharp against tanks.`">
        <g class="axis figures">
          <template v-for="tick in [0, 0.5, 1]" :key="tick">
            <path :d="`M${M.left} ${y(tick)}H${W - M.right}`" />
            <text :x="M.left - 6" :y="y(tick) + 4" text-anchor="end">{{ tick * 100 }} %</text>
          </template>
          <text v-for="tick in x.ticks(6)" :key="`x${tick}`" :x="x(tick)" :y="H - M.bottom + 18" text-anchor="middle">
            {{ tick }}
          </text>
          <text :x="W - M.right" :y="H - 2" text-anchor="end">tanks since sharpened</text>
        </g>
        <path class="band" :d="band" />
        <path class="line" :d="stairs(({ survival }) => survival)" />
      </svg>
      <p class="soft small">
        {{ curve.spells }} spells, {{ curve.ended }} of them ended dull; the others were sharpened, or struck something,
        while they still cut, and count as that long at least. With the starting value weighed in it stays sharp for
        {{ curve.mean.mean.toFixed(1) }} tanks on average ({{ curve.mean.low.toFixed(1) }} to
        {{ curve.mean.high.toFixed(1) }}).
      </p>
    </template>
  </section>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 760px;
  height: auto;
  display: block;
  margin-top: 10px;
}
.row {
  margin-top: 8px;
}
.axis text {
  font-size: 13px;
  fill: var(--ink-soft);
}
.axis path {
  stroke: var(--rule);
}
.band {
  fill: color-mix(in srgb, var(--work) 34%, transparent);
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
}
.small {
  font-size: 0.88rem;
}
</style>
