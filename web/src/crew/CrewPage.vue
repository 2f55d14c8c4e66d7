<script setup lang="ts">
import { LENGTH_PREFERENCES, writeLength, type LengthPreference } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import WhoField from '../parts/WhoField.vue'
import { postBackup, putCrew } from '../remote/api'
import { useNotices } from '../remote/notices'
import { useShed } from '../remote/shedStore'

const shed = useShed()
const notices = useNotices()
const name = ref('')
const wrong = ref('')
const who = ref<string | null>(null)
const EXAMPLE_UM = 650
const LABELS: Record<LengthPreference, string> = { mm: 'Millimetres', inch: 'Inches', both: 'Both' }
watch(() => shed.crew?.name, (known) => { name.value = known ?? '' }, { immediate: true })

const TABLES = [
  { name: 'loops', label: 'Loops' },
  { name: 'saws', label: 'Saws' },
  { name: 'people', label: 'People' },
  { name: 'log', label: 'The log' },
]
const empty = computed(() => shed.loops.length === 0 && shed.saws.length === 0 && shed.people.length === 0)
const router = useRouter()

async function restore(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  if (file === undefined) return
  try {
    await postBackup(await file.text())
    await shed.load()
    notices.say('The backup is in the shed.')
    await router.push('/')
  } catch (error) {
    wrong.value = (error as Error).message
  } finally {
    input.value = ''
  }
}

async function change(lengths: LengthPreference): Promise<void> {
  try {
    await putCrew({ name: name.value.trim(), lengths })
    await shed.load()
    wrong.value = ''
    notices.say('Changed for the whole crew.')
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
</script>

<template>
  <form v-if="shed.crew" class="sheet stack" style="max-width: 860px" @submit.prevent="change(shed.lengths)">
    <h1>The crew</h1>
    <div class="field"><label for="crew-name">Name</label><NInput v-model:value="name" :maxlength="60" :input-props="{ id: 'crew-name' }" placeholder="" /></div>
    <fieldset>
      <legend>Lengths are read in</legend>
      <div class="row" role="radiogroup" aria-label="Lengths are read in">
        <button v-for="one in LENGTH_PREFERENCES" :key="one" type="button" class="act" role="radio" :aria-checked="shed.lengths === one" @click="change(one)">{{ LABELS[one] }} <span class="figures">{{ writeLength(EXAMPLE_UM, one) }}</span></button>
      </div>
      <p class="soft">A number typed without a unit is taken in {{ shed.bareUnit === 'inch' ? 'inches' : 'millimetres' }}; a fraction is always inches.</p>
    </fieldset>
    <WhoField v-model="who" label="People" />
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <button type="submit" class="act next">Save the name</button>
    <section class="stack">
      <h2>Take it away</h2>
      <p class="row">
        <a class="act small" href="/api/backup" download>Everything, as one file</a>
        <a v-for="{ name: table, label } in TABLES" :key="table" class="act small" :href="`/api/tables/${table}.csv`" download>{{ label }} as CSV</a>
      </p>
    </section>
    <section v-if="empty" class="field">
      <label for="backup">Read a backup into this empty shed</label>
      <input id="backup" type="file" accept="application/json,.json" @change="restore" />
    </section>
  </form>
</template>

<style scoped>
input[type='file'] { min-height: var(--target); padding: 8px; border: 2px solid var(--rule-strong); border-radius: 4px; color: var(--ink); font: 400 1rem var(--text); max-width: 100%; }
</style>
