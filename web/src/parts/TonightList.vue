<script setup lang="ts">
import { ACTION_WORDS, actionInWords, briefMinutes, tonight, type LoopCard } from '@undercliff/core'
import { computed } from 'vue'
import { useShed } from '../remote/shedStore'
import { JOBS } from './jobs'
import ToothSign from './ToothSign.vue'
import VerdictMark from './VerdictMark.vue'

/** What was accepted and is still to be done, in order, each a tap from its job. */
const props = defineProps<{ most?: number }>()
const shed = useShed()
const jobs = computed(() => tonight(shed.loops))
const shown = computed(() => jobs.value.slice(0, props.most ?? jobs.value.length))
const minutes = computed(() => Math.round(jobs.value.reduce((sum, { minutes: { likely } }) => sum + likely, 0)))
const where = ({ sawId }: LoopCard): string => (sawId === null ? 'off the saws' : `on ${shed.sawName(sawId)}`)
const to = ({ tag, action }: LoopCard) => ({ name: JOBS[action].to ?? ('decide' as const), params: { tag } })
</script>

<template>
  <section v-if="jobs.length > 0" class="sheet tonight" aria-labelledby="tonight">
    <h2 id="tonight">Tonight’s list <span class="soft">{{ jobs.length }} to do, about {{ minutes }} min</span></h2>
    <ol>
      <li v-for="(loop, i) in shown" :key="loop.loopId" data-tonight>
        <span class="print-only box" aria-hidden="true" />
        <ToothSign class="sign" :tooth="loop.tooth" />
        <p>
          <RouterLink class="figures tag" :to="{ name: 'loop', params: { tag: loop.tag } }">{{ loop.tag }}</RouterLink>
          <span class="soft"> {{ where(loop) }}</span><br /><VerdictMark :action="loop.action" />
          {{ ACTION_WORDS[loop.action]
          }}<template v-for="also in loop.also" :key="also"> and {{ actionInWords(also) }}</template
          ><span class="soft">{{ briefMinutes(loop.minutes) ? `, ${briefMinutes(loop.minutes)}` : '' }}</span>
        </p>
        <RouterLink class="act no-print" :class="{ next: i === 0 }" :to="to(loop)"
          >{{ JOBS[loop.action].start }}<span class="hidden-text"> {{ loop.tag }}</span></RouterLink
        >
      </li>
    </ol>
    <RouterLink v-if="shown.length < jobs.length" class="more" :to="{ name: 'triage' }"
      >The other {{ jobs.length - shown.length }}</RouterLink
    >
  </section>
</template>

<style scoped>
h2 .soft {
  font-weight: 400;
  font-size: 0.92rem;
}
ol {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) auto;
  gap: 4px 14px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.sign {
  width: 56px;
}
.tag {
  font-weight: 700;
}
.act {
  text-decoration: none;
}
.more {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  font-weight: 700;
}
.box {
  width: 14px;
  height: 14px;
  border: 1px solid;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .sign {
    display: none;
  }
}
</style>
