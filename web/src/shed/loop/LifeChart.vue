<script setup lang="ts">
import { beginWithRange, sayLearnedFrom, UM_PER_MM, writeLength, type Forecast, type LoopState } from '@undercliff/core'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { computed } from 'vue'
import { useShed } from '../../remote/shedStore'

/** When does this loop end? Shortest cutter against sharpenings, with the range to come. */
const props = defineProps<{ state: LoopState; forecast: Forecast; reserveUm: number }>()

const shed = useShed()
const W = 560
const H = 330
const M = { top: 12, right: 16, bottom: 36, left: 40 }
const spec = computed(() => props.state.spec)
const ahead = computed(() => props.forecast.sharpeningsLeft)
const now = computed(() => ({ sharpenings: props.state.sharpenings, um: props.forecast.summary.worstAfterUm }))
const floorUm = computed(() => spec.value.markLengthUm + props.reserveUm)
const last = computed(() =>
  Math.max(4, now.value.sharpenings + Math.min(ahead.value.high, Math.max(10, ahead.value.likely * 2))),
)
const x = computed(() => scaleLinear([0, last.value], [M.left, W - M.right]))
const y = computed(() => scaleLinear([spec.value.markLengthUm, spec.value.newLengthUm], [H - M.bottom, M.top]))
const path = computed(
  () =>
    line<{ sharpenings: number; shortestUm: number }>(
      (p) => x.value(p.sharpenings),
      (p) => y.value(p.shortestUm),
    )([...props.state.life]) ?? '',
)
const end = (count: number): number => x.value(Math.min(last.value, now.value.sharpenings + count))
/** Where a forecast that ends beyond the chart leaves it. */
const endY = (count: number): number => {
  const beyond = now.value.sharpenings + count - last.value
  return beyond <= 0 || count === 0
    ? y.value(floorUm.value)
    : y.value(floorUm.value + ((now.value.um - floorUm.value) * beyond) / count)
}
/** A point of a path. */
const at = (px: number, py: number): string => `${px} ${py}`
const start = computed(() => at(x.value(now.value.sharpenings), y.value(now.value.um)))
const goesTo = (count: number): string => at(end(count), endY(count))
const fan = computed(() => {
  const { low, high } = ahead.value
  return `M${start.value}L${goesTo(low)}L${at(end(high), y.value(floorUm.value))}L${goesTo(high)}Z`
})
const middle = computed(() => `M${start.value}L${goesTo(ahead.value.likely)}`)
const title = computed(() =>
  ahead.value.high === 0 ? 'No sharpening left' : `${beginWithRange(ahead.value)} sharpenings left`,
)
</script>

<template>
  <figure class="chart">
    <figcaption>
      <h2>{{ title }}</h2>
    </figcaption>
    <svg :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="`${title}. Shortest cutter against sharpenings.`">
      <g class="axis figures">
        <template v-for="tick in y.ticks(4)" :key="tick">
          <path :d="`M${M.left} ${y(tick)}H${W - M.right}`" />
          <text :x="M.left - 6" :y="y(tick) + 4" text-anchor="end">{{ tick / UM_PER_MM }}</text>
        </template>
        <text
          v-for="tick in x.ticks(6).filter(Number.isInteger)"
          :key="`x${tick}`"
          :x="x(tick)"
          :y="H - M.bottom + 18"
          text-anchor="middle"
        >
          {{ tick }}
        </text>
        <text :x="W - M.right" :y="H - 3" text-anchor="end">sharpenings</text>
        <text :x="M.left - 36" :y="M.top - 1">mm</text>
      </g>
      <path class="fan" :d="fan" />
      <path class="middle" :d="middle" />
      <path class="past" :d="path" />
      <circle
        v-for="(point, i) in state.life"
        :key="i"
        :class="point.known"
        :cx="x(point.sharpenings)"
        :cy="y(point.shortestUm)"
        :r="point.known === 'measured' ? 4.5 : 3"
      />
      <path class="floor" :d="`M${M.left} ${y(spec.markLengthUm)}H${W - M.right}`" />
      <path class="reserve" :d="`M${M.left} ${y(floorUm)}H${W - M.right}`" />
    </svg>
    <p class="soft small">
      Solid points are measured, hollow ones estimated; the fan is the range at this loop's own rate ({{
        writeLength(Math.round(forecast.removal.meanUm), shed.lengths)
      }}
      a sharpening in the mix that it gets, {{ sayLearnedFrom(forecast.removal, state) }}).
    </p>
  </figure>
</template>

<style scoped>
.chart {
  margin: 0;
}
svg {
  width: 100%;
  height: auto;
  display: block;
}
.axis text {
  font-size: 13px;
  fill: var(--ink-soft);
}
.axis path {
  stroke: var(--rule);
  stroke-width: 1;
}
.fan {
  fill: color-mix(in srgb, var(--work) 38%, transparent);
}
.middle {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
  fill: none;
}
.past {
  fill: none;
  stroke: var(--steel);
  stroke-width: 1.5;
}
.measured {
  fill: var(--ink);
}
.estimated,
.new {
  fill: var(--sheet);
  stroke: var(--steel);
  stroke-width: 1.5;
}
.floor {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.reserve {
  stroke: var(--stop);
  stroke-width: 1.2;
  stroke-dasharray: 3 3;
}
.small {
  font-size: 0.88rem;
}
</style>
