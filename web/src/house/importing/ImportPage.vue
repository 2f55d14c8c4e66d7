<script setup lang="ts">
import { MOST_IMPORT_ROWS } from '@undercliff/contract'
import {
  IMPORT_FIELDS,
  IMPORT_FIELD_NAMES,
  missingFields,
  NEEDED_FIELDS,
  type ColumnMatch,
  type ImportField,
  type ImportPlan,
} from '@undercliff/core'
import { NSelect } from 'naive-ui'
import { computed, onUnmounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { postImport } from '../../remote/api'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import type { Ask, Told } from './planWorker'

/** A spreadsheet becomes loops: its columns are matched, every row's fate is shown, then all is written or nothing. */
const shed = useShed()
const notices = useNotices()
const router = useRouter()
void shed.load()
const file = shallowRef<File | null>(null)
const headings = shallowRef<readonly string[]>([])
const rows = shallowRef<readonly (readonly string[])[]>([])
const match = ref<ColumnMatch>({})
const plan = shallowRef<ImportPlan | null>(null)
const busy = ref<'' | 'reading' | 'planning' | 'writing'>('')
const done = ref(0)
const wrong = ref('')
const leaveOut = ref(false)
const onlyTrouble = ref(true)
const SHOWN = 100
let worker: Worker | null = null

function cancel(): void {
  worker?.terminate()
  worker = null
  busy.value = ''
}
onUnmounted(cancel)
function ask(what: Ask): void {
  worker?.terminate()
  worker = new Worker(new URL('./planWorker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = ({ data }: MessageEvent<Told>) => {
    switch (data.told) {
      case 'progress':
        done.value = data.done
        return
      case 'read':
        headings.value = data.headings
        rows.value = data.rows
        match.value = data.match
        busy.value = ''
        if (data.rows.length > MOST_IMPORT_ROWS)
          wrong.value = `That is ${data.rows.length} rows; at most ${MOST_IMPORT_ROWS} come in at once.`
        else look()
        return
      case 'planned':
        plan.value = data.plan
        busy.value = ''
        return
      case 'wrong':
        wrong.value = data.message
        busy.value = ''
    }
  }
  worker.onerror = () => {
    wrong.value = 'The file cannot be read.'
    busy.value = ''
  }
  worker.postMessage(what)
}
function open(event: Event): void {
  const [picked] = (event.target as HTMLInputElement).files ?? []
  if (picked === undefined) return
  file.value = picked
  plan.value = null
  wrong.value = ''
  busy.value = 'reading'
  ask({ ask: 'read', file: picked })
}
const missing = computed(() => missingFields(match.value))
function look(): void {
  plan.value = null
  wrong.value = ''
  if (missing.value.length > 0) return
  busy.value = 'planning'
  done.value = 0
  const context = {
    tags: shed.loops.map(({ tag }) => tag),
    saws: shed.saws.map(({ id, nickname, pitchClass, gaugeUm, driveLinks, nosePitchClass = null }) => ({
      id,
      nickname,
      pitchClass,
      gaugeUm,
      driveLinks,
      nosePitchClass,
    })),
    takenSawIds: shed.loops.flatMap(({ sawId }) => (sawId === null ? [] : [sawId])),
    unit: shed.bareUnit,
    columns: headings.value.length,
    now: new Date().toISOString(),
  }
  ask({ ask: 'plan', rows: rows.value, match: { ...match.value }, context })
}
const columns = computed(() => [
  { value: -1, label: 'no column' },
  ...headings.value.map((heading, i) => ({ value: i, label: heading.trim() === '' ? `column ${i + 1}` : heading })),
])
function matchTo(field: ImportField, column: number): void {
  const next: ColumnMatch = { ...match.value }
  if (column < 0) Reflect.deleteProperty(next, field)
  else next[field] = column
  match.value = next
  look()
}
const sampleOf = (field: ImportField): string => {
  const column = match.value[field]
  return column === undefined
    ? ''
    : rows.value
        .slice(0, 3)
        .map((row) => row[column] ?? '')
        .filter(Boolean)
        .join(', ')
}
const shown = computed(() => {
  const { value } = plan
  if (value === null) return []
  return value.rows.filter(
    ({ fate, doubts }) => fate !== 'blank' && (!onlyTrouble.value || fate === 'wrong' || doubts.length > 0),
  )
})
const canWrite = computed(
  () => plan.value !== null && plan.value.counts.add > 0 && (plan.value.counts.wrong === 0 || leaveOut.value),
)
async function write(): Promise<void> {
  if (plan.value === null || !canWrite.value) return
  busy.value = 'writing'
  wrong.value = ''
  try {
    const { loops, saws } = await postImport({ saws: plan.value.saws, entries: plan.value.entries })
    await shed.load()
    const also = saws === 0 ? '' : `, and ${saws} ${saws === 1 ? 'saw' : 'saws'}`
    notices.say(`${loops} ${loops === 1 ? 'loop is' : 'loops are'} in the shed${also}.`)
    await router.push({ name: 'shed' })
  } catch (error) {
    wrong.value = `${(error as Error).message} Nothing was written.`
  } finally {
    busy.value = ''
  }
}
</script>

<template>
  <div class="stack">
    <section class="sheet stack">
      <h1>Bring in a spreadsheet</h1>
      <p>
        One loop a row, headings in the first: tag, pitch, gauge, drive links, and whatever else you keep. Nothing is
        written before you have seen what becomes of every row.
      </p>
      <div class="field">
        <label for="file">CSV or XLSX</label
        ><input
          id="file"
          class="plain"
          type="file"
          accept=".csv,.xlsx,text/csv"
          :disabled="busy === 'writing'"
          @change="open"
        />
      </div>
      <p v-if="busy === 'reading'">
        Reading {{ file?.name }} … <button type="button" class="act small" @click="cancel">Stop</button>
      </p>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    </section>
    <section v-if="headings.length > 0" class="sheet">
      <h2>Which column is what</h2>
      <p v-if="missing.length > 0" class="caution" role="status">
        Still to be matched: {{ missing.map((field) => IMPORT_FIELD_NAMES[field].toLowerCase()).join(', ') }}.
      </p>
      <div class="columns">
        <div v-for="field in IMPORT_FIELDS" :key="field" class="field">
          <span class="legend"
            >{{ IMPORT_FIELD_NAMES[field] }}{{ NEEDED_FIELDS.includes(field) ? ' (needed)' : '' }}</span
          ><NSelect
            :value="match[field] ?? -1"
            :options="columns"
            :aria-label="`Column for ${IMPORT_FIELD_NAMES[field]}`"
            @update:value="matchTo(field, $event)"
          /><span class="soft sample">{{ sampleOf(field) }}</span>
        </div>
      </div>
    </section>
    <section v-if="busy === 'planning'" class="sheet stack" role="status">
      <p>
        Looking at row {{ done }} of {{ rows.length }} …
        <button type="button" class="act small" @click="cancel">Stop</button>
      </p>
      <progress :value="done" :max="rows.length" aria-label="Rows looked at" />
    </section>
    <section v-if="plan" class="sheet stack" aria-labelledby="fates">
      <h2 id="fates">What becomes of {{ plan.rows.length }} {{ plan.rows.length === 1 ? 'row' : 'rows' }}</h2>
      <p class="tally">
        <strong class="figures">{{ plan.counts.add }}</strong> come in
        <span class="soft">({{ plan.counts.doubtful }} with a doubt)</span> ·
        <strong class="figures" :class="{ 'stop-text': plan.counts.wrong > 0 }">{{ plan.counts.wrong }}</strong> cannot
        · <strong class="figures">{{ plan.counts.blank }}</strong> blank ·
        <strong class="figures">{{ plan.saws.length }}</strong>
        {{ plan.saws.length === 1 ? 'saw is' : 'saws are' }} added
      </p>
      <p class="row">
        <button type="button" class="act small" :aria-pressed="onlyTrouble" @click="onlyTrouble = !onlyTrouble">
          Only doubts and trouble
        </button>
      </p>
      <table v-if="shown.length > 0">
        <thead>
          <tr>
            <th>Row</th>
            <th>Tag</th>
            <th>Fate</th>
            <th>Loop</th>
            <th>What to know</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in shown.slice(0, SHOWN)" :key="row.row" :class="row.fate" data-fate>
            <td class="figures">{{ row.row }}</td>
            <td class="figures">{{ row.tag }}</td>
            <td>
              <strong>{{
                row.fate === 'wrong' ? 'cannot' : row.doubts.length > 0 ? 'comes in, but' : 'comes in'
              }}</strong>
            </td>
            <td>{{ row.loop }}</td>
            <td>
              <p v-for="one in [...row.problems, ...row.doubts]" :key="one">{{ one }}</p>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="shown.length > SHOWN" class="soft">And {{ shown.length - SHOWN }} more rows like these.</p>
      <p v-if="plan.counts.wrong > 0" class="row">
        <button type="button" class="act" :aria-pressed="leaveOut" @click="leaveOut = !leaveOut">
          Leave out the {{ plan.counts.wrong }} that cannot</button
        ><span class="soft">or mend them in the file and open it again.</span>
      </p>
      <button type="button" class="act next save" :disabled="!canWrite || busy !== ''" @click="write">
        {{
          busy === 'writing' ? 'Writing …' : `Bring in ${plan.counts.add} ${plan.counts.add === 1 ? 'loop' : 'loops'}`
        }}
      </button>
    </section>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 10px 14px;
  margin-top: 10px;
}
.sample {
  font-size: 0.82rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  min-height: 1.2em;
}
progress {
  width: 100%;
  accent-color: var(--work);
}
.tally {
  font-size: 1.1rem;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 0.92rem;
}
th {
  text-align: left;
  font-size: 0.85rem;
  color: var(--ink-soft);
}
th,
td {
  padding: 5px 10px 5px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
.wrong td:first-child {
  border-left: 6px solid var(--stop);
  padding-left: 8px;
}
.wrong strong {
  color: var(--stop);
}
.save {
  font-size: 1.15rem;
  min-height: 60px;
}
@media (max-width: 700px) {
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: auto auto 1fr;
    gap: 0 10px;
    border-bottom: 1px solid var(--rule);
    padding: 6px 0;
  }
  td {
    border: 0;
    padding: 0;
  }
  td:nth-child(n + 4) {
    grid-column: 1 / 4;
  }
}
</style>
