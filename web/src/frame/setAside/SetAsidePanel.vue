<script setup lang="ts">
import type { AnyNewEntry } from '@undercliff/contract'
import { ref, shallowRef } from 'vue'
import LeafFields from '../../parts/LeafFields.vue'
import Panel from '../../parts/Panel.vue'
import { useNotices } from '../../remote/notices'
import { useOutbox } from '../../remote/outbox'
import type { Parcel } from '../../remote/parcels'
import { whatNow } from './whatNow'
import { useSayWaiting } from './sayWaiting'

/** What the server would not take, with all that it held: to be put right and sent again, copied, or thrown away. */
const emit = defineEmits<{ close: [] }>()
const outbox = useOutbox()
const { say, when, who } = useSayWaiting()
const notices = useNotices()

/** The parcel that is being put right, as it is by now. */
const open = ref<string | null>(null)
const entries = shallowRef<readonly AnyNewEntry[]>([])
const doomed = ref<string | null>(null)
const copied = ref<string | null>(null)
const busy = ref(false)

const now = (parcel: Parcel): readonly AnyNewEntry[] => (open.value === parcel.key ? entries.value : parcel.entries)

function begin(parcel: Parcel): void {
  open.value = open.value === parcel.key ? null : parcel.key
  entries.value = parcel.entries
}
function change(at: number, right: AnyNewEntry): void {
  entries.value = entries.value.map((entry, i) => (i === at ? right : entry))
}
const leaveOut = (at: number): void => {
  entries.value = entries.value.filter((_entry, i) => i !== at)
}
async function send(parcel: Parcel): Promise<void> {
  busy.value = true
  await outbox.sendAgain(parcel.key, now(parcel))
  busy.value = false
  const left = outbox.parcels.find(({ key }) => key === parcel.key)
  if (left === undefined) notices.say('Sent; it is in the log now.')
  if (left?.refused === null) notices.say('Kept on this device until the shed answers.')
  if (left === undefined || left.refused === null) open.value = null
  if (outbox.refused.length === 0) emit('close')
}
const asText = (parcel: Parcel): string =>
  [
    ...now(parcel).map((entry) => `${when(entry)}${who(entry)} — ${say(entry)}`),
    '',
    JSON.stringify(now(parcel), null, 1),
  ].join('\n')
async function copy(parcel: Parcel): Promise<void> {
  try {
    await navigator.clipboard.writeText(asText(parcel))
    notices.say('Copied, in words and as data.')
  } catch {
    // Without leave to use the clipboard it is shown, to be copied by hand.
    copied.value = parcel.key
  }
}
function throwAway(parcel: Parcel): void {
  if (doomed.value !== parcel.key) {
    doomed.value = parcel.key
    return
  }
  outbox.drop(parcel.key)
  if (outbox.refused.length === 0) emit('close')
}
</script>

<template>
  <Panel title="Not taken by the shed" @close="emit('close')">
    <article v-for="parcel in outbox.refused" :key="parcel.key" class="parcel" data-set-aside>
      <p class="why">{{ parcel.refused }}</p>
      <p>{{ whatNow(parcel.code) }}</p>
      <ol>
        <li v-for="(entry, i) in now(parcel)" :key="entry.id">
          <p><strong>{{ say(entry) }}</strong> <span class="soft">{{ when(entry) }}{{ who(entry) }}</span></p>
          <div v-if="open === parcel.key" class="stack">
            <LeafFields :model-value="entry" @update:model-value="(right) => change(i, right)" />
            <button v-if="now(parcel).length > 1" type="button" class="act small" @click="leaveOut(i)">
              Leave this one out
            </button>
          </div>
        </li>
      </ol>
      <textarea v-if="copied === parcel.key" readonly rows="6" :value="asText(parcel)" aria-label="What it held" />
      <p class="row">
        <button type="button" class="act next" :disabled="busy" @click="send(parcel)">Send it again</button>
        <button type="button" class="act" :aria-expanded="open === parcel.key" @click="begin(parcel)">
          Put it right
        </button>
        <button type="button" class="act" @click="copy(parcel)">Copy</button>
        <button type="button" class="act" @click="throwAway(parcel)">
          {{ doomed === parcel.key ? 'Throw away for good' : 'Throw away …' }}
        </button>
      </p>
    </article>
  </Panel>
</template>

<style scoped>
.parcel {
  display: grid;
  gap: 10px;
  border-left: 6px solid var(--stop);
  padding-left: 14px;
}
.why {
  color: var(--stop);
  font-weight: 700;
}
ol {
  list-style: none;
  padding-left: 0;
  display: grid;
  gap: 8px;
}
textarea {
  width: 100%;
  font: 0.86rem/1.4 var(--mono, monospace);
}
</style>
