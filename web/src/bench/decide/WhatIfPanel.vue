<script setup lang="ts">
import {
  ACTION_WORDS,
  actionInWords,
  damageDepth,
  loopPriceMinor,
  writeLength,
  writeMoney,
  type Action,
  type Figures,
  type HouseRules,
  type LoopState,
} from '@undercliff/core'
import { computed } from 'vue'
import VerdictMark from '../../parts/VerdictMark.vue'
import { asItIs, type WhatIf } from './whatIf'

/** Turns a price, a depth or the tanks, and says what the verdict would be. Writes nothing. */
const props = defineProps<{
  state: LoopState
  rules: HouseRules
  turned: WhatIf
  would: Action
  advised: Action
  figures: Figures
}>()
const emit = defineEmits<{ turn: [WhatIf] }>()
const still = computed(() => asItIs(props.state, props.rules))
const deepest = computed(() => Math.max(0, ...props.state.cutters.map(({ damage }) => damageDepth(damage).knownUm)))
const changed = computed(() =>
  (Object.keys(still.value) as (keyof WhatIf)[]).some((key) => still.value[key] !== props.turned[key]),
)
const turn = (key: keyof WhatIf, event: Event): void => {
  emit('turn', { ...props.turned, [key]: Number((event.target as HTMLInputElement).value) })
}
const price = computed(() => loopPriceMinor(props.state.spec, props.rules))
const money = (minor: number): string => writeMoney(minor, props.figures.currency)
</script>

<template>
  <section aria-labelledby="whatif-title">
    <h2 id="whatif-title">
      What if <button v-if="changed" type="button" class="act small" @click="emit('turn', still)">As it is</button>
    </h2>
    <p class="would" role="status">
      <VerdictMark :action="would" /> <strong>{{ ACTION_WORDS[would] }}</strong>{{ ' ' }}
      <span class="soft">{{
        would === advised ? (changed ? 'still' : 'as things stand') : `instead of ${actionInWords(advised)}`
      }}</span>
    </p>
    <div class="slider">
      <label for="what-loop">A new loop costs</label
      ><output class="figures" for="what-loop">{{ money(turned.loopPriceMinor) }}</output
      ><input
        id="what-loop"
        type="range"
        :min="0"
        :max="Math.max(6000, price * 2)"
        :step="50"
        :value="turned.loopPriceMinor"
        :aria-valuetext="money(turned.loopPriceMinor)"
        @input="turn('loopPriceMinor', $event)"
      />
    </div>
    <div class="slider">
      <label for="what-labour">An hour of work costs</label
      ><output class="figures" for="what-labour">{{ money(turned.labourPerHourMinor) }}</output
      ><input
        id="what-labour"
        type="range"
        :min="0"
        :max="Math.max(12000, rules.labourPerHourMinor * 2)"
        :step="100"
        :value="turned.labourPerHourMinor"
        :aria-valuetext="`${money(turned.labourPerHourMinor)} an hour`"
        @input="turn('labourPerHourMinor', $event)"
      />
    </div>
    <div v-if="deepest > 0" class="slider">
      <label for="what-depth">The deepest damage is</label
      ><output class="figures" for="what-depth">{{
        writeLength(Math.max(50, deepest + turned.deeperUm), figures.lengths)
      }}</output
      ><input
        id="what-depth"
        type="range"
        :min="50 - deepest"
        :max="Math.max(2000, deepest)"
        :step="50"
        :value="turned.deeperUm"
        :aria-valuetext="writeLength(Math.max(50, deepest + turned.deeperUm), figures.lengths)"
        @input="turn('deeperUm', $event)"
      />
    </div>
    <div class="slider">
      <label for="what-tanks">Tanks since it was sharpened</label
      ><output class="figures" for="what-tanks">{{ turned.tanks }}</output
      ><input
        id="what-tanks"
        type="range"
        min="0"
        max="12"
        step="0.5"
        :value="turned.tanks"
        :aria-valuetext="`${turned.tanks} tanks`"
        @input="turn('tanks', $event)"
      />
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}
h2 {
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: var(--target);
  margin: -12px 0;
}
.would {
  font-size: 1.1rem;
  border-left: 6px solid var(--work);
  padding: 4px 10px;
}
.slider {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 10px;
  font-size: 0.95rem;
}
output {
  font-weight: 700;
}
input {
  grid-column: 1 / 3;
  width: 100%;
  height: 34px;
  accent-color: var(--ink);
  margin: 0;
  cursor: pointer;
}
</style>
