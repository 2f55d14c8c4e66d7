<script setup lang="ts">
import { ACTION_WORDS, tonight } from '@undercliff/core'
import { computed } from 'vue'
import { useShed } from '../remote/shedStore'
import { JOBS } from './jobs'

/** The next job of tonight's list, offered where one was just done. */
const props = defineProps<{ doneTag: string }>()
const shed = useShed()
const jobs = computed(() => tonight(shed.loops))
const next = computed(() => (jobs.value.some(({ tag }) => tag === props.doneTag) ? undefined : jobs.value[0]))
</script>

<template>
  <p v-if="next" class="row next-job no-print">
    <span>
      Next on <RouterLink :to="{ name: 'triage' }">tonight’s list</RouterLink>:
      <strong class="figures">{{ next.tag }}</strong> {{ ACTION_WORDS[next.action].toLowerCase() }},
      {{ jobs.length === 1 ? 'the last one' : `${jobs.length} to do` }}
    </span>
    <RouterLink class="act small" :to="{ name: JOBS[next.action].to ?? 'decide', params: { tag: next.tag } }">{{
      JOBS[next.action].start
    }}</RouterLink>
  </p>
</template>

<style scoped>
.next-job {
  justify-content: space-between;
  align-items: center;
  border-left: 5px solid var(--work);
  padding: 4px 0 4px 12px;
}
.act {
  text-decoration: none;
}
</style>
