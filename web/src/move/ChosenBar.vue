<script setup lang="ts">
import { useRouter } from 'vue-router'
import { useMoves } from './moveStore'

/** What can be done with the loops that are chosen, at the foot of the screen. */
const moves = useMoves()
const router = useRouter()
const print = (): void => {
  void router.push({ path: '/tags', query: { only: 'chosen' } })
}
</script>

<template>
  <div v-if="moves.choosing || moves.chosen.size > 0" class="chosen no-print" role="status">
    <strong>{{
      moves.chosen.size === 0
        ? 'Tap the loops'
        : moves.chosen.size === 1
          ? '1 loop chosen'
          : `${moves.chosen.size} loops chosen`
    }}</strong>
    <button v-if="moves.chosen.size > 0" type="button" class="act next" @click="moves.ask([...moves.chosen])">
      Move <kbd class="keys-only">p</kbd>
    </button>
    <button v-if="moves.chosen.size > 0" type="button" class="act" @click="print">Tags</button>
    <button type="button" class="act" @click="moves.clear()">Done</button>
  </div>
</template>

<style scoped>
.chosen {
  position: fixed;
  inset: auto 0 0;
  z-index: 20;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  justify-content: center;
  padding: 10px 12px;
  background: var(--sheet);
  border-top: 3px double var(--rule-strong);
}
</style>
