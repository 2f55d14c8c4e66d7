<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { ref, watchEffect } from 'vue'
import { useNotices } from '../remote/notices'

const notices = useNotices()
const bar = ref<HTMLElement | null>(null)
const { height } = useElementSize(bar, { width: 0, height: 0 }, { box: 'border-box' })
/** It covers nothing: what stands at the foot of a page moves up. */
watchEffect(() => {
  const room = notices.notice === null ? 0 : height.value + 20
  document.documentElement.style.setProperty('--notice', `${room}px`)
})
async function undo(): Promise<void> {
  const { notice } = notices
  notices.clear()
  await notice?.undo?.()
}
</script>

<template>
  <div class="place no-print" role="status" aria-live="polite">
    <div v-if="notices.notice" ref="bar" class="notice">
      <span>{{ notices.notice.text }}</span>
      <button v-if="notices.notice.undo" type="button" class="act small" @click="undo">Undo</button>
    </div>
  </div>
</template>

<style scoped>
.place {
  position: fixed;
  inset: auto 0 calc(12px + var(--foot));
  display: grid;
  justify-items: center;
  pointer-events: none;
  z-index: 20;
}
.notice {
  pointer-events: auto;
  display: flex;
  gap: 16px;
  align-items: center;
  max-width: calc(100vw - 24px);
  padding: 8px 10px 8px 18px;
  border-radius: 4px;
  background: var(--ink);
  color: var(--sheet);
  font-weight: 700;
}
.notice .act {
  color: var(--sheet);
  border-color: var(--sheet);
}
</style>
