<script setup lang="ts">
import type { Saw } from '@undercliff/contract'
import type { NewSawEntry } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { heldTexts } from '../../parts/heldTexts'

/** The saw itself: what it is called, who has it, whether it is done with. A lead's to say. */
type Body<T> = T extends NewSawEntry ? Omit<T, 'id' | 'sawId' | 'happenedAt' | 'personId'> : never
const props = defineProps<{
  saw: Saw
  /** The tag of the loop that is on it. */
  onTag: string | null
  write: (body: Body<NewSawEntry>, said: string) => Promise<boolean>
}>()
const emit = defineEmits<{ renamed: [name: string] }>()
const lentTo = ref('')
const held = heldTexts(() => ({ name: props.saw.nickname }))
const name = computed({
  get: () => held.texts.value.name ?? '',
  set: (text) => (held.texts.value.name = text),
})
async function rename(): Promise<void> {
  const to = name.value.trim()
  const from = props.saw.nickname
  if (await props.write({ kind: 'sawRenamed', from, to }, `${from} is called ${to} now`)) emit('renamed', to)
}
async function lend(): Promise<void> {
  const to = lentTo.value.trim()
  const said = `${props.saw.nickname} is lent out`
  if (await props.write({ kind: 'sawGone', how: 'lent', ...(to === '' ? {} : { to }) }, said)) lentTo.value = ''
}
</script>

<template>
  <section class="sheet stack no-print" aria-labelledby="itself">
    <h2 id="itself">The saw itself</h2>
    <form class="row" @submit.prevent="rename">
      <label for="called">Called</label>
      <NInput v-model:value="name" class="short" :maxlength="40" :input-props="{ id: 'called' }" placeholder="" />
      <button type="submit" class="act small" :disabled="name.trim() === saw.nickname || name.trim() === ''">
        Rename it
      </button>
    </form>
    <p v-if="saw.gone" class="row">
      <span>{{
        saw.gone.how === 'retired' ? 'It is done with.' : `It is lent out${saw.gone.to ? ` to ${saw.gone.to}` : ''}.`
      }}</span>
      <button type="button" class="act small" @click="write({ kind: 'sawBack' }, `${saw.nickname} is back`)">
        It is back
      </button>
    </p>
    <form v-else class="row" @submit.prevent="lend">
      <label for="lent">Lent to</label>
      <NInput v-model:value="lentTo" class="short" :maxlength="60" :input-props="{ id: 'lent' }" placeholder="" />
      <button type="submit" class="act small">Lend it out</button>
      <button
        type="button"
        class="act small"
        :disabled="onTag !== null"
        @click="write({ kind: 'sawGone', how: 'retired' }, `${saw.nickname} is done with`)"
      >
        It is done with
      </button>
      <span v-if="onTag !== null" class="soft">Take {{ onTag }} off before it is done with.</span>
    </form>
  </section>
</template>

<style scoped>
.short {
  width: 220px;
}
label {
  font-weight: 700;
}
</style>
