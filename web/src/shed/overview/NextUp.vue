<script setup lang="ts">
import { ACTION_WORDS, briefMinutes, sayReason, tonight, type LoopCard } from '@undercliff/core'
import { computed } from 'vue'
import { JOBS } from '../../parts/jobs'
import { useShed } from '../../remote/shedStore'
import ToothSign from '../../parts/ToothSign.vue'
import VerdictMark from '../../parts/VerdictMark.vue'

const SHOWN = 3
const shed = useShed()
const due = computed(() => shed.due)
const jobs = computed(() => tonight(shed.loops))
const nextJob = computed(() => jobs.value[0])
const jobMinutes = computed(() => jobs.value.reduce((sum, loop) => sum + loop.minutes.likely, 0))
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
        {{ due.length }} {{ due.length === 1 ? 'loop needs' : 'loops need' }} you<template v-if="unfit > 0"
          >, <span class="stop-text">{{ unfit }} must not cut</span></template
        >
      </template>
    </h1>
    <ol v-if="due.length > 0">
      <li v-for="(loop, i) in shown" :key="loop.loopId">
        <ToothSign class="sign" :tooth="loop.tooth" />
        <RouterLink
          class="go"
          :class="{ first: i === 0 }"
          :to="{ name: 'loop', params: { tag: loop.tag } }"
          :title="loop.reason ? sayReason(loop.reason, shed.figures) : ''"
          ><VerdictMark :action="loop.action" /> {{ ACTION_WORDS[loop.action] }}
          <span class="figures">{{ loop.tag }}</span></RouterLink
        >
        <span class="soft where"
          >{{ where(loop) }}{{ briefMinutes(loop.minutes) ? `, ${briefMinutes(loop.minutes)}` : '' }}</span
        >
      </li>
    </ol>
    <RouterLink v-if="due.length > 0" class="all" :to="{ name: 'triage' }"
      >Go through them all, about {{ Math.round(minutes) }} minutes</RouterLink
    >
    <p v-if="nextJob" class="tonight row">
      <span
        ><strong>Tonight’s list:</strong> {{ jobs.length }} {{ jobs.length === 1 ? 'job' : 'jobs' }}, about
        {{ Math.round(jobMinutes) }} min</span
      >
      <RouterLink class="act small" :to="{ name: JOBS[nextJob.action].to ?? 'decide', params: { tag: nextJob.tag } }"
        >{{ JOBS[nextJob.action].start }}: <span class="figures">{{ nextJob.tag }}</span></RouterLink
      >
    </p>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 14px;
  align-items: center;
  padding-bottom: 6px;
}
.all {
  grid-column: 2;
  grid-row: 1;
  font-weight: 700;
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  text-underline-offset: 4px;
}
.tonight {
  grid-column: 1 / -1;
  align-items: center;
  padding-top: 4px;
}
.tonight .act {
  text-decoration: none;
}
ol {
  list-style: none;
  grid-column: 1 / 3;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  border-block: 1px solid var(--rule-strong);
}
li {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  gap: 0 10px;
  align-items: center;
  min-height: 52px;
  padding: 2px 12px;
  border-left: 1px solid var(--rule);
  position: relative;
}
li:first-child {
  border-left: 0;
  padding-left: 0;
}
li:hover {
  background: var(--sheet);
}
.sign {
  width: 52px;
  grid-row: 1 / 3;
}
/* The whole block is the target; the words are the link. */
.go {
  justify-self: start;
  font-weight: 700;
  text-decoration: none;
}
.go::after {
  content: '';
  position: absolute;
  inset: 0;
}
.go.first {
  background: var(--work);
  color: var(--work-ink);
  padding: 1px 8px;
  border-radius: 3px;
  margin-left: -4px;
}
.go.first :deep(.mark) {
  color: var(--work-ink);
}
.go.first :deep(.over) {
  stroke: var(--work);
}
.where {
  font-size: 0.88rem;
  line-height: 1.2;
}
/* In the hand it is one line that opens the queue. */
@media (max-width: 700px) {
  .next {
    grid-template-columns: minmax(0, 1fr);
    padding-bottom: 4px;
  }
  ol {
    display: none;
  }
  .all {
    grid-column: 1;
    grid-row: auto;
  }
}
</style>
