<script setup lang="ts">
import type { AnyNewEntry } from '@undercliff/contract'
import type { Entry, NewEntry } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, ref, shallowRef } from 'vue'
import LeafFields from '../../parts/LeafFields.vue'
import Panel from '../../parts/Panel.vue'
import WhoField from '../../parts/WhoField.vue'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import { useWriting } from '../../remote/writing'
import SelectField from '../../parts/SelectField.vue'

/** An entry that is wrong: struck out and written right in one step, on this loop or on the one it belongs to. */
const props = defineProps<{ entry: Entry }>()
const emit = defineEmits<{ close: [] }>()
const shed = useShed()
const session = useSession()
const writing = useWriting()

/** What the server added stays with the entry that is struck out. */
const written = ({ writtenAt: _at, writtenBy: _by, saidAt: _said, ...entry }: Entry): NewEntry => entry
const right = shallowRef<AnyNewEntry>(written(props.entry))
const who = ref<string | null>(props.entry.personId)
const loopId = ref(props.entry.loopId)
const loops = computed(() =>
  shed.loops
    .filter((loop) => !loop.retired || loop.loopId === props.entry.loopId)
    .map((loop) => ({ value: loop.loopId, label: loop.tag })),
)
const wrong = ref('')
const busy = ref(false)

const strikeOf = ({ id, loopId: ofLoop }: Pick<Entry, 'id' | 'loopId'>): NewEntry => ({
  id: nanoid(),
  loopId: ofLoop,
  happenedAt: new Date().toISOString(),
  personId: session.me?.personId ?? null,
  kind: 'corrected',
  strikes: id,
})

async function save(): Promise<void> {
  busy.value = true
  const instead = { ...(right.value as NewEntry), id: nanoid(), loopId: loopId.value, personId: who.value }
  const before = props.entry
  /** As it was: what stands instead is struck out, and what was written is written once more. */
  const undo = (): Promise<unknown> =>
    writing.write([strikeOf(instead), { ...written(before), id: nanoid() }], 'Back as it was')
  const said = 'Put right; both stay to be seen'
  wrong.value = (await writing.write([strikeOf(before), instead], said, undo)) ?? ''
  busy.value = false
  if (wrong.value === '') emit('close')
}
</script>

<template>
  <Panel title="Put it right" @close="emit('close')">
    <form class="stack" @submit.prevent="save">
      <LeafFields v-model="right" />
      <WhoField v-model="who" />
      <div class="field">
        <span class="legend">Of loop</span><SelectField v-model="loopId" :options="loops" aria-label="Of loop" />
      </div>
      <p class="soft">What was written is struck out and stays to be seen; this stands instead.</p>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <p class="row">
        <button type="submit" class="act next" :disabled="busy">Put it right</button>
      </p>
    </form>
  </Panel>
</template>
