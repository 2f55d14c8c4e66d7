<script setup lang="ts">
import { NInput } from 'naive-ui'
import { useId } from 'vue'
import type { Figure } from './figure'

/** A figure that is typed; what is odd about it is asked right below. */
const props = defineProps<{ figure: Figure; placeholder?: string; id?: string; inputmode?: 'decimal' | 'numeric' }>()
const own = useId()
const { text, odd, meant } = props.figure
/** What is odd is said when the field is left; whoever goes to a button is told there, and no button moves away. */
function left(event: FocusEvent): void {
  if (!(event.relatedTarget instanceof HTMLButtonElement)) props.figure.look()
}
</script>

<template>
  <div class="field">
    <label :for="id ?? own"><slot>{{ figure.name }}</slot></label
    ><NInput
      v-model:value="text"
      v-bind="odd === '' ? {} : { status: 'error' as const }"
      :input-props="{
        id: id ?? own,
        inputmode: inputmode ?? 'decimal',
        autocomplete: 'off',
        'aria-describedby': odd === '' ? undefined : `${id ?? own}-odd`,
      }"
      :placeholder="placeholder ?? ''"
      @blur="left"
    />
    <div v-if="odd !== ''" :id="`${id ?? own}-odd`" class="odd">
      <p class="stop-text">{{ odd }}</p>
      <p v-if="meant !== null" class="row">
        <button type="button" class="act small" @click="figure.take()">{{ meant }}</button>
        <button type="button" class="act small" @click="figure.insist()">As typed</button>
      </p>
    </div>
  </div>
</template>

<style scoped>
.odd {
  margin-top: 4px;
}
</style>
