<script setup lang="ts">
defineProps<{ status: 'loading' | 'ready' | 'missing' | 'away'; tag: string }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <section class="sheet stack">
    <template v-if="status === 'missing'">
      <h1>No loop has the tag {{ tag }}</h1>
      <p>Check the tag on the loop, or search the shed.</p>
      <p><RouterLink class="act next" :to="{ name: 'shed' }">To the shed</RouterLink></p>
    </template>
    <template v-else-if="status === 'away'">
      <h1>The shed does not answer</h1>
      <p>Nothing that you logged on this device is lost.</p>
      <p><button type="button" class="act next" @click="emit('again')">Try again</button></p>
    </template>
    <p v-else>Fetching {{ tag }} …</p>
  </section>
</template>
