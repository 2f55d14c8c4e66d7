<script setup lang="ts">
import { PUT_BACK, PUT_BACK_WORDS, type PutBack } from '@undercliff/core'

/** What is looked to when the loop goes back on its saw: one tap each, or all at once. */
defineProps<{ sawName: string }>()
const done = defineModel<readonly PutBack[]>({ required: true })
function tap(one: PutBack): void {
  done.value = done.value.includes(one)
    ? done.value.filter((other) => other !== one)
    : PUT_BACK.filter((other) => other === one || done.value.includes(other))
}
</script>

<template>
  <fieldset class="put-back">
    <legend>Back on {{ sawName }}</legend>
    <button
      v-for="one in PUT_BACK"
      :key="one"
      type="button"
      class="act"
      :aria-pressed="done.includes(one)"
      @click="tap(one)"
    >
      {{ PUT_BACK_WORDS[one].what }}
    </button>
    <button v-if="done.length < PUT_BACK.length" type="button" class="act all" @click="done = PUT_BACK">
      All of it
    </button>
  </fieldset>
</template>

<style scoped>
.put-back {
  display: grid;
  gap: 6px;
}
.put-back .act {
  text-align: left;
  justify-content: flex-start;
}
.all {
  font-weight: 700;
}
</style>
