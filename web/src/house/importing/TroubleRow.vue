<script setup lang="ts">
import { choicesFor, IMPORT_FIELD_NAMES, type ImportField, type Remark, type RowFate } from '@undercliff/core'
import { computed, ref, watch } from 'vue'
import SelectField from '../../parts/SelectField.vue'

/** What becomes of a row, each doubtful or wrong cell to be mended where it stands. */
const props = defineProps<{ row: RowFate; saws: readonly string[] }>()
const emit = defineEmits<{ mend: [field: ImportField, text: string]; out: [out: boolean] }>()
interface CellTrouble {
  readonly field: ImportField
  readonly text: string
  readonly messages: readonly string[]
  readonly wrong: boolean
}
/** What is typed and not yet in the plan: one that was worked out before it must not throw it back. */
const typed = ref<Partial<Record<ImportField, string>>>({})
const type = (field: ImportField, text: string): void => {
  typed.value = { ...typed.value, [field]: text }
}
watch(
  () => props.row,
  ({ texts }) => {
    const waiting = Object.entries(typed.value).filter(([field, text]) => texts[field as ImportField] !== text.trim())
    typed.value = Object.fromEntries(waiting)
  },
)
const remarks = computed(() => [...props.row.problems, ...props.row.doubts])
const cells = computed((): CellTrouble[] => {
  const fields = new Set(remarks.value.flatMap(({ field, asks }) => (field !== null && asks ? [field] : [])))
  return [...fields].map((field) => ({
    field,
    text: props.row.texts[field] ?? '',
    messages: remarks.value.filter((one) => one.field === field).map(({ message }) => message),
    wrong: props.row.problems.some((one) => one.field === field),
  }))
})
const told = (one: Remark): boolean => one.field === null || !cells.value.some(({ field }) => field === one.field)
const FATES = { wrong: 'cannot', out: 'left out', blank: 'blank' } as const
const fate = computed(() => {
  const { row } = props
  if (row.fate !== 'add') return FATES[row.fate]
  return row.doubts.some(({ asks }) => asks) ? 'comes in, but' : 'comes in'
})
function optionsFor({ field, text }: CellTrouble) {
  const choices = field === 'saw' ? props.saws.map((name) => ({ text: name, label: name })) : choicesFor(field)
  if (choices.length === 0) return null
  const known = choices.some((choice) => choice.text === text)
  const stands = { value: text, label: text === '' ? 'nothing stands there' : `"${text}"` }
  return [...(known ? [] : [stands]), ...choices.map((choice) => ({ value: choice.text, label: choice.label }))]
}
</script>

<template>
  <li class="fate" :class="row.fate" data-fate>
    <p class="who">
      <span class="soft">row</span> <span class="figures">{{ row.row }}</span>
      <strong class="figures tag">{{ row.tag }}</strong>
      <strong class="said">{{ fate }}</strong>
      <span class="soft">{{ row.loop }}</span>
    </p>
    <div class="cells">
      <div v-for="cell in cells" :key="cell.field" class="cell">
        <label :for="`row-${row.row}-${cell.field}`">{{ IMPORT_FIELD_NAMES[cell.field] }}</label>
        <SelectField
          v-if="optionsFor(cell)"
          :id="`row-${row.row}-${cell.field}`"
          :options="optionsFor(cell) ?? []"
          :model-value="cell.text"
          :aria-invalid="cell.wrong"
          :aria-describedby="`row-${row.row}-${cell.field}-why`"
          @update:model-value="emit('mend', cell.field, $event)"
        />
        <input
          v-else
          :id="`row-${row.row}-${cell.field}`"
          class="plain"
          :value="typed[cell.field] ?? cell.text"
          maxlength="60"
          :aria-invalid="cell.wrong"
          :aria-describedby="`row-${row.row}-${cell.field}-why`"
          @input="type(cell.field, ($event.target as HTMLInputElement).value)"
          @change="emit('mend', cell.field, ($event.target as HTMLInputElement).value)"
        />
        <p :id="`row-${row.row}-${cell.field}-why`" :class="cell.wrong ? 'stop-text' : 'soft'">
          {{ cell.messages.join(' ') }}
        </p>
      </div>
      <p v-for="one in remarks.filter(told)" :key="one.message" class="cell" :class="{ soft: one.field !== null }">
        {{ one.message }}
      </p>
    </div>
    <button
      type="button"
      class="act small"
      :aria-label="`${row.fate === 'out' ? 'Take in' : 'Leave out'} row ${row.row}`"
      @click="emit('out', row.fate !== 'out')"
    >
      {{ row.fate === 'out' ? 'Take in' : 'Leave out' }}
    </button>
  </li>
</template>

<style scoped>
.fate {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 14px;
  align-items: start;
  padding: 8px 0 8px 10px;
  border-top: 1px solid var(--rule);
  border-left: 6px solid transparent;
}
.fate.wrong {
  border-left-color: var(--stop);
}
.wrong .said {
  color: var(--stop);
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  align-items: baseline;
}
.tag {
  overflow-wrap: anywhere;
}
.cells {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 6px 18px;
}
.fate > .act {
  grid-row: 1;
  grid-column: 2;
}
.cell label {
  display: block;
  font-weight: 700;
  font-size: 0.92rem;
}
.cell .plain {
  width: 100%;
}
.cell p,
p.cell {
  font-size: 0.92rem;
}
@media (max-width: 700px) {
  .cells {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
