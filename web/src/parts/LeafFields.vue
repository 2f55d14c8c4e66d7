<script setup lang="ts">
import type { AnyNewEntry } from '@undercliff/contract'
import { NInput, NInputNumber } from 'naive-ui'
import { leavesOf, putRight, type Leaf } from './leaves'
import LeafLength from './LeafLength.vue'
import SelectField from './SelectField.vue'

/** Everything in an entry that a person may put right, each under its name. */
const entry = defineModel<AnyNewEntry>({ required: true })
function change(leaf: Leaf, value: Leaf['value'] | null): void {
  if (value !== null) entry.value = putRight(entry.value, leaf, value)
}
/** A time as the device's own clock shows it, for the browser's field, and back; null while it is half typed. */
const localTime = (instant: string): string => {
  const at = new Date(instant)
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16)
}
const instantOf = (local: string): string | null => {
  const at = new Date(local)
  return Number.isNaN(at.getTime()) ? null : at.toISOString()
}
</script>

<template>
  <div class="leaves">
    <label v-for="leaf in leavesOf(entry)" :key="leaf.path.join('.')" class="leaf">
      <span>{{ leaf.label }}</span>
      <SelectField
        v-if="leaf.kind === 'choice'"
        :model-value="String(leaf.value)"
        :options="[...(leaf.choices ?? [])]"
        :aria-label="leaf.label"
        @update:model-value="(value) => change(leaf, value)"
      />
      <LeafLength
        v-else-if="leaf.kind === 'length' && leaf.bounds"
        :model-value="Number(leaf.value)"
        :label="leaf.label"
        :bounds="leaf.bounds"
        @update:model-value="(value) => change(leaf, value)"
      />
      <NInputNumber
        v-else-if="leaf.kind === 'number'"
        :value="Number(leaf.value)"
        :show-button="false"
        @update:value="(value) => change(leaf, value)"
      />
      <input
        v-else-if="leaf.kind === 'yesNo'"
        type="checkbox"
        :checked="leaf.value === true"
        @change="(event) => change(leaf, (event.target as HTMLInputElement).checked)"
      />
      <input
        v-else-if="leaf.kind === 'time'"
        type="datetime-local"
        :value="localTime(String(leaf.value))"
        @change="(event) => change(leaf, instantOf((event.target as HTMLInputElement).value))"
      />
      <NInput v-else :value="String(leaf.value)" placeholder="" @update:value="(value) => change(leaf, value)" />
    </label>
  </div>
</template>

<style scoped>
.leaves {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 10px 14px;
  margin-top: 8px;
  align-items: end;
}
.leaf {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
}
.leaf input[type='datetime-local'] {
  width: 100%;
  min-width: 0;
  box-sizing: border-box;
  min-height: var(--target);
  padding: 0 10px;
  font: inherit;
  color: inherit;
  background: transparent;
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
}
.leaf span::first-letter {
  text-transform: uppercase;
}
</style>
