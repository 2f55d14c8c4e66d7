<script setup lang="ts">
import { onShelf, type Action, type LoopState, type Shelf } from '@undercliff/core'
import { computed } from 'vue'
import { shelfFor } from '../../move/entriesFor'
import { useMoves } from '../../move/moveStore'

/** A loop that lies where loops of its kind do not: sharp in the dull box or on the bench, due on the sharp rack. */
const props = defineProps<{ state: LoopState; action: Action }>()
const moves = useMoves()
const to = computed((): Shelf | null => {
  const { at } = props.state.place
  const wanted = shelfFor({ action: props.action })
  if (wanted === 'sharpRack') return at === 'dullBox' || at === 'bench' ? wanted : null
  return at === 'sharpRack' ? wanted : null
})
const move = (shelf: Shelf): Promise<string | null> => moves.move([props.state.loopId], { to: 'shelf', shelf })
</script>

<template>
  <p v-if="to" class="row offered no-print" data-offered-move>
    <span
      >{{ to === 'sharpRack' ? 'It is sharp' : 'It is due' }}, and still
      {{ onShelf(to === 'sharpRack' ? (state.place.at === 'bench' ? 'bench' : 'dullBox') : 'sharpRack') }}.</span
    >
    <button type="button" class="act small" @click="move(to)">
      Put it {{ to === 'dullBox' ? 'into the dull box' : onShelf(to) }}
    </button>
  </p>
</template>

<style scoped>
.offered {
  justify-content: space-between;
  align-items: center;
  border-left: 5px solid var(--work);
  padding: 4px 0 4px 12px;
}
</style>
