<script setup lang="ts" generic="O extends { readonly value: string | number | boolean; readonly label: string }">
import { nextTick, ref } from 'vue'

/**
 * One of several, as buttons. Arrow keys go from one to the next and choose it; with `manual` they
 * only go there, and the space bar or Enter chooses, for choices that change something at once.
 */
const props = defineProps<{
  label?: string
  labelledby?: string
  options: readonly O[]
  small?: boolean
  disabled?: boolean
  manual?: boolean
  /** Another press on what is chosen takes the choice away. */
  clearable?: boolean
  /** Class of each button, in place of the usual one. */
  optionClass?: string | ((value: O['value']) => string)
}>()
const model = defineModel<O['value'] | null>({ required: true })
const root = ref<HTMLElement | null>(null)
/** Where the keys are, while nothing is chosen or the keys only go there. */
const at = ref<number | null>(null)

const classOf = (value: O['value']): string => {
  if (props.optionClass === undefined) return 'act'
  return typeof props.optionClass === 'string' ? props.optionClass : props.optionClass(value)
}

const chosenAt = (): number => props.options.findIndex(({ value }) => value === model.value)
/** The one button that the Tab key comes to. */
const tabStop = (): number => at.value ?? Math.max(0, chosenAt())

function choose(value: O['value']): void {
  model.value = props.clearable && model.value === value ? null : value
}

const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }
async function onKey(event: KeyboardEvent, from: number): Promise<void> {
  const count = props.options.length
  const to =
    event.key === 'Home' ? 0 : event.key === 'End' ? count - 1 : (from + (STEPS[event.key] ?? 0) + count) % count
  const target = props.options[to]
  if (target === undefined || to === from || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  event.stopPropagation()
  at.value = to
  if (!props.manual) model.value = target.value
  await nextTick()
  root.value?.querySelectorAll<HTMLElement>('[role=radio]')[to]?.focus()
}
</script>

<template>
  <div
    ref="root"
    :class="optionClass ? undefined : 'row'"
    role="radiogroup"
    :aria-label="label"
    :aria-labelledby="labelledby"
  >
    <button
      v-for="(option, i) in options"
      :key="String(option.value)"
      type="button"
      role="radio"
      :class="[classOf(option.value), { small }]"
      :aria-checked="model === option.value"
      :tabindex="i === tabStop() ? 0 : -1"
      :disabled="disabled"
      @click="choose(option.value)"
      @focus="at = i"
      @blur="at = null"
      @keydown="onKey($event, i)"
    >
      <slot :option="option">{{ option.label }}</slot>
    </button>
  </div>
</template>
