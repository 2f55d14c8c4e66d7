<script setup lang="ts">
import { isOfSaw, type AnyNewEntry } from '@undercliff/contract'
import { asWritten, sayEntry, saySawEntry, type SawEntry } from '@undercliff/core'
import { NInput, NInputNumber } from 'naive-ui'
import { ref, shallowRef } from 'vue'
import Panel from '../../parts/Panel.vue'
import { useNotices } from '../../remote/notices'
import { useOutbox } from '../../remote/outbox'
import type { Parcel } from '../../remote/parcels'
import { useShed } from '../../remote/shedStore'
import { leavesOf, putRight, type Leaf } from './leaves'

/** What the server would not take, with all that it held: to be put right and sent again, copied, or thrown away. */
const emit = defineEmits<{ close: [] }>()
const outbox = useOutbox()
const shed = useShed()
const notices = useNotices()

/** The parcel that is being put right, as it is by now. */
const open = ref<string | null>(null)
const entries = shallowRef<readonly AnyNewEntry[]>([])
const doomed = ref<string | null>(null)
const copied = ref<string | null>(null)
const busy = ref(false)

function say(entry: AnyNewEntry): string {
  if (isOfSaw(entry)) {
    const written: SawEntry = { ...entry, writtenAt: entry.happenedAt, writtenBy: null }
    return `${shed.sawName(entry.sawId)}: ${saySawEntry(written, shed.lengths)}`
  }
  const tag = shed.loops.find(({ loopId }) => loopId === entry.loopId)?.tag ?? 'A loop'
  return `${tag}: ${sayEntry(asWritten(entry), shed.figures, shed.sawName)}`
}
const when = (entry: AnyNewEntry): string =>
  new Date(entry.happenedAt).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  })
const who = (entry: AnyNewEntry): string => (entry.personId === null ? '' : `, ${shed.nameOf(entry.personId)}`)
const now = (parcel: Parcel): readonly AnyNewEntry[] => (open.value === parcel.key ? entries.value : parcel.entries)

function begin(parcel: Parcel): void {
  open.value = open.value === parcel.key ? null : parcel.key
  entries.value = parcel.entries
}
function change(at: number, leaf: Leaf, value: Leaf['value'] | null): void {
  if (value === null) return
  entries.value = entries.value.map((entry, i) => (i === at ? putRight(entry, leaf, value) : entry))
}
/** A time as the device's own clock shows it, for the browser's field, and back; null while it is half typed. */
const localTime = (instant: string): string => {
  const at = new Date(instant)
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16)
}
const instantOf = (local: string): string | null => {
  const at = new Date(local)
  return Number.isNaN(at.getTime()) ? null : at.toISOString()
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
      <ol>
        <li v-for="(entry, i) in now(parcel)" :key="entry.id">
          <p>
            <strong>{{ say(entry) }}</strong> <span class="soft">{{ when(entry) }}{{ who(entry) }}</span>
          </p>
          <div v-if="open === parcel.key" class="leaves">
            <label v-for="leaf in leavesOf(entry)" :key="leaf.path.join('.')" class="leaf">
              <span>{{ leaf.label }}</span>
              <NInputNumber
                v-if="leaf.kind === 'mm' || leaf.kind === 'number'"
                :value="Number(leaf.value)"
                :show-button="false"
                @update:value="(value) => change(i, leaf, value)"
              />
              <input
                v-else-if="leaf.kind === 'yesNo'"
                type="checkbox"
                :checked="leaf.value === true"
                @change="(event) => change(i, leaf, (event.target as HTMLInputElement).checked)"
              />
              <input
                v-else-if="leaf.kind === 'time'"
                type="datetime-local"
                :value="localTime(String(leaf.value))"
                @change="(event) => change(i, leaf, instantOf((event.target as HTMLInputElement).value))"
              />
              <NInput
                v-else
                :value="String(leaf.value)"
                placeholder=""
                @update:value="(value) => change(i, leaf, value)"
              />
            </label>
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
.leaves {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 10px 14px;
  margin-top: 8px;
  align-items: end;
}
.leaf {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
}
.leaf input[type='datetime-local'] {
  width: 100%;
  min-width: 0;
  box-sizing: border-box;
  min-height: var(--target);
  padding: 0 10px;
  font: inherit;
  color: inherit;
  background: transparent;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
}
.leaf span::first-letter {
  text-transform: uppercase;
}
textarea {
  width: 100%;
  font: 0.86rem/1.4 var(--mono, monospace);
}
</style>
