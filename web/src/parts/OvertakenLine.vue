<script setup lang="ts">
import { sayMoment, sayPlace, type OvertakenFitting, type Place } from '@undercliff/core'
import { computed } from 'vue'
import { useShed } from '../remote/shedStore'

/** Two people put a loop on two saws, and neither knew of the other: which word stands, and what to do about it. */
const props = defineProps<{
  loop: { readonly tag: string; readonly place: Place; readonly overtaken?: OvertakenFitting | null }
}>()
const shed = useShed()
const who = (personId: string | null): string => (personId === null ? 'somebody' : shed.nameOf(personId))
const said = computed(() => {
  const { tag, place, overtaken } = props.loop
  if (overtaken == null) return ''
  const { sawId, at, personId, by } = overtaken
  const where = sayPlace(place, shed.sawName, shed.dates).replace(/^./, (letter) => letter.toLowerCase())
  return (
    `Set aside: ${who(personId)} put ${tag} on ${shed.sawName(sawId)} (${sayMoment(new Date(at), shed.dates)}). ` +
    `${by === personId ? 'Later' : `${who(by)} did not know of that, and later`} it was put ${where}, which stands. ` +
    'Read the tags on both saws, then put each loop where it is.'
  )
})
</script>

<template>
  <p v-if="said" class="caution" data-overtaken>{{ said }}</p>
</template>
