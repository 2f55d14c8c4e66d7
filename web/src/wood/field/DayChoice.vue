<script setup lang="ts">
import { CONDITIONS, CONDITION_WORDS, WOODS, WOOD_NAMES, capital } from '@undercliff/core'
import { ref } from 'vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import { sayDayOf, type Day } from './day'

/** What the work is in: said once in the morning, and it stays until somebody says otherwise. */
const day = defineModel<Day>({ required: true })
const open = ref(false)
const dirt = CONDITIONS.map((value) => ({ value, label: capital(CONDITION_WORDS[value]) }))
const woods = WOODS.map((value) => ({ value, label: WOOD_NAMES[value] }))
</script>

<template>
  <section class="sheet day" aria-label="The day">
    <button type="button" class="act said" :aria-expanded="open" @click="open = !open">
      <span><span class="soft">Today</span> {{ sayDayOf(day) }}</span>
      <span class="soft">{{ open ? 'done' : 'change' }}</span>
    </button>
    <template v-if="open">
      <RadioChoice
        label="Dirt"
        :model-value="day.conditions"
        :options="dirt"
        @update:model-value="(conditions) => conditions && (day = { ...day, conditions })"
      />
      <RadioChoice
        label="Wood"
        :model-value="day.wood"
        :options="woods"
        @update:model-value="(wood) => wood && (day = { ...day, wood })"
      />
    </template>
  </section>
</template>

<style scoped>
.day {
  display: grid;
  gap: 10px;
  padding: 8px;
}
.said {
  width: 100%;
  justify-content: space-between;
  border-color: transparent;
}
</style>
