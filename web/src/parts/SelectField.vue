<script setup lang="ts" generic="V extends string | number | null">
/**
 * One of a list. The browser's own, so that it has role, name, type-ahead and the phone's wheel without a line of
 * ours; naming it is the caller's: by `aria-label`, or by an `id` that a label is for.
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  options: readonly { readonly value: V; readonly label: string }[]
  /** Shown while nothing is chosen. */
  placeholder?: string
}>()
const model = defineModel<V>({ required: true })
const at = (): number => props.options.findIndex(({ value }) => value === model.value)
function choose(event: Event): void {
  const chosen = props.options[Number((event.target as HTMLSelectElement).value)]
  if (chosen !== undefined) model.value = chosen.value
}
</script>

<template>
  <select v-bind="$attrs" class="plain select" :value="at()" @change="choose">
    <option v-if="at() < 0" :value="-1" disabled>{{ placeholder ?? 'choose …' }}</option>
    <option v-for="(option, i) in options" :key="String(option.value)" :value="i">{{ option.label }}</option>
  </select>
</template>

<style scoped>
.select {
  width: 100%;
  min-width: 0;
  text-overflow: ellipsis;
}
</style>
