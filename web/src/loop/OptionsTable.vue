<script setup lang="ts">
import { ACTION_WORDS, sayMinutes, sayRange, sayReason, writeLength, type Action, type LengthPreference, type Option } from '@undercliff/core'
import VerdictMark from '../parts/VerdictMark.vue'

defineProps<{ options: readonly Option[]; chosen: Action; lengths: LengthPreference }>()
</script>

<template>
  <section>
    <h2>What else could be done</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Options">
      <table>
        <thead><tr><th scope="col">Option</th><th scope="col">Time</th><th scope="col">Most taken off</th><th scope="col">Then left to the mark</th><th scope="col">Sharpenings after</th></tr></thead>
        <tbody>
          <tr v-for="option in options" :key="option.action" :class="{ chosen: option.action === chosen, cannot: !option.feasible }">
            <th scope="row"><VerdictMark :action="option.action" /> {{ ACTION_WORDS[option.action] }}<span v-if="!option.feasible" class="why">{{ option.reasons[0] ? sayReason(option.reasons[0], lengths) : '' }}</span></th>
            <template v-if="option.action === 'retire'"><td colspan="4" class="soft">a new loop takes its place</td></template>
            <template v-else>
              <td>{{ sayMinutes(option.minutes) || 'none' }}</td>
              <td class="figures">{{ option.deepestUm > 0 ? writeLength(option.deepestUm, lengths) : 'nothing' }}</td>
              <td class="figures">{{ writeLength(Math.max(0, option.leftUm), lengths) }}</td>
              <td>{{ sayRange(option.sharpeningsLeft) }}</td>
            </template>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.scroll { overflow-x: auto; }
table { border-collapse: collapse; width: 100%; margin-top: 8px; font-size: 0.95rem; }
th, td { text-align: left; padding: 7px 10px 7px 0; border-top: 1px solid var(--rule); vertical-align: top; }
thead th { color: var(--ink-soft); font-weight: 400; font-size: 0.85rem; border: 0; }
td { white-space: nowrap; }
.chosen th { box-shadow: inset 5px 0 var(--work); padding-left: 12px; }
.cannot { color: var(--ink-soft); }
.cannot th { font-weight: 400; }
.why { display: block; font-size: 0.85rem; max-width: 34ch; }
@media (max-width: 700px) { td { white-space: normal; } th:nth-child(3), td:nth-child(3) { display: none; } }
</style>
