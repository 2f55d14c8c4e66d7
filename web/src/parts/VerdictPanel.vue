<script setup lang="ts">
import {
  ACTION_WORDS,
  actionInWords,
  sayMinutes,
  sayReason,
  sayWayOut,
  sayWhatFollows,
  type Figures,
  type Reason,
  type Verdict,
  type WayOut,
} from '@undercliff/core'
import { computed } from 'vue'
import VerdictMark from './VerdictMark.vue'

const props = defineProps<{
  verdict: Verdict
  figures: Figures
  /** How a loop that must not cut comes back to work. */
  ways?: readonly WayOut[]
  /** A reading is held out: nobody knows then how many sharpenings are left. */
  held?: boolean
}>()
const SHOWN = 4
/** The gravest reason of each kind, and how many more there are of it. */
const kinds = computed(() => {
  const byKind = new Map<string, { first: Reason; more: number }>()
  for (const reason of props.verdict.reasons) {
    const key = `${reason.rule} ${reason.damage ?? ''}`
    const before = byKind.get(key)
    if (before === undefined) byKind.set(key, { first: reason, more: 0 })
    else before.more += 1
  }
  return [...byKind.values()]
})
const shown = computed(() => kinds.value.slice(0, SHOWN))
</script>

<template>
  <section class="verdict" :class="{ unfit: !verdict.fitForUse }" aria-live="polite" aria-label="Verdict">
    <h2>
      <VerdictMark :action="verdict.action" />
      {{ ACTION_WORDS[verdict.action]
      }}<template v-for="also in verdict.also" :key="also"> and {{ actionInWords(also) }}</template>
    </h2>
    <p v-if="sayMinutes(verdict.minutes)" class="minutes">
      {{ sayMinutes(verdict.minutes) }}
      <span class="soft">({{ Math.round(verdict.minutes.low) }} to {{ Math.round(verdict.minutes.high) }})</span>
    </p>
    <ul>
      <li v-for="{ first, more } in shown" :key="`${first.rule} ${first.damage}`">
        {{ sayReason(first, figures) }}<span v-if="more > 0" class="soft"> And {{ more }} more like it.</span>
      </li>
    </ul>
    <p v-if="!held && sayWhatFollows(verdict)" class="soft">{{ sayWhatFollows(verdict) }}</p>
    <template v-if="ways && ways.length > 0">
      <p class="out">Ways out</p>
      <ul>
        <li v-for="way in ways" :key="way.way">{{ sayWayOut(way, figures) }}</li>
      </ul>
    </template>
    <p v-if="!verdict.fitForUse" class="caution grave">
      Keep it off the saws until this is settled. The chain's and saw's manuals, local rules and trained people decide.
    </p>
  </section>
</template>

<style scoped>
.verdict h2 {
  font-size: 1.7rem;
}
.minutes {
  font-weight: 700;
  margin-top: 2px;
}
ul {
  margin: 8px 0;
  padding-left: 1.1em;
}
.out {
  font-weight: 700;
}
.unfit h2 {
  color: var(--stop);
}
</style>
