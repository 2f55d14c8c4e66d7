<script setup lang="ts">
import { nanoid } from 'nanoid'
import { computed, ref } from 'vue'
import { postPerson } from '../remote/api'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'
import RadioChoice from './RadioChoice.vue'

/** Who did the work: whoever is signed in, or another by a tap on their name. */
const shed = useShed()
const session = useSession()
withDefaults(defineProps<{ small?: boolean; label?: string }>(), { label: 'Who' })
const model = defineModel<string | null>({ required: true })
if (model.value === null) model.value = session.me?.personId ?? null
const people = computed(() =>
  shed.people.filter(({ gone }) => gone !== true).map(({ id, name: called }) => ({ value: id, label: called })),
)
const adding = ref(false)
const name = ref('')
const wrong = ref('')
async function add(): Promise<void> {
  const person = { id: nanoid(), name: name.value.trim() }
  if (person.name === '') return
  try {
    await postPerson(person)
    await shed.load()
    model.value = person.id
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
    <div class="row">
      <RadioChoice v-model="model" :label="label" :options="people" :small="small" />
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
