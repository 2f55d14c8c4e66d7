<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { nanoid } from 'nanoid'
import { ref } from 'vue'
import { postPerson } from '../remote/api'
import { useShed } from '../remote/shedStore'

/** Who did the work: a tap on a name. The last one on this device stays chosen. */
const shed = useShed()
const who = useLocalStorage<string | null>('undercliff:who', null)
withDefaults(defineProps<{ small?: boolean; label?: string }>(), { label: 'Who' })
const model = defineModel<string | null>({ required: true })
const stillHere = shed.people.some(({ id }) => id === who.value)
if (model.value === null && stillHere) model.value = who.value
const choose = (id: string): void => {
  model.value = id
  who.value = id
}
const adding = ref(false)
const name = ref('')
const wrong = ref('')
async function add(): Promise<void> {
  const person = { id: nanoid(), name: name.value.trim() }
  if (person.name === '') return
  try {
    await postPerson(person)
    await shed.load()
    choose(person.id)
    adding.value = false
    name.value = ''
    wrong.value = ''
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
</script>

<template>
  <fieldset>
    <legend>{{ label }}</legend>
    <div class="row" role="radiogroup" :aria-label="label">
      <button v-for="person in shed.people" :key="person.id" type="button" class="act" :class="{ small }" role="radio" :aria-checked="model === person.id" @click="choose(person.id)">{{ person.name }}</button>
      <button v-if="!adding" type="button" class="act small" @click="adding = true">Somebody else</button>
      <span v-else class="row"><input v-model="name" class="plain" aria-label="Name" maxlength="40" @keydown.enter.prevent="add" /><button type="button" class="act small" @click="add">Add</button></span>
    </div>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
  </fieldset>
</template>

<style scoped>
.plain { min-height: var(--target); padding: 4px 12px; border: 2px solid var(--rule-strong); border-radius: 4px; background: var(--sheet); color: var(--ink); font: 400 1rem var(--text); }
</style>
