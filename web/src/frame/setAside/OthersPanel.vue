<script setup lang="ts">
import { computed, ref } from 'vue'
import Panel from '../../parts/Panel.vue'
import { useNotices } from '../../remote/notices'
import { useOutbox } from '../../remote/outbox'
import { useShed } from '../../remote/shedStore'
import { useSayWaiting } from './sayWaiting'

/**
 * What somebody else logged on this device and did not send. It is theirs to send; where they cannot any more, a lead
 * sends it, as written down by the lead. Who did the work stays as it was.
 */
const emit = defineEmits<{ close: [] }>()
const outbox = useOutbox()
const shed = useShed()
const notices = useNotices()
const { say, when } = useSayWaiting()
const busy = ref(false)

const people = computed(() => {
  const by = new Map<string, typeof outbox.ofOthers>()
  for (const parcel of outbox.ofOthers) {
    const writer = parcel.by ?? ''
    by.set(writer, [...(by.get(writer) ?? []), parcel])
  }
  return [...by].map(([personId, parcels]) => ({
    personId,
    name: shed.people.find(({ id }) => id === personId)?.name,
    entries: parcels.flatMap(({ entries }) => entries),
  }))
})
async function send(personId: string): Promise<void> {
  busy.value = true
  await outbox.takeOver(personId)
  busy.value = false
  notices.say(outbox.keptHere > 0 ? 'Kept on this device until the shed answers.' : 'Sent, as written down by you.')
  if (outbox.ofOthers.length === 0) emit('close')
}
</script>

<template>
  <Panel title="What others left on this device" @close="emit('close')">
    <article v-for="{ personId, name, entries } in people" :key="personId" class="stack">
      <h3>{{ name ?? 'Somebody of another crew' }}</h3>
      <ol>
        <li v-for="entry in entries" :key="entry.id">
          <strong>{{ say(entry) }}</strong> <span class="soft">{{ when(entry) }}</span>
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
