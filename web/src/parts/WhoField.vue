<script setup lang="ts">
import { nanoid } from 'nanoid'
import { ref } from 'vue'
import { postPerson } from '../remote/api'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'

/** Who did the work: whoever is signed in, or another by a tap on their name. */
const shed = useShed()
const session = useSession()
withDefaults(defineProps<{ small?: boolean; label?: string }>(), { label: 'Who' })
const model = defineModel<string | null>({ required: true })
if (model.value === null) model.value = session.me?.personId ?? null
const choose = (id: string): void => {
  model.value = id
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
      <button
        v-for="person in shed.people"
        :key="person.id"
        type="button"
        class="act"
        :class="{ small }"
        role="radio"
        :aria-checked="model === person.id"
        @click="choose(person.id)"
      >
        {{ person.name }}
      </button>
      <button v-if="!adding && session.isLead" type="button" class="act small" @click="adding = true">
        Somebody else
      </button>
      <span v-else-if="adding" class="row"
        ><input v-model="name" class="plain" aria-label="Name" maxlength="40" @keydown.enter.prevent="add" /><button
          type="button"
          class="act small"
          @click="add"
        >
          Add
        </button></span
      >
    </div>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
  </fieldset>
</template>
