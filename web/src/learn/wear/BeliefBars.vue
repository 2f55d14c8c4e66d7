<script setup lang="ts">
import { writeLength, type GroupBelief } from '@undercliff/core'
import { scaleLinear } from 'd3-scale'
import { computed } from 'vue'
import { useShed } from '../../remote/shedStore'

/** What is drawn of a group. */
type Bar = Pick<GroupBelief, 'group' | 'mean' | 'low' | 'high' | 'own'>

/** Beliefs about a mean, one line a group: the middle and the range it may lie in. Lengths unless told otherwise. */
const props = defineProps<{
  title: string
  groups: readonly Bar[]
  name: (group: string) => string
  say?: (value: number) => string
}>()
const shed = useShed()
const said = (value: number): string => props.say?.(value) ?? writeLength(Math.round(value), shed.lengths)
const W = 200
const x = computed(() =>
  scaleLinear([0, Math.max(props.say === undefined ? 50 : 0, ...props.groups.map(({ high }) => high))], [0, W]),
)
</script>

<template>
  <div v-if="groups.length > 0">
    <h3>{{ title }}</h3>
    <ul>
      <li v-for="{ group, mean, low, high, own } in groups" :key="group">
        <span>{{ name(group) }}</span>
        <svg :viewBox="`0 0 ${W} 18`" preserveAspectRatio="none" aria-hidden="true">
          <rect class="range" :x="x(Math.max(0, low))" y="4" :width="x(high) - x(Math.max(0, low))" height="10" />
          <rect class="middle" :x="x(mean) - 1.5" y="1" width="3" height="16" />
        </svg>
        <span class="figures"
          >{{ said(mean) }}, {{ Math.round(own) }}×
          <small class="soft">{{ said(Math.max(0, low)) }} to {{ said(high) }}</small></span
        >
      </li>
    </ul>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 10em) minmax(60px, 1fr) 11.5em;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding: 3px 0;
  font-size: 0.92rem;
}
li > :last-child {
  text-align: right;
}
small {
  display: block;
}
svg {
  width: 100%;
  height: 18px;
  display: block;
}
.range {
  fill: var(--steel-light);
}
.middle {
  fill: var(--ink);
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr) max-content;
    gap: 2px 10px;
  }
  svg {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
