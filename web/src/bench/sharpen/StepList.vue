<script setup lang="ts">
import { minutesByStep, sayStep } from '@undercliff/core'
import { computed } from 'vue'
import type { SharpeningHere } from './sharpening'

/** The steps of a sharpening, how far it has come, and how long each took. */
const props = defineProps<{ here: SharpeningHere }>()
const { plan, walk, events } = props.here
const byStep = computed(() => (plan.value === null ? null : minutesByStep(plan.value, events.value)))
const took = computed(() => [...(byStep.value?.values() ?? [])].reduce((sum, one) => sum + one, 0))
const steps = computed(() =>
  (plan.value?.steps ?? []).map((one, i) => ({
    ...one,
    took: byStep.value?.get(one.id) ?? 0,
    name: plan.value === null ? '' : sayStep(one.id, one.hand, plan.value).name,
    done: i < (walk.value?.at ?? 0),
    here: i === walk.value?.at,
  })),
)
</script>

<template>
  <section v-if="plan" aria-labelledby="steps-title">
    <h2 id="steps-title">Steps</h2>
    <ol>
      <li
        v-for="one in steps"
        :key="one.id"
        :class="{ done: one.done, here: one.here }"
        :aria-current="one.here ? 'step' : undefined"
      >
        {{ one.name }}<span v-if="one.took >= 0.5" class="soft figures"> {{ Math.round(one.took) }} min</span>
      </li>
    </ol>
    <p v-if="took >= 0.5" class="soft figures">
      {{ Math.round(took) }} min so far, about {{ Math.round(plan.minutes.likely) }} planned
    </p>
  </section>
</template>

<style scoped>
ol {
  margin: 6px 0 0;
  padding-left: 1.6em;
}
li.done {
  color: var(--ink-soft);
}
li.done::after {
  content: ' ✓';
}
li.here {
  font-weight: 700;
}
</style>
