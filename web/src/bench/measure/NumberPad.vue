<script setup lang="ts">
/** Figures for a thumb in a glove: nothing of the phone's own keyboard comes up over the map. */
defineProps<{ enter: string }>()
const emit = defineEmits<{ type: [key: string]; erase: []; enter: [] }>()
const ROWS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'] as const
</script>

<template>
  <div class="pad" role="group" aria-label="Number pad">
    <button
      v-for="key in ROWS"
      :key="key"
      type="button"
      class="act figures"
      :class="`k${key === '.' ? 'point' : key}`"
      :aria-label="key === '.' ? 'decimal point' : key"
      @click="emit('type', key)"
    >
      {{ key }}
    </button>
    <button type="button" class="act figures erase" aria-label="Erase" @click="emit('erase')">⌫</button>
    <button type="button" class="act next enter" @click="emit('enter')">{{ enter }}</button>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr)) minmax(0, 1.1fr);
  grid-auto-rows: 48px;
  gap: 5px;
}
.act {
  font-size: 1.35rem;
  padding: 0;
  min-height: 0;
}
.enter {
  grid-column: 4;
  grid-row: 1 / 5;
  font-size: 1.1rem;
}
</style>
