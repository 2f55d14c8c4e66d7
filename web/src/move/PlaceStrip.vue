<script setup lang="ts">
import { SHELF_NAMES, SHELVES, type LoopCard, type Shelf } from '@undercliff/core'
import { computed } from 'vue'
import { useMoves } from './moveStore'
import { useChosen } from '../parts/chosenStore'

/** The places off the saws: each filters the shed, and takes loops that are dropped on it. */
const props = defineProps<{ loops: readonly LoopCard[]; only: string }>()
const emit = defineEmits<{ choose: [string] }>()
const moves = useMoves()
const chosen = useChosen()
const counts = computed(() => {
  const counted = new Map<string, number>()
  for (const { place } of props.loops) counted.set(place.at, (counted.get(place.at) ?? 0) + 1)
  return counted
})
const drop = (event: DragEvent, shelf: Shelf): void => {
  const loopId = event.dataTransfer?.getData('text/undercliff-loop') ?? ''
  if (loopId !== '') void moves.move(chosen.withOthers(loopId), { to: 'shelf', shelf })
}
const dropAtShop = (event: DragEvent): void => {
  const loopId = event.dataTransfer?.getData('text/undercliff-loop') ?? ''
  if (loopId !== '') moves.ask(chosen.withOthers(loopId))
}
</script>

<template>
  <div class="places" role="group" aria-label="Places">
    <button
      v-for="shelf in SHELVES"
      :key="shelf"
      type="button"
      class="act small place"
      :aria-pressed="only === shelf"
      :data-place="shelf"
      @click="emit('choose', shelf)"
      @dragover.prevent
      @drop.prevent="drop($event, shelf)"
    >
      {{ SHELF_NAMES[shelf] }} <span class="figures">{{ counts.get(shelf) ?? 0 }}</span>
    </button>
    <button
      type="button"
      class="act small place"
      :aria-pressed="only === 'shop'"
      data-place="shop"
      @click="emit('choose', 'shop')"
      @dragover.prevent
      @drop.prevent="dropAtShop"
    >
      shop <span class="figures">{{ counts.get('shop') ?? 0 }}</span>
    </button>
  </div>
</template>

<style scoped>
.places {
  display: flex;
  gap: 5px;
}
.place {
  padding: 4px 9px;
  gap: 5px;
  font-size: 0.84rem;
  white-space: nowrap;
  border-width: 1px;
  border-style: dashed;
}
@media (max-width: 900px) {
  .places {
    flex-wrap: wrap;
  }
}
.place[aria-pressed='true'] {
  border-style: solid;
}
</style>
