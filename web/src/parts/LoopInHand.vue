<script setup lang="ts">
import {
  ACTION_WORDS,
  CUTTER_TYPE_NAMES,
  decide,
  fileFor,
  PITCH_PROFILES,
  sayFile,
  sayReason,
  specLine,
  summarise,
  toothSign,
  topPlateAngleFor,
  nameFile,
  writeLength,
  writeMm,
  type LoopState,
} from '@undercliff/core'
import { computed } from 'vue'
import { useShed } from '../remote/shedStore'
import ToothSign from './ToothSign.vue'
import VerdictMark from './VerdictMark.vue'

/** The loop on the bench while something is logged: what it is and the tools it takes. */
const props = defineProps<{ state: LoopState }>()
const shed = useShed()
const rules = computed(() => shed.rules)
const verdict = computed(() => decide(props.state, rules.value))
const file = computed(() =>
  fileFor(props.state.spec, summarise(props.state).shortest.length.um, rules.value.fileSchool),
)
const wheel = computed(() => {
  const [thin, thick] = PITCH_PROFILES[props.state.spec.pitchClass].wheelUm.value
  return thin === thick ? writeMm(thin, 1) : `${thin / 1000} to ${writeMm(thick, 1)}`
})
</script>

<template>
  <aside class="sheet inhand">
    <ToothSign class="sign" :tooth="toothSign(state, rules)" :retired="state.retired !== null" />
    <p><strong>{{ specLine(state.spec) }}</strong><br />{{ CUTTER_TYPE_NAMES[state.spec.cutterType] }}</p>
    <dl class="fact-list">
      <dt>File</dt>
      <dd>{{ nameFile(file) }}</dd>
      <dt>Wheel</dt>
      <dd>{{ wheel }}</dd>
      <dt>Top plate</dt>
      <dd>{{ topPlateAngleFor(state.spec, rules.chiselAngleDeg) }}°</dd>
      <dt>Gauges</dt>
      <dd>{{ writeLength(state.spec.settingUm, 'both') }}</dd>
    </dl>
    <p>
      <strong><VerdictMark :action="verdict.action" /> {{ ACTION_WORDS[verdict.action] }}</strong><br />{{
        verdict.reasons[0] ? sayReason(verdict.reasons[0], shed.figures) : ''
      }}
    </p>
    <p class="soft small">File: {{ sayFile(file) }}</p>
    <p class="soft small">From the trade's common practice; the box or the maker's sheet wins.</p>
  </aside>
</template>

<style scoped>
.inhand {
  display: grid;
  gap: 12px;
  align-content: start;
}
.sign {
  max-width: 200px;
}
.small {
  font-size: 0.85rem;
}
@media (max-width: 900px) {
  .inhand {
    display: none;
  }
}
</style>
