<script setup lang="ts">
import { POPULATION_WORDS, TOOL_NAMES, type PaceGroup, type Population, type SharpeningTool } from '@undercliff/core'
import { computed } from 'vue'
import { useShed } from '../../remote/shedStore'
import BeliefBars from './BeliefBars.vue'

/** How long sharpenings take against the starting times: by kind of work, person and tool. */
const props = defineProps<{ groups: readonly PaceGroup[] }>()
const shed = useShed()

type Part = 'personId' | 'tool' | 'population'
const PARTS: readonly Part[] = ['personId', 'tool', 'population']
/** Groups that are told apart by one thing alone. */
const by = (part: Part) =>
  props.groups
    .filter((group) => PARTS.every((one) => (group[one] === null) === (one !== part)))
    .map(({ times, ...group }) => ({ ...group, mean: times, group: group[part] ?? '' }))
const kinds = computed(() => by('population'))
const people = computed(() => by('personId'))
const tools = computed(() => by('tool'))
const times = (value: number): string => `${value.toFixed(2)} ×`
const title = computed(() => {
  const [most] = [...kinds.value].sort((a, b) => b.own - a.own)
  if (most === undefined) return 'No sharpening was timed yet'
  const part = Math.round(Math.abs(most.mean - 1) * 100)
  const kind = POPULATION_WORDS[most.group as Population].all
  if (part < 5) return `${kind}: about as long as the starting times say`
  return `${kind}: ${part} % ${most.mean > 1 ? 'longer' : 'shorter'} than the starting times say`
})
</script>

<template>
  <section aria-labelledby="pace-title">
    <h2 id="pace-title">{{ title }}</h2>
    <p v-if="groups.length === 0" class="soft">
      A loop that is sharpened step by step is timed on the way. Minutes in verdicts are starting times until then.
    </p>
    <template v-else>
      <div class="bars">
        <BeliefBars
          title="By kind of work"
          :groups="kinds"
          :name="(kind) => POPULATION_WORDS[kind as Population].all"
          :say="times"
        />
        <BeliefBars title="By person" :groups="people" :name="shed.nameOf" :say="times" />
        <BeliefBars title="By tool" :groups="tools" :name="(tool) => TOOL_NAMES[tool as SharpeningTool]" :say="times" />
      </div>
      <p class="soft small">
        So many times the starting times; eight of ten sharpenings lie within a bar. Verdicts reckon with the kind of
        work, a sharpening step by step with its person and tool.
      </p>
    </template>
  </section>
</template>

<style scoped>
.bars {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 18px 28px;
  margin: 12px 0;
}
.small {
  font-size: 0.88rem;
}
@media (max-width: 700px) {
  .bars {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
