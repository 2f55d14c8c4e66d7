<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import Panel from '../../parts/Panel.vue'
import { titleOf } from '../places'
import KeyList from './KeyList.vue'
import { helpOf } from './pages'

/** The help of the screen one stands on, and its keys. */
const emit = defineEmits<{ close: [] }>()
const route = useRoute()
const title = computed(() => titleOf(route))
const page = computed(() => helpOf(route.name))
</script>

<template>
  <Panel :title="title" :width="760" @close="emit('close')">
    <!-- eslint-disable-next-line vue/no-v-html -- pages of our own docs, built in -->
    <div v-if="page !== null" class="page-help" v-html="page" />
    <p>
      <RouterLink class="act small" :to="{ name: 'glossary' }" @click="emit('close')">Words of the trade</RouterLink>
    </p>
    <section class="keys-only" aria-label="Keys"><KeyList /></section>
  </Panel>
</template>

<style scoped>
.page-help :deep(p),
.page-help :deep(ul) {
  margin: 0 0 10px;
}
.page-help :deep(code) {
  font: 500 0.85em/1 var(--figures);
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  padding: 2px 6px;
}
</style>
