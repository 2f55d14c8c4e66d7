<script setup lang="ts">
import { NModal } from 'naive-ui'
import Themed from '../theme/Themed.vue'

/** A panel over the screen: trapped focus and Escape from the library, the look our own. */
defineProps<{ title: string; width?: number }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Themed>
    <NModal
      :show="true"
      preset="card"
      :closable="false"
      :bordered="false"
      :aria-label="title"
      :style="{ maxWidth: `${width ?? 720}px`, border: '2px solid var(--rule-strong)', margin: '24px auto' }"
      @update:show="emit('close')"
    >
      <div class="panel">
        <header>
          <h2>{{ title }}</h2>
          <button type="button" class="act small" @click="emit('close')">Close <kbd class="keys-only">Esc</kbd></button>
        </header>
        <slot />
      </div>
    </NModal>
  </Themed>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
header {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: center;
  border-bottom: 3px double var(--rule-strong);
  padding-bottom: 10px;
}
h2 {
  font-size: 1.35rem;
}
</style>
