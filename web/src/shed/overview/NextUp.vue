<script setup lang="ts">
import { ACTION_WORDS, sayMinutes, sayReason, type LoopCard } from '@undercliff/core'
import { computed } from 'vue'
import { useShed } from '../../remote/shedStore'
import ToothSign from '../../parts/ToothSign.vue'
import VerdictMark from '../../parts/VerdictMark.vue'

const SHOWN = 3
const shed = useShed()
const due = computed(() => shed.due)
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
        <RouterLink class="all" :to="{ name: 'triage' }"
          >Go through them all, about {{ Math.round(minutes) }} minutes</RouterLink
        >
      </template>
    </h1>
    <ol>
      <li v-for="(loop, i) in shown" :key="loop.loopId">
        <ToothSign class="sign" :tooth="loop.tooth" />
        <div class="what">
          <RouterLink class="go" :class="{ first: i === 0 }" :to="{ name: 'loop', params: { tag: loop.tag } }"
            ><VerdictMark :action="loop.action" /> {{ ACTION_WORDS[loop.action] }}
            <span class="figures">{{ loop.tag }}</span></RouterLink
          >
          <span class="soft where"
            >{{ where(loop) }}{{ sayMinutes(loop.minutes) ? `, ${sayMinutes(loop.minutes)}` : '' }}</span
          >
          <p>{{ loop.reason ? sayReason(loop.reason, shed.figures) : '' }}</p>
        </div>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.next {
  padding: 0 0 10px;
}
.all {
  font-size: 1rem;
  font-weight: 700;
  margin-left: 10px;
  letter-spacing: 0;
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  text-underline-offset: 4px;
}
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  border-block: 1px solid var(--rule-strong);
}
li {
  display: grid;
  grid-template-columns: 76px 1fr;
  gap: 12px;
  align-items: start;
  padding: 10px 14px;
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
  width: 76px;
}
/* The whole block is the target; the words are the link. */
.go {
  font-weight: 700;
  font-size: 1.05rem;
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
  padding: 4px 10px;
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
  display: block;
  font-size: 0.9rem;
  padding-top: 4px;
}
.what p {
  font-size: 0.92rem;
  line-height: 1.3;
}
@media (max-width: 900px) {
  ol {
    grid-template-columns: 1fr;
  }
  li {
    border-left: 0;
    padding-inline: 0;
    border-top: 1px solid var(--rule);
    grid-template-columns: 72px 1fr;
  }
  li:first-child {
    border-top: 0;
  }
  .sign {
    width: 72px;
  }
  .all {
    display: block;
    margin: 2px 0 0;
  }
}
</style>
