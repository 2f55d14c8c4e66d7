<script setup lang="ts">
import { ACTION_WORDS, sayMinutes, sayReason, type LengthPreference, type Verdict } from '@undercliff/core'
import { computed } from 'vue'
import VerdictMark from '../parts/VerdictMark.vue'

const props = defineProps<{ verdict: Verdict; lengths: LengthPreference; short?: boolean }>()
const SHOWN = 3
const reasons = computed(() => props.verdict.reasons.slice(0, SHOWN))
const more = computed(() => props.verdict.reasons.length - reasons.value.length)
</script>

<template>
  <section class="verdict" :class="{ unfit: !verdict.fitForUse }" aria-live="polite" aria-label="Verdict">
    <h2>
      <VerdictMark :action="verdict.action" />
      {{ ACTION_WORDS[verdict.action] }}<template v-for="also in verdict.also" :key="also"> and {{ ACTION_WORDS[also].toLowerCase() }}</template>
    </h2>
    <p v-if="sayMinutes(verdict.minutes)" class="minutes">{{ sayMinutes(verdict.minutes) }} <span class="soft">({{ Math.round(verdict.minutes.low) }} to {{ Math.round(verdict.minutes.high) }})</span></p>
    <ul>
      <li v-for="(reason, i) in reasons" :key="i">{{ sayReason(reason, lengths) }}</li>
      <li v-if="more > 0 && !short" class="soft">and {{ more }} more of the kind</li>
    </ul>
    <p v-if="!verdict.fitForUse" class="caution grave">Keep it off the saws until this is settled. The chain's and saw's manuals, local rules and trained people decide.</p>
  </section>
</template>

<style scoped>
.verdict h2 { font-size: 1.7rem; }
.minutes { font-weight: 700; margin-top: 2px; }
ul { margin: 8px 0; padding-left: 1.1em; }
.unfit h2 { color: var(--stop); }
</style>
