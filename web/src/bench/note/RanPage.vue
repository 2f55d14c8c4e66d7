<script setup lang="ts">
import { capital, CONDITION_WORDS, CONDITIONS, type Conditions } from '@undercliff/core'
import { ref } from 'vue'
import { useDraft } from '../../parts/draft'
import RadioChoice from '../../parts/RadioChoice.vue'
import NoteForm from './NoteForm.vue'
import type { NoteBody } from './noteBody'

/** Tanks that a loop cut, and in what. */
const props = defineProps<{ tag: string }>()
const tanks = ref(1)
const conditions = ref<Conditions | null>('clean')
useDraft(`ran:${props.tag}`, { tanks, conditions })
const choices = CONDITIONS.map((value) => ({ value, label: capital(CONDITION_WORDS[value]) }))
const body = (): NoteBody => ({ kind: 'ran', tanks: tanks.value, conditions: conditions.value ?? 'clean' })
</script>

<template>
  <NoteForm :tag="tag" title="Log tanks of" save="Log the tanks" :body="body">
    <fieldset>
      <legend>Tanks or batteries</legend>
      <div class="row steps">
        <button type="button" class="act" aria-label="Half a tank less" @click="tanks = Math.max(0.5, tanks - 0.5)">
          −</button
        ><span class="figures count" aria-live="polite">{{ tanks }}</span
        ><button type="button" class="act" aria-label="Half a tank more" @click="tanks += 0.5">+</button>
      </div>
    </fieldset>
    <fieldset>
      <legend>In</legend>
      <RadioChoice v-model="conditions" label="Conditions" :options="choices" />
    </fieldset>
  </NoteForm>
</template>

<style scoped>
.steps .act {
  min-width: 64px;
  font-size: 1.2rem;
}
</style>
