<script setup lang="ts">
import { ACTION_WORDS, sayMinutes, sayReason, whatNext, type LoopCard } from '@undercliff/core'
import { computed } from 'vue'
import { useShed } from '../remote/shedStore'
import ToothSign from '../parts/ToothSign.vue'
import VerdictMark from '../parts/VerdictMark.vue'

const props = defineProps<{ loops: readonly LoopCard[] }>()
const SHOWN = 3
const shed = useShed()
const due = computed(() => whatNext(props.loops))
const shown = computed(() => due.value.slice(0, SHOWN))
const minutes = computed(() => due.value.reduce((sum, loop) => sum + loop.minutes.likely, 0))
const unfit = computed(() => due.value.filter(({ fitForUse }) => !fitForUse).length)
const where = (loop: LoopCard): string => (loop.sawId === null ? 'off the saws' : `on ${shed.sawName(loop.sawId)}`)
</script>

<template>
  <section class="next" aria-labelledby="next-title">
    <h1 id="next-title">
      <template v-if="due.length === 0">Nothing is due in the shed</template>
      <template v-else>
        {{ due.length }} {{ due.length === 1 ? 'loop needs' : 'loops need' }} you<template v-if="unfit > 0">, <span class="stop-text">{{ unfit }} must not cut</span></template>
      </template>
    </h1>
    <p v-if="due.length > 0" class="soft">About {{ Math.round(minutes) }} minutes of work in all. First of all:</p>
    <ol>
      <li v-for="(loop, i) in shown" :key="loop.loopId">
        <ToothSign class="sign" :tooth="loop.tooth" />
        <div class="what">
          <strong><VerdictMark :action="loop.action" /> {{ ACTION_WORDS[loop.action] }} <span class="figures">{{ loop.tag }}</span></strong>
          <span class="soft"> {{ where(loop) }}{{ sayMinutes(loop.minutes) ? `, ${sayMinutes(loop.minutes)}` : '' }}</span>
          <p>{{ loop.reason ? sayReason(loop.reason, shed.lengths) : '' }}</p>
        </div>
        <RouterLink class="act" :class="{ next: i === 0 }" :to="`/loops/${encodeURIComponent(loop.tag)}`">Open {{ loop.tag }}</RouterLink>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.next { padding: 6px 0 14px; }
ol { list-style: none; margin: 10px 0 0; padding: 0; display: grid; grid-template-columns: repeat(3, 1fr); gap: 0; border-block: 1px solid var(--rule-strong); }
li { display: grid; grid-template-columns: 84px 1fr; gap: 6px 14px; align-content: start; padding: 12px 16px; border-left: 1px solid var(--rule); }
li:first-child { border-left: 0; padding-left: 0; }
.sign { width: 84px; }
.what { min-height: 74px; }
.what p { font-size: 0.95rem; }
.act { grid-column: 1 / 3; align-self: end; }
@media (max-width: 900px) {
  ol { grid-template-columns: 1fr; }
  li { border-left: 0; padding-inline: 0; border-top: 1px solid var(--rule); grid-template-columns: 72px 1fr; }
  li:first-child { border-top: 0; }
  li:not(:first-child) .act { display: none; }
  .what { min-height: 0; }
  .sign { width: 72px; }
}
</style>
