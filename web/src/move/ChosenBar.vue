<script setup lang="ts">
import { useRouter } from 'vue-router'
import { useMoves } from './moveStore'
import { useChosen } from '../parts/chosenStore'

/** What can be done with the loops that are chosen, at the foot of the screen. */
const moves = useMoves()
const chosen = useChosen()
const router = useRouter()
const print = (): void => {
  void router.push({ name: 'tags', query: { only: 'chosen' } })
}
</script>

<template>
  <div v-if="chosen.choosing || chosen.ids.size > 0" class="chosen no-print" role="status">
    <strong>{{
      chosen.ids.size === 0
        ? 'Tap the loops'
        : chosen.ids.size === 1
          ? '1 loop chosen'
          : `${chosen.ids.size} loops chosen`
    }}</strong>
    <button v-if="chosen.ids.size > 0" type="button" class="act next" @click="moves.ask([...chosen.ids])">
      Move <kbd class="keys-only">p</kbd>
    </button>
    <button v-if="chosen.ids.size > 0" type="button" class="act" @click="print">Tags</button>
    <button type="button" class="act" @click="chosen.clear()">Done</button>
  </div>
</template>

<style scoped>
.chosen {
  position: fixed;
  inset: auto 0 var(--foot);
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
