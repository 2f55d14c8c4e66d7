<script setup lang="ts">
import { choicesFor, IMPORT_FIELD_NAMES, type ImportField, type SharedTrouble } from '@undercliff/core'
import SelectField from '../../parts/SelectField.vue'

/** Troubles that several rows share: each is settled once, for all of them. */
const props = defineProps<{ troubles: readonly SharedTrouble[]; saws: readonly string[] }>()
const emit = defineEmits<{ settle: [trouble: SharedTrouble, text: string] }>()
const choices = (field: ImportField) =>
  (field === 'saw' ? props.saws.map((text) => ({ text, label: text })) : choicesFor(field)).map(({ text, label }) => ({
    value: text,
    label,
  }))
const labelOf = (trouble: SharedTrouble): string =>
  `${IMPORT_FIELD_NAMES[trouble.field]} of all ${trouble.rows.length} rows that say ${named(trouble)}`
const named = ({ field, text }: SharedTrouble): string =>
  text === '' ? `nothing about ${IMPORT_FIELD_NAMES[field].toLowerCase()}` : `"${text}"`
</script>

<template>
  <section aria-labelledby="shared">
    <h3 id="shared">The same in several rows</h3>
    <ul class="troubles">
      <li v-for="trouble in troubles" :key="`${trouble.field} ${trouble.text}`" class="trouble" data-shared>
        <p>
          <strong class="figures">{{ trouble.rows.length }}</strong> rows say {{ named(trouble) }}
          <span class="soft why">{{ trouble.message }}</span>
        </p>
        <SelectField
          v-if="choices(trouble.field).length > 0"
          :options="choices(trouble.field)"
          model-value=""
          placeholder="all of these are …"
          :aria-label="labelOf(trouble)"
          @update:model-value="emit('settle', trouble, $event)"
        />
        <input
          v-else
          class="plain"
          maxlength="60"
          placeholder="all of these are …"
          :aria-label="labelOf(trouble)"
          @change="emit('settle', trouble, ($event.target as HTMLInputElement).value)"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.troubles {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
.trouble {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(200px, 300px);
  gap: 4px 16px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.why {
  display: block;
  font-size: 0.92rem;
}
@media (max-width: 700px) {
  .trouble {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
