<script setup lang="ts">
import {
  CUTTER_DAMAGE,
  damageDepth,
  writeLength,
  type CutterState,
  type LengthPreference,
  type LoopState,
} from '@undercliff/core'
import { nextTick, ref, watch } from 'vue'

/** The loop map for a thumb: every cutter in order, each wide enough to hit; the one in hand stands in the middle. */
const props = defineProps<{
  state: LoopState
  lengths: LengthPreference
  selected?: number | undefined
  run?: readonly number[] | undefined
}>()
const emit = defineEmits<{ select: [number] }>()
const root = ref<HTMLElement | null>(null)
const partLeft = ({ length }: CutterState): number => {
  const { newLengthUm, markLengthUm } = props.state.spec
  return Math.min(1, Math.max(0.04, (length.um - markLengthUm) / Math.max(1, newLengthUm - markLengthUm)))
}
const hurt = ({ damage }: CutterState): 'sound' | 'minor' | 'deep' => {
  if (damage.length === 0) return 'sound'
  const { knownUm, unknown } = damageDepth(damage)
  const grave = damage.some(({ kind }) => ['ends', 'unfit'].includes(CUTTER_DAMAGE[kind].effect))
  return knownUm > 0 || unknown || grave ? 'deep' : 'minor'
}
const HURT_WORDS = { sound: '', minor: ', something noted', deep: ', damaged' } as const
const said = (cutter: CutterState): string =>
  `Cutter ${cutter.number} ${cutter.hand}, ${writeLength(cutter.length.um, props.lengths)}${HURT_WORDS[hurt(cutter)]}`
watch(
  () => props.selected,
  async (number) => {
    if (number === undefined) return
    await nextTick()
    const strip = root.value
    const chosen = strip?.querySelector<HTMLElement>(`[data-strip="${number}"]`)
    if (strip && chosen) strip.scrollLeft = chosen.offsetLeft - strip.clientWidth / 2 + chosen.offsetWidth / 2
  },
  { immediate: true },
)
</script>

<template>
  <div ref="root" class="strip" role="group" aria-label="Pick a cutter">
    <button
      v-for="cutter in state.cutters"
      :key="cutter.number"
      type="button"
      class="one"
      :class="[cutter.hand, hurt(cutter), cutter.length.known, { met: run?.includes(cutter.number) }]"
      :data-strip="cutter.number"
      :aria-label="said(cutter)"
      :aria-pressed="run === undefined ? cutter.number === selected : run.includes(cutter.number)"
      :tabindex="cutter.number === (selected ?? 1) ? 0 : -1"
      @click="emit('select', cutter.number)"
    >
      <span class="side"
        ><svg class="left" viewBox="0 0 10 20" preserveAspectRatio="none" aria-hidden="true">
          <rect
            v-if="cutter.hand === 'left'"
            x="1"
            width="8"
            :y="20 - 20 * partLeft(cutter)"
            :height="20 * partLeft(cutter)"
          /></svg></span
      ><span class="figures number">{{ cutter.number }}</span
      ><span class="side"
        ><svg class="right" viewBox="0 0 10 20" preserveAspectRatio="none" aria-hidden="true">
          <rect v-if="cutter.hand === 'right'" x="1" width="8" y="0" :height="20 * partLeft(cutter)" /></svg
      ></span>
    </button>
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  display: flex;
  overflow-x: auto;
  border-block: 1px solid var(--rule-strong);
  background: var(--sheet);
}
.one {
  flex: 0 0 48px;
  display: grid;
  grid-template-rows: 18px auto 18px;
  justify-items: center;
  padding: 3px 0;
  border: 0;
  border-right: 1px solid var(--rule);
  background: none;
  color: var(--ink);
  font: 700 0.95rem var(--text);
}
.one[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
.side {
  display: block;
  width: 20px;
  height: 18px;
}
svg {
  width: 100%;
  height: 100%;
}
rect {
  fill: var(--steel);
}
.one[aria-pressed='true'] rect {
  fill: var(--steel-light);
}
.deep rect,
.one[aria-pressed='true'].deep rect {
  fill: var(--stop);
}
.deep .number::after {
  content: '×';
}
.minor .number::after {
  content: '·';
}
@media (forced-colors: active) {
  .one[aria-pressed='true'] {
    outline: 3px solid Highlight;
    outline-offset: -3px;
  }
}
</style>
