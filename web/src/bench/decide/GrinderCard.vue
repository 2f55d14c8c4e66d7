<script setup lang="ts">
import { writeLength, writeMm, type Figures, type GrinderSettings } from '@undercliff/core'
import { computed } from 'vue'

/** How the grinder is set up for this loop, with the cautions that belong to it. */
const props = defineProps<{ grinder: GrinderSettings; figures: Figures }>()
const wheel = computed(() => {
  const [thin, thick] = props.grinder.wheelUm
  return thin === thick ? writeMm(thin, 1) : `${thin / 1000} to ${writeMm(thick, 1)}`
})
const gauges = computed(() => {
  const { wheelUm, headDeg, settingUm } = props.grinder.gauges
  const head = `head ${headDeg.join(' to ')}°`
  const down = writeLength(settingUm, props.figures.lengths)
  return `wheel about ${writeMm(wheelUm, 0)}, clamp 0°, ${head}, down to ${down}`
})
const rows = computed(() => [
  ['Wheel', wheel.value],
  ...(props.grinder.squareGround === null
    ? []
    : [
        [
          'Wheel shape',
          `dressed to the corner; side plate leaning ${props.grinder.squareGround.sidePlateLeanDeg}° forward`,
        ],
      ]),
  ['Clamp', `${props.grinder.clampDeg}°, then ${props.grinder.clampDeg}° the other way`],
  ['Head', `${props.grinder.headTiltDeg.join('° or ')}°, by the chain’s sheet`],
  ['Table', `${props.grinder.downAngleDeg}°`],
  ['Stop', `${writeLength(props.grinder.stopUm, props.figures.lengths)} on the worst cutter; check it after turning`],
  ['Gauges', gauges.value],
])
</script>

<template>
  <section aria-labelledby="grinder-title">
    <h2 id="grinder-title">Set-up for the grinder</h2>
    <dl>
      <template v-for="[name, value] in rows" :key="name"
        ><dt>{{ name }}</dt>
        <dd>{{ value }}</dd></template
      >
    </dl>
    <p class="caution grave">
      Look the wheel over and ring it before it is mounted. The greatest speed marked on it must not be below the
      spindle’s. Guard fitted, eyes covered, out of the plane of the wheel. The grinder’s manual comes first.
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
