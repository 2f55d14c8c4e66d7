<script setup lang="ts">
import { CONDITIONS, CONDITION_WORDS, WOODS, WOOD_NAMES, capital } from '@undercliff/core'
import { ref } from 'vue'
import { sayDayOf, type Day } from './day'

/** What the work is in: said once in the morning, and it stays until somebody says otherwise. */
const day = defineModel<Day>({ required: true })
const open = ref(false)
</script>

<template>
  <section class="sheet day" aria-label="The day">
    <button type="button" class="act said" :aria-expanded="open" @click="open = !open">
      <span class="soft">Today</span> {{ sayDayOf(day) }}
    </button>
    <template v-if="open">
      <div class="row" role="group" aria-label="Dirt">
        <button
          v-for="one in CONDITIONS"
          :key="one"
          type="button"
          class="act"
          :aria-pressed="day.conditions === one"
          @click="day = { ...day, conditions: one }"
        >
          {{ capital(CONDITION_WORDS[one]) }}
        </button>
      </div>
      <div class="row" role="group" aria-label="Wood">
        <button
          v-for="one in WOODS"
          :key="one"
          type="button"
          class="act"
          :aria-pressed="day.wood === one"
          @click="day = { ...day, wood: one }"
        >
          {{ WOOD_NAMES[one] }}
        </button>
      </div>
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
  justify-content: flex-start;
  border-color: transparent;
}
</style>
