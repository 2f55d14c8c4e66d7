<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { usePageDrafts } from '../../parts/draft'

/** The foot of every form that logs something: what is wrong, saving (always in reach) and leaving it. */
const props = defineProps<{
  tag: string
  /** What the button says. */
  save: string
  wrong: string
  busy: boolean
  /** It cannot simply be done again. */
  grave?: boolean
}>()
const router = useRouter()
const alert = ref<HTMLElement | null>(null)
watch(
  () => props.wrong,
  async (wrong) => {
    if (wrong === '') return
    await nextTick()
    alert.value?.focus()
  },
)
const drafts = usePageDrafts()
function throwAway(again: boolean): void {
  for (const end of [...drafts.ends]) end(again)
  drafts.restored.value = false
}
const leave = (): void => {
  throwAway(false)
  void router.push({ name: 'loop', params: { tag: props.tag } })
}
onKeyStroke('Escape', (event) => {
  // A list or a panel that is open closes first.
  if (event.defaultPrevented || document.querySelector('[role=dialog]') !== null) return
  leave()
})
</script>

<template>
  <p v-if="drafts.restored.value" class="row kept">
    <span class="soft">As you left it before it was logged.</span>
    <button type="button" class="act small" @click="throwAway(true)">Begin again</button>
  </p>
  <p v-if="wrong" ref="alert" class="stop-text" role="alert" tabindex="-1">{{ wrong }}</p>
  <div class="log-foot">
    <button type="submit" class="act save" :class="grave ? 'grave' : 'next'" :disabled="busy">{{ save }}</button>
    <button type="button" class="act" @click="leave">Cancel <kbd class="keys-only">Esc</kbd></button>
  </div>
</template>

<style scoped>
.kept {
  align-items: center;
}
.log-foot {
  position: sticky;
  bottom: calc(var(--foot) + var(--notice));
  z-index: 3;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  padding: 8px 0;
  background: inherit;
}
</style>
