<script setup lang="ts">
import type { Saw } from '@undercliff/contract'
import { fitCheck, sayDueBriefly, type LoopCard } from '@undercliff/core'
import { computed, ref } from 'vue'
import { useMoves } from '../../move/moveStore'
import FitMark from '../../parts/FitMark.vue'
import LoopTile from '../../parts/LoopTile.vue'

/** A saw with the loop on it; loops can be dropped here. */
const props = defineProps<{ saw: Saw; spec: string; loop: LoopCard | null }>()
const moves = useMoves()
const over = ref(false)
const check = computed(() => (props.loop === null ? null : fitCheck(props.loop.spec, props.saw, props.saw)))
function drop(event: DragEvent): void {
  over.value = false
  const loopId = event.dataTransfer?.getData('text/undercliff-loop') ?? ''
  if (loopId !== '' && loopId !== props.loop?.loopId) moves.ask([loopId], props.saw.id)
}
</script>

<template>
  <div
    class="pair"
    :class="{ over }"
    :data-saw="saw.nickname"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <div class="saw">
      <h2>
        <RouterLink :to="{ name: 'saw', params: { nickname: saw.nickname } }">{{ saw.nickname }}</RouterLink>
      </h2>
      <span class="soft spec">{{ spec }}</span>
      <RouterLink v-if="saw.due.length > 0" class="due" :to="{ name: 'saw', params: { nickname: saw.nickname } }">{{
        sayDueBriefly(saw.due)
      }}</RouterLink>
    </div>
    <div v-if="loop" class="on">
      <LoopTile :loop="loop" />
      <p v-if="check && check.level !== 'fits'" class="misfit" :class="check.level">
        <FitMark :level="check.level" /> {{ check.parts[0]?.reason }}
      </p>
    </div>
    <p v-else class="bare soft">No loop on it</p>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 216px 1fr;
  gap: 8px;
  align-items: center;
  border-radius: 3px;
}
.over {
  outline: 3px dashed var(--work);
}
.saw {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 8px;
  align-items: baseline;
}
.saw h2 {
  font-size: 1.1rem;
}
.saw h2 a {
  text-decoration: none;
}
.saw h2 a:hover {
  text-decoration: underline;
}
.spec {
  font-size: 0.82rem;
  white-space: nowrap;
  grid-column: 1 / 3;
  grid-row: 2;
}
.due {
  font-size: 0.8rem;
  font-weight: 700;
  border-left: 5px solid var(--work);
  padding-left: 5px;
  white-space: nowrap;
  text-decoration: none;
}
.misfit {
  font-size: 0.82rem;
  line-height: 1.25;
  padding: 2px 0;
}
.misfit.mustNot {
  color: var(--stop);
  font-weight: 700;
}
.bare {
  padding: 16px 8px;
}
@media (max-width: 900px) {
  .pair {
    grid-template-columns: 1fr;
    gap: 4px;
  }
  .saw {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
}
</style>
