<script setup lang="ts">
import { ref, watch } from 'vue'
import { usePhotos } from '../../remote/photoStore'

/** A kept picture, from this device where it was seen here, else from the server. */
const props = defineProps<{ photoId: string; alt: string }>()
const photos = usePhotos()
const address = ref<string | null>(null)
const away = ref(false)
watch(
  () => props.photoId,
  async (id) => {
    const found = await photos.addressFor(id)
    if (id !== props.photoId) return
    address.value = found
    away.value = found === null
  },
  { immediate: true },
)
</script>

<template>
  <img v-if="address" class="picture" :src="address" :alt="alt" />
  <span v-else class="picture none soft">{{ away ? 'Not on this device' : '…' }}</span>
</template>

<style scoped>
.picture {
  display: block;
  width: 100%;
}
.none {
  display: grid;
  place-content: center;
  min-height: 96px;
  background: var(--ground);
}
</style>
