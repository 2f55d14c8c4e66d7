<script setup lang="ts">
import { RETIRE_NAMES, RETIRE_REASONS, type RetireReason } from '@undercliff/core'
import { ref } from 'vue'
import { useDraft } from '../../parts/draft'
import RadioChoice from '../../parts/RadioChoice.vue'
import NoteForm from './NoteForm.vue'
import type { NoteBody } from './noteBody'

/** A loop is done with. */
const props = defineProps<{ tag: string }>()
const reason = ref<RetireReason | null>('worn')
useDraft(`retire:${props.tag}`, { reason })
const reasons = RETIRE_REASONS.map((value) => ({ value, label: RETIRE_NAMES[value] }))
const body = (): NoteBody => ({ kind: 'retired', reason: reason.value ?? 'other' })
</script>

<template>
  <NoteForm :tag="tag" title="Retire" save="Retire this loop" grave :body="body">
    <p>
      The loop leaves the shed. Its log stays, and the retirement can be struck out. One that was registered by mistake
      is put away like this too, and nothing is learned from it.
    </p>
    <fieldset>
      <legend>Why</legend>
      <RadioChoice v-model="reason" label="Why" :options="reasons" />
    </fieldset>
  </NoteForm>
</template>
