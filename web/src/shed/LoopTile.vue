<script setup lang="ts">
import { ACTION_WORDS, sayMinutes, type LoopCard } from '@undercliff/core'
import ToothSign from '../parts/ToothSign.vue'
import VerdictMark from '../parts/VerdictMark.vue'

defineProps<{ loop: LoopCard; dimmed?: boolean }>()
</script>

<template>
  <RouterLink :to="`/loops/${encodeURIComponent(loop.tag)}`" class="tile" :class="[loop.action, { dimmed, unfit: !loop.fitForUse }]" data-loop-tile>
    <ToothSign class="sign" :tooth="loop.tooth" :retired="loop.retired" />
    <span class="words">
      <strong class="tag figures">{{ loop.tag }}</strong>
      <span class="minutes figures">{{ sayMinutes(loop.minutes).replace('about ', '') }}</span>
      <span class="verdict"><VerdictMark :action="loop.action" /> {{ ACTION_WORDS[loop.action] }}</span>
    </span>
  </RouterLink>
</template>

<style scoped>
.tile { display: grid; grid-template-columns: 56px minmax(0, 1fr); gap: 6px; align-items: center; min-height: 52px; padding: 2px 8px; text-decoration: none; border: 1px solid var(--rule); border-radius: 3px; background: var(--sheet); }
.tile:hover { border-color: var(--ink); }
.sign { width: 56px; }
.words { display: grid; grid-template-columns: 1fr auto; line-height: 1.2; min-width: 0; }
.tag { font-size: 1.05rem; }
.verdict { grid-column: 1 / 3; font-size: 0.86rem; white-space: nowrap; }
.minutes { font-size: 0.85rem; color: var(--ink-soft); align-self: center; }
.tile:not(.runOn) .verdict { font-weight: 700; }
.runOn .verdict { color: var(--ink-soft); }
.unfit { border-left: 5px solid var(--stop); padding-left: 4px; }
.unfit .verdict { color: var(--stop); }
.dimmed { opacity: 0.28; }
</style>
