<script setup lang="ts">
import { setUpRows, TOOL_NAMES, type Figures, type SetUp, type SharpeningTool } from '@undercliff/core'
import { computed } from 'vue'

/** How a tool is set up for this loop at its present wear, with the cautions that belong to it. */
const props = defineProps<{ tool: SharpeningTool; setUp: SetUp; figures: Figures }>()
const rows = computed(() => setUpRows(props.setUp, props.figures))
const wheel = computed(() => props.setUp.with === 'wheel' || props.setUp.with === 'stone')
</script>

<template>
  <section aria-labelledby="set-up-title">
    <h2 id="set-up-title">Set-up <span class="soft">{{ TOOL_NAMES[tool] }}</span></h2>
    <dl>
      <template v-for="[name, value] in rows" :key="name"
        ><dt>{{ name }}</dt>
        <dd>{{ value }}</dd></template
      >
    </dl>
    <p v-if="wheel" class="caution grave">
      Look the wheel over and ring it before it is mounted. The greatest speed marked on it must not be below the
      spindle’s. Guard fitted, eyes covered, out of the plane of the wheel. The grinder’s manual comes first.
    </p>
    <p v-else class="caution">
      Engine off and cold, or battery out. Gloves on. Heights are worked out, not measured: look at the cutter.
    </p>
  </section>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 3px 14px;
  margin: 8px 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  font-weight: 700;
}
</style>
