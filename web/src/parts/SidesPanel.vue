<script setup lang="ts">
import { schoolWords, UM_PER_MM, writeLength, type Figures, type HouseRules, type SideBalance } from '@undercliff/core'
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'

/** Which side is long? The difference with its interval, against what the house lets run. */
const props = defineProps<{ sides: SideBalance; rules: HouseRules; figures: Figures }>()
const W = 460
const H = 66
const length = (um: number): string => writeLength(Math.round(Math.abs(um)), props.figures.lengths)
const limit = computed(() => props.rules.sideDifferenceUm)
const reach = computed(() => {
  const { difference } = props.sides
  return Math.max(
    limit.value * 1.6,
    difference === null ? 0 : Math.max(Math.abs(difference.low), Math.abs(difference.high)) * 1.1,
  )
})
const x = computed(() => scaleLinear([-reach.value, reach.value], [10, W - 10]))
/** What it means: said only where it is sure. */
const means = computed(() => {
  const { longer, beyond, within } = props.sides
  if (beyond) return `: it pulls ${longer ?? ''}`
  return within ? ', within what the house allows' : '; whether the house allows so much is not settled'
})
/** What nobody read all round is an estimate, and reads as one. */
const about = computed(() => (props.sides.measured ? '' : 'about '))
const title = computed(() => {
  const { difference, longer, within } = props.sides
  if (difference === null) return 'Left against right is not known yet'
  if (longer !== null)
    return `The ${longer} side is ${about.value}${length(difference.difference)} longer${means.value}`
  return within ? 'The sides are even' : 'The sides may differ; the readings do not settle it'
})
const needed = computed(() => {
  const { readingsNeeded } = props.sides
  if (readingsNeeded === null)
    return 'Even with every cutter read it would not be settled: the difference lies too near the limit.'
  const { left, right } = readingsNeeded
  if (left + right === 0) return ''
  const side = (count: number, hand: string): string => (count === 0 ? '' : `${count} more ${hand}`)
  return `Measure ${[side(left, 'left'), side(right, 'right')].filter(Boolean).join(' and ')} to settle it.`
})
const interval = computed(() => {
  const { difference } = props.sides
  if (difference === null) return ''
  const [low, high] = [difference.low, difference.high].map((um) => (Math.round(um) / UM_PER_MM).toString())
  return `95 % from ${low ?? ''} to ${high ?? ''} mm, left less right.`
})
/** The interval as a line with an end at either side. */
const bars = ({ low, high }: { readonly low: number; readonly high: number }): string =>
  `M${x.value(low)} 28H${x.value(high)}M${x.value(low)} 21v14M${x.value(high)} 21v14`
</script>

<template>
  <section aria-labelledby="sides-title">
    <h2 id="sides-title">{{ title }}</h2>
    <svg v-if="sides.difference" :viewBox="`0 0 ${W} ${H}`" role="img" :aria-label="`${title}. ${interval}`">
      <rect class="within" :x="x(-limit)" y="16" :width="x(limit) - x(-limit)" height="24" />
      <path class="zero" :d="`M${x(0)} 10V46`" />
      <path class="interval" :d="bars(sides.difference)" />
      <circle :cx="x(sides.difference.difference)" cy="28" r="6" />
      <text x="10" :y="H - 4">right longer</text>
      <text :x="W - 10" :y="H - 4" text-anchor="end">left longer</text>
      <text :x="x(0)" :y="H - 4" text-anchor="middle">allowed: {{ length(limit) }}</text>
    </svg>
    <p v-if="needed">
      <strong>{{ needed }}</strong>
    </p>
    <ul v-if="sides.remedies.length > 0">
      <li
        v-for="{ school, strokes, sharpenings } in sides.remedies"
        :key="school"
        :class="{ ours: school === rules.unevenSchool }"
      >
        {{ schoolWords('uneven', school).name }}:
        {{
          sharpenings === null
            ? 'it stays until the loop is next ground'
            : sharpenings === 1
              ? `${strokes} extra strokes on each ${sides.longer} cutter, once`
              : `${strokes} extra on each ${sides.longer} cutter, for ${sharpenings} sharpenings`
        }}<span v-if="school === rules.unevenSchool" class="soft"> (house rule)</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 520px;
  height: auto;
  display: block;
  margin: 6px 0;
}
.within {
  fill: color-mix(in srgb, var(--steel-light) 55%, transparent);
}
.zero {
  stroke: var(--rule-strong);
  stroke-width: 1.5;
}
.interval {
  stroke: var(--ink);
  stroke-width: 2.5;
  fill: none;
}
circle {
  fill: var(--ink);
}
text {
  font-size: 12.5px;
  fill: var(--ink-soft);
}
ul {
  margin: 6px 0 0;
  padding-left: 1.1em;
  font-size: 0.92rem;
}
.ours {
  font-weight: 700;
}
</style>
