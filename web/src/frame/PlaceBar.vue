<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isTyping } from '../parts/typing'
import { PLACES, screenOf } from './places'

/** The places of the working day: a quiet bar at a desk, at the foot of a phone within the thumb's reach. */
const route = useRoute()
const router = useRouter()
const here = computed(() => screenOf(route.name)?.place)
onKeyStroke(
  PLACES.map(({ key }) => key),
  (event) => {
    const place = PLACES.find(({ key }) => key === event.key)
    if (place === undefined || !event.shiftKey || isTyping(event)) return
    event.preventDefault()
    void router.push({ name: place.opens })
  },
)
</script>

<template>
  <nav class="places" aria-label="Places">
    <RouterLink
      v-for="place in PLACES"
      :key="place.id"
      class="place"
      :class="{ here: here === place.id }"
      :to="{ name: place.opens }"
      :aria-current="here === place.id ? 'true' : undefined"
      :aria-keyshortcuts="`Shift+${place.key}`"
      :title="`Shift ${place.key}`"
      >{{ place.name }}</RouterLink
    >
  </nav>
</template>

<style scoped>
.places {
  display: flex;
  gap: 2px;
}
.place {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-height: var(--target);
  padding: 4px 14px;
  text-decoration: none;
  color: var(--ink-soft);
  font-weight: 700;
  border-block: 4px solid transparent;
}
.place:hover {
  color: var(--ink);
}
/* Told by its bar as well as by its ink. */
.here {
  color: var(--ink);
  border-bottom-color: var(--ink);
}
@media (max-height: 500px) {
  .place {
    padding: 2px 8px;
  }
}
@media (max-width: 700px) {
  .places {
    position: fixed;
    inset: auto 0 0;
    z-index: 15;
    gap: 0;
    background: var(--sheet);
    border-top: 2px solid var(--rule-strong);
    padding-bottom: env(safe-area-inset-bottom);
  }
  .place {
    flex: 1;
    min-height: 56px;
    padding: 4px 2px;
    border-top-width: 5px;
  }
  .here {
    border-bottom-color: transparent;
    border-top-color: var(--ink);
  }
}
</style>
