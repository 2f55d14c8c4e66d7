<script setup lang="ts">
/** A crew that has no saw yet, or whose saws are all away. */
</script>

<template>
  <section class="sheet stack">
    <h2>No saw is here</h2>
    <p>Add one in the shed; it is in hand here then.</p>
    <RouterLink class="act next" :to="{ name: 'addSaw' }">Add a saw</RouterLink>
  </section>
</template>

<style scoped>
.act {
  min-height: 56px;
}
</style>
