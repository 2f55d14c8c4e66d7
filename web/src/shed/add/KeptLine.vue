<script setup lang="ts">
/** Above a form that comes back as it was left: it says so, and can be emptied. */
defineEmits<{ beginAgain: [] }>()
</script>

<template>
  <p class="row kept" role="status">
    <span class="soft">As you left it before it was added.</span>
    <button type="button" class="act small" @click="$emit('beginAgain')">Begin again</button>
  </p>
</template>

<style scoped>
.kept {
  align-items: center;
}
</style>
