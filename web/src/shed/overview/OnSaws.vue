<script setup lang="ts">
import type { LoopCard } from '@undercliff/core'
import type { Saw } from '@undercliff/contract'
import { computed } from 'vue'
import LoopTile from '../../parts/LoopTile.vue'

/** What is on the saws now, each with what a sawyer logs of it: one tap, and another to save. */
const props = defineProps<{
  groups: readonly { readonly saws: readonly { readonly saw: Saw; readonly loop: LoopCard | null }[] }[]
}>()
const LOGS = [
  { to: 'ran', label: 'Tank' },
  { to: 'sharpened', label: 'Touched up' },
  { to: 'struck', label: 'Struck' },
] as const
const saws = computed(() => props.groups.flatMap((group) => group.saws))
</script>

<template>
  <section class="now" aria-labelledby="now-title">
    <h2 id="now-title">On the saws now</h2>
    <ul>
      <li v-for="{ saw, loop } in saws" :key="saw.id" :data-saw="saw.nickname">
        <h3>
          <RouterLink :to="{ name: 'saw', params: { nickname: saw.nickname } }">{{ saw.nickname }}</RouterLink>
        </h3>
        <template v-if="loop">
          <LoopTile :loop="loop" />
          <nav :aria-label="`Log of ${loop.tag}`">
            <RouterLink
              v-for="{ to, label } in LOGS"
              :key="to"
              class="act small"
              :to="{ name: to, params: { tag: loop.tag }, query: to === 'sharpened' ? { as: 'touchUp' } : {} }"
              >{{ label }}</RouterLink
            >
            <RouterLink class="act small" :to="{ name: 'saw', params: { nickname: saw.nickname }, hash: '#others' }"
              >Swap</RouterLink
            >
          </nav>
        </template>
        <p v-else class="soft">No loop on it</p>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.now {
  margin-bottom: 18px;
}
h2 {
  margin-bottom: 4px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 2px solid var(--rule-strong);
}
li {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  align-items: center;
  gap: 4px 6px;
  padding: 6px 0 8px;
  border-bottom: 1px solid var(--rule);
}
h3 a {
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  text-decoration: none;
}
nav {
  grid-column: 1 / 3;
  display: grid;
  grid-template-columns: 1fr auto 1fr 1fr;
  gap: 6px;
}
nav .act {
  min-height: 56px;
  padding: 6px 8px;
}
</style>
