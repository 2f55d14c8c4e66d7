<script setup lang="ts">
import { onShelf, type Action, type LoopState, type Shelf } from '@undercliff/core'
import { computed, ref } from 'vue'
import { shelfFor } from '../../move/entriesFor'
import { useMoves } from '../../move/moveStore'

/** A loop that lies where loops of its kind do not: sharp in the dull box or on the bench, due on the sharp rack. */
const props = defineProps<{ state: LoopState; action: Action }>()
const moves = useMoves()
const refused = ref('')
const offered = computed((): { readonly from: Shelf; readonly to: Shelf } | null => {
  const { at } = props.state.place
  const to = shelfFor({ action: props.action })
  if (to === 'sharpRack') return at === 'dullBox' || at === 'bench' ? { from: at, to } : null
  return at === 'sharpRack' ? { from: at, to } : null
})
async function move(shelf: Shelf): Promise<void> {
  refused.value = (await moves.move([props.state.loopId], { to: 'shelf', shelf })) ?? ''
}
</script>

<template>
  <div v-if="offered" class="row offered no-print" data-offered-move>
    <span
      >{{ offered.to === 'sharpRack' ? 'It is sharp' : 'It has to be seen to' }}, and {{ onShelf(offered.from) }}.</span
    >
    <button type="button" class="act small" @click="move(offered.to)">
      Put it {{ offered.to === 'dullBox' ? 'into the dull box' : onShelf(offered.to) }}
    </button>
    <p v-if="refused" class="stop-text" role="alert">{{ refused }}</p>
  </div>
</template>

<style scoped>
.offered {
  justify-content: space-between;
  align-items: center;
  border-left: 5px solid var(--work);
  padding: 4px 0 4px 12px;
}
</style>
