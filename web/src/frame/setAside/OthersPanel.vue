<script setup lang="ts">
import { computed, ref } from 'vue'
import Panel from '../../parts/Panel.vue'
import { useNotices } from '../../remote/notices'
import { useOutbox } from '../../remote/outbox'
import { usePhotos } from '../../remote/photoStore'
import { useShed } from '../../remote/shedStore'
import { useSayWaiting } from './sayWaiting'

/**
 * What somebody else logged or photographed on this device and did not send. It is theirs to send; where they cannot
 * any more, a lead sends it, as written down by the lead. Who did the work stays as it was.
 */
const emit = defineEmits<{ close: [] }>()
const outbox = useOutbox()
const photos = usePhotos()
const shed = useShed()
const notices = useNotices()
const { say, sayPhoto, when } = useSayWaiting()
const busy = ref(false)

const people = computed(() => {
  const writers = new Set([...outbox.ofOthers.map(({ by }) => by ?? ''), ...photos.ofOthers.map(({ by }) => by)])
  return [...writers].map((personId) => ({
    personId,
    name: shed.people.find(({ id }) => id === personId)?.name,
    entries: outbox.ofOthers.filter(({ by }) => (by ?? '') === personId).flatMap(({ entries }) => entries),
    photos: photos.ofOthers.filter(({ by }) => by === personId).map(({ photo }) => photo),
  }))
})
async function send(personId: string): Promise<void> {
  busy.value = true
  await outbox.takeOver(personId)
  await photos.takeOver(personId)
  busy.value = false
  const waits = outbox.keptHere + photos.waiting.length > 0
  notices.say(waits ? 'Kept on this device until the shed answers.' : 'Sent, as written down by you.')
  if (outbox.ofOthers.length + photos.ofOthers.length === 0) emit('close')
}
</script>

<template>
  <Panel title="What others left on this device" @close="emit('close')">
    <article v-for="{ personId, name, entries, photos: taken } in people" :key="personId" class="stack">
      <h3>{{ name ?? 'Somebody of another crew' }}</h3>
      <ol>
        <li v-for="entry in entries" :key="entry.id">
          <strong>{{ say(entry) }}</strong> <span class="soft">{{ when(entry) }}</span>
        </li>
        <li v-for="photo in taken" :key="photo.id">
          <strong>{{ sayPhoto(photo) }}</strong>
        </li>
      </ol>
      <template v-if="name">
        <p>It goes home when {{ name }} signs in on this device. Where that cannot be any more, send it yourself.</p>
        <p class="row">
          <button type="button" class="act next" :disabled="busy" @click="send(personId)">
            Send it, as written down by me
          </button>
        </p>
      </template>
      <p v-else>It goes home when they sign in on this device.</p>
    </article>
  </Panel>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding-left: 0;
  display: grid;
  gap: 8px;
  max-height: 40vh;
  overflow-y: auto;
}
</style>
