<script setup lang="ts">
import { MOST_IMPORT_ROWS, type NewSaw, type Saw } from '@undercliff/contract'
import {
  freshTag,
  headingKey,
  IMPORT_FIELDS,
  IMPORT_FIELD_NAMES,
  missingFields,
  NEEDED_FIELDS,
  rememberColumns,
  sharedTroubles,
  unusedColumns,
  type ColumnMatch,
  type ImportField,
  type HouseRules,
  type ImportPlan,
  type Mended,
  type NewEntry,
  type NewSawEntry,
  type RememberedColumns,
  type SharedTrouble,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, nextTick, onBeforeUnmount, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import SelectField from '../../parts/SelectField.vue'
import { postImport } from '../../remote/api'
import { keep, keptJson } from '../../remote/device'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import { useWriting } from '../../remote/writing'
import type { Ask, LaidOut, Told } from './planWorker'
import SharedTroubles from './SharedTroubles.vue'
import TroubleRow from './TroubleRow.vue'
import { importUnderWay, keepUnderWay, type ImportUnderWay } from './underWay'

/** A spreadsheet becomes loops: columns are matched, every row is shown and mended, then all is written or nothing. */
const shed = useShed()
const notices = useNotices()
const writing = useWriting()
const router = useRouter()
void shed.look()
const REMEMBERED = 'undercliff:importColumns'
const remembered = (): RememberedColumns => keptJson<RememberedColumns>(REMEMBERED) ?? {}
const fileName = ref('')
const picked = shallowRef<File | null>(null)
/** What was settled before the page was left, to be taken up once the file has been read again. */
let before: ImportUnderWay | null = null
const laidOut = shallowRef<LaidOut | null>(null)
const match = ref<ColumnMatch>({})
const mended = ref<Record<number, Mended>>({})
/** Rows that were mended one by one: they stay in the list, so that the hand does not lose its place. */
const touched = ref(new Set<number>())
const plan = shallowRef<ImportPlan | null>(null)
const busy = ref<'' | 'reading' | 'planning' | 'writing'>('')
const done = ref(0)
const wrong = ref('')
const leaveOut = ref(false)
const onlyTrouble = ref(true)
const SHOWN = 100
let worker: Worker | null = null

function stop(): void {
  worker?.terminate()
  worker = null
  busy.value = ''
}
/** The worker goes, and what it had read with it. */
function cancel(): void {
  stop()
  laidOut.value = null
  plan.value = null
}
onUnmounted(stop)
function hear(told: Told): void {
  switch (told.told) {
    case 'progress':
      done.value = told.done
      return
    case 'read':
      if (
        before?.sheet != null &&
        (before.sheet !== told.laidOut.sheet || before.headingRow !== told.laidOut.headingRow)
      ) {
        const { sheet, headingRow } = before
        before = { ...before, sheet: null }
        layOut(sheet, headingRow === null ? null : headingRow - 1)
        return
      }
      laidOut.value = told.laidOut
      match.value = before?.match ?? told.laidOut.match
      mended.value = { ...before?.mended }
      before = null
      touched.value = new Set()
      busy.value = ''
      if (told.laidOut.rows > MOST_IMPORT_ROWS)
        wrong.value = `That is ${told.laidOut.rows} rows; at most ${MOST_IMPORT_ROWS} come in at once.`
      else look()
      return
    case 'planned':
      plan.value = told.plan
      busy.value = ''
      return
    case 'wrong':
      wrong.value = told.message
      busy.value = ''
  }
}
function ask(what: Ask): void {
  if (worker === null) {
    worker = new Worker(new URL('./planWorker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<Told>) => {
      hear(data)
    }
    worker.onerror = () => {
      wrong.value = 'The file cannot be read.'
      busy.value = ''
    }
  }
  wrong.value = ''
  worker.postMessage(what)
}
function open(event: Event): void {
  const [chosen] = (event.target as HTMLInputElement).files ?? []
  if (chosen !== undefined) begin(chosen)
}
function begin(file: File): void {
  cancel()
  picked.value = file
  fileName.value = file.name
  busy.value = 'reading'
  ask({ ask: 'read', file, remembered: remembered() })
}
onMounted(() => {
  before = importUnderWay()
  if (before !== null) begin(before.file)
})
onBeforeUnmount(() => {
  if (picked.value === null || laidOut.value === null) return
  const { sheet, headingRow } = laidOut.value
  keepUnderWay({ file: picked.value, sheet, headingRow, match: match.value, mended: mended.value })
})
/** Another sheet, or the headings in another row of this one. */
function layOut(sheet: number, row: number | null): void {
  plan.value = null
  busy.value = 'reading'
  ask({ ask: 'sheet', sheet, row, remembered: remembered() })
}
function headingsIn(event: Event): void {
  const row = Number((event.target as HTMLInputElement).value)
  if (laidOut.value !== null && Number.isInteger(row) && row > 0) layOut(laidOut.value.sheet, row - 1)
}
const missing = computed(() => missingFields(match.value))
const unused = computed(() => unusedColumns(laidOut.value?.headings ?? [], match.value))
function look(): void {
  if (missing.value.length > 0) {
    plan.value = null
    return
  }
  busy.value = 'planning'
  done.value = 0
  const context = {
    tags: shed.loops.map(({ tag }) => tag),
    saws: JSON.parse(JSON.stringify(shed.saws)) as Saw[],
    rules: JSON.parse(JSON.stringify(shed.rules)) as HouseRules,
    takenSawIds: shed.loops.flatMap(({ sawId }) => (sawId === null ? [] : [sawId])),
    unit: shed.bareUnit,
    mended: JSON.parse(JSON.stringify(mended.value)) as Record<number, Mended>,
    now: new Date().toISOString(),
  }
  ask({ ask: 'plan', match: { ...match.value }, context })
}
/** The shed answers later than the file was opened, or somebody else changes it meanwhile: tags may be taken by now. */
watch(
  () => shed.answer,
  () => {
    if ((plan.value !== null || busy.value === 'planning') && busy.value !== 'writing') look()
  },
)
const columns = computed(() => [
  { value: -1, label: 'no column' },
  ...(laidOut.value?.headings ?? []).map((heading, i) => ({
    value: i,
    label: headingKey(heading) === '' ? `column ${i + 1}` : heading.trim(),
  })),
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
  if (column === undefined) return ''
  const cells = (laidOut.value?.samples ?? []).map((row) => row[column] ?? '').filter(Boolean)
  return [...new Set(cells)].slice(0, 3).join(', ')
}

function mend(row: number, more: Mended): void {
  const before = mended.value[row]
  mended.value = { ...mended.value, [row]: { ...before, ...more, texts: { ...before?.texts, ...more.texts } } }
}
async function mendCell(row: number, field: ImportField, text: string): Promise<void> {
  const at = document.activeElement?.id
  touched.value.add(row)
  mend(row, { texts: { [field]: text } })
  look()
  await nextTick()
  if (at) document.getElementById(at)?.focus()
}
function settle({ field, rows }: SharedTrouble, text: string): void {
  for (const row of rows) mend(row, { texts: { [field]: text } })
  look()
}
function setOut(row: number, out: boolean): void {
  touched.value.add(row)
  mend(row, { out })
  look()
}
const sawNames = computed(() =>
  [...shed.saws, ...(plan.value?.saws ?? [])].map(({ nickname }) => nickname).sort((a, b) => a.localeCompare(b)),
)
const shared = computed(() => sharedTroubles(plan.value?.rows ?? []))
const mendedCount = computed(() => Object.keys(mended.value).length)
const shown = computed(() => {
  const { value } = plan
  if (value === null) return []
  return value.rows.filter(
    ({ row, fate, doubts }) =>
      fate !== 'blank' &&
      (!onlyTrouble.value || fate === 'wrong' || doubts.some(({ asks }) => asks) || touched.value.has(row)),
  )
})
const canWrite = computed(
  () => plan.value !== null && plan.value.counts.add > 0 && (plan.value.counts.wrong === 0 || leaveOut.value),
)
/** So many entries go together; a request takes no more. */
const TOGETHER = 40
/** Letters of a saw's name that are kept when it gives the name back. */
const NAME_KEPT = 28
/** Saws that came in are done with, and their names are free. */
const sawsOut = (came: readonly NewSaw[], at: number): NewSawEntry[] =>
  came.flatMap(({ id, nickname }, i): NewSawEntry[] => {
    const base = (after: number) => ({
      id: nanoid(),
      sawId: id,
      happenedAt: new Date(at + after).toISOString(),
      personId: shed.meId(),
    })
    const to = `${nickname.slice(0, NAME_KEPT)} (out ${nanoid(4)})`
    return [
      { ...base(2 * i), kind: 'sawRenamed', from: nickname, to },
      { ...base(2 * i + 1), kind: 'sawGone', how: 'retired' },
    ]
  })
/** Everything that came in goes out in one: loops are retired as a mistake, saws done with, tags and names free. */
async function takeOut(came: readonly NewEntry[], cameSaws: readonly NewSaw[]): Promise<void> {
  const tags = new Set(shed.loops.map(({ tag }) => tag))
  const at = Date.now()
  const base = (loopId: string, i: number) => ({
    id: nanoid(),
    loopId,
    happenedAt: new Date(at + i).toISOString(),
    personId: shed.meId(),
  })
  const loopsOut = came.flatMap((entry): NewEntry[] => {
    if (entry.kind !== 'registered') return []
    const tag = freshTag(tags, Math.random())
    if (tag !== null) tags.add(tag)
    return [
      ...(tag === null ? [] : [{ ...base(entry.loopId, 0), kind: 'retagged' as const, tag }]),
      { ...base(entry.loopId, 1), kind: 'retired', reason: 'mistake' },
    ]
  })
  const out = [...loopsOut, ...sawsOut(cameSaws, at + 2)]
  for (let i = 0; i < out.length; i += TOGETHER) {
    const why = await writing.write(out.slice(i, i + TOGETHER), 'What the sheet brought is out again')
    if (why !== null) {
      notices.say(why)
      return
    }
  }
  await shed.load()
}
async function write(): Promise<void> {
  if (plan.value === null || !canWrite.value) return
  busy.value = 'writing'
  wrong.value = ''
  try {
    const { loops, saws } = await postImport({ saws: plan.value.saws, entries: plan.value.entries })
    void keep(
      REMEMBERED,
      JSON.stringify({ ...remembered(), ...rememberColumns(laidOut.value?.headings ?? [], match.value) }),
    )
    await shed.load()
    const also = saws === 0 ? '' : `, and ${saws} ${saws === 1 ? 'saw' : 'saws'}`
    const { entries: came, saws: cameSaws } = plan.value
    notices.say(`${loops} ${loops === 1 ? 'loop is' : 'loops are'} in the shed${also}.`, () => takeOut(came, cameSaws))
    picked.value = null
    keepUnderWay(null)
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
        One loop a row: tag, pitch, gauge, drive links, and whatever else you keep. Titles above the headings do no
        harm. Nothing is written before you have seen what becomes of every row.
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
        Reading {{ fileName }} … <button type="button" class="act small" @click="cancel">Stop</button>
      </p>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    </section>
    <section v-if="laidOut" class="sheet stack" aria-labelledby="matched">
      <h2 id="matched">Which column is what</h2>
      <div class="row where">
        <label v-if="laidOut.sheets.length > 1" class="pair"
          >Sheet
          <SelectField
            :options="laidOut.sheets.map((label, value) => ({ value, label }))"
            :model-value="laidOut.sheet"
            @update:model-value="layOut($event, null)"
        /></label>
        <label class="pair"
          >Headings in row
          <input class="plain number" type="number" min="1" :value="laidOut.headingRow" @change="headingsIn"
        /></label>
      </div>
      <p v-if="missing.length > 0" class="caution" role="status">
        Still to be matched: {{ missing.map((field) => IMPORT_FIELD_NAMES[field].toLowerCase()).join(', ') }}.
      </p>
      <div class="columns">
        <div v-for="field in IMPORT_FIELDS" :key="field" class="field">
          <span class="legend"
            >{{ IMPORT_FIELD_NAMES[field] }}{{ NEEDED_FIELDS.includes(field) ? ' (needed)' : '' }}</span
          ><SelectField
            :model-value="match[field] ?? -1"
            :options="columns"
            :aria-label="`Column for ${IMPORT_FIELD_NAMES[field]}`"
            @update:model-value="matchTo(field, $event)"
          /><span class="soft sample">{{ sampleOf(field) }}</span>
        </div>
      </div>
      <p v-if="unused.length > 0" class="soft">
        Nothing is taken from {{ unused.length === 1 ? 'the column' : 'the columns' }} {{ unused.join(', ') }}.
      </p>
    </section>
    <section v-if="busy === 'planning' && plan === null" class="sheet stack" role="status">
      <p>
        Looking at row {{ done }} of {{ laidOut?.rows }} …
        <button type="button" class="act small" @click="cancel">Stop</button>
      </p>
      <progress :value="done" :max="laidOut?.rows" aria-label="Rows looked at" />
    </section>
    <section v-if="plan" class="sheet stack" aria-labelledby="fates" :aria-busy="busy === 'planning'">
      <h2 id="fates">What becomes of {{ plan.rows.length }} {{ plan.rows.length === 1 ? 'row' : 'rows' }}</h2>
      <p class="tally" role="status">
        <strong class="figures">{{ plan.counts.add }}</strong> come in
        <span class="soft">({{ plan.counts.doubtful }} with a doubt)</span> ·
        <strong class="figures" :class="{ 'stop-text': plan.counts.wrong > 0 }">{{ plan.counts.wrong }}</strong> cannot
        ·
        <template v-if="plan.counts.out > 0"
          ><strong class="figures">{{ plan.counts.out }}</strong> left out · </template
        ><strong class="figures">{{ plan.counts.blank }}</strong> blank ·
        <strong class="figures">{{ plan.saws.length }}</strong>
        {{ plan.saws.length === 1 ? 'saw is' : 'saws are' }} added
      </p>
      <SharedTroubles v-if="shared.length > 0" :troubles="shared" :saws="sawNames" @settle="settle" />
      <p class="row">
        <button type="button" class="act small" :aria-pressed="onlyTrouble" @click="onlyTrouble = !onlyTrouble">
          Only doubts and trouble</button
        ><span v-if="mendedCount > 0" class="soft"
          >{{ mendedCount }} {{ mendedCount === 1 ? 'row' : 'rows' }} mended here; the file stays as it is.</span
        >
      </p>
      <ul v-if="shown.length > 0" class="fates" aria-label="Row by row">
        <TroubleRow
          v-for="row in shown.slice(0, SHOWN)"
          :key="row.row"
          :row="row"
          :saws="sawNames"
          @mend="(field, text) => mendCell(row.row, field, text)"
          @out="(out) => setOut(row.row, out)"
        />
      </ul>
      <p v-if="shown.length > SHOWN" class="soft">And {{ shown.length - SHOWN }} more rows like these.</p>
      <p v-if="plan.counts.wrong > 0" class="row">
        <button type="button" class="act" :aria-pressed="leaveOut" @click="leaveOut = !leaveOut">
          Leave out the {{ plan.counts.wrong }} that cannot</button
        ><span class="soft">or mend them above.</span>
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
.fates {
  list-style: none;
  margin: 0;
  padding: 0;
}
.pair {
  display: flex;
  gap: 10px;
  align-items: center;
  font-weight: 700;
}
.number {
  width: 90px;
}
.save {
  font-size: 1.15rem;
  min-height: 60px;
}
</style>
