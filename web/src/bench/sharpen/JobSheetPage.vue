<script setup lang="ts">
import { decide, jobSheetOf, SHARPENING_REFUSALS, type Sharpening } from '@undercliff/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import LoopAway from '../../parts/LoopAway.vue'
import { saveFile } from '../../parts/saveFile'
import { postJobSheet } from '../../remote/api'
import { useOpenLoop } from '../../remote/openLoop'
import { useSession } from '../../remote/sessionStore'
import { useSharpening } from './sharpening'

/** A sharpening on paper: printed or as a PDF, and entered in one walk once it was written on. */
const props = defineProps<{ tag: string }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const { loop, shed, rules } = useOpenLoop(() => props.tag)
const state = computed(() => loop.state)
const ACTIONS: readonly Sharpening['action'][] = ['touchUp', 'file', 'regrind']
const here = useSharpening(props.tag, state, rules, () => ({
  action:
    ACTIONS.find((action) => action === route.query.action) ??
    ACTIONS.find((action) => state.value !== null && action === decide(state.value, rules.value).action) ??
    'file',
  personId: session.me?.personId ?? null,
}))
const { plan, sharpening, events } = here
const sheet = computed(() =>
  plan.value === null || state.value === null
    ? null
    : jobSheetOf(plan.value, state.value.spec, props.tag, shed.figures),
)
const wrong = ref('')
const busy = ref(false)
async function pdf(): Promise<void> {
  if (state.value === null) return
  busy.value = true
  wrong.value = ''
  try {
    const { mounted: _mounted, kit: _kit, ...wanted } = sharpening.value
    saveFile(await postJobSheet(state.value.loopId, wanted), `undercliff-${props.tag}.pdf`)
  } catch (error) {
    wrong.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
const print = (): void => {
  window.print()
}
/** Straight to the first cutter: what came before was done with the paper in hand. */
async function enter(): Promise<void> {
  const before = plan.value?.steps.findIndex(({ hand }) => hand !== null) ?? 0
  if (events.value.length === 0) {
    here.want({ fromPaper: true })
    here.add(...Array.from({ length: before }, () => ({ kind: 'done' as const })))
  }
  await router.push({ name: 'sharpen', params: { tag: props.tag } })
}
</script>

<template>
  <LoopAway v-if="state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <article v-else-if="sheet && plan" class="sheet stack paper">
    <header>
      <h1>{{ sheet.title }}</h1>
      <p class="soft">{{ sheet.what }} · {{ sheet.minutes }}</p>
    </header>
    <p v-if="plan.refusal" class="caution grave" role="alert">{{ SHARPENING_REFUSALS[plan.refusal] }}</p>
    <p v-else class="row no-print">
      <button type="button" class="act next" :disabled="busy" @click="pdf">As a PDF</button>
      <button type="button" class="act" @click="print">Print</button>
      <button type="button" class="act" @click="enter">Enter what was written</button>
      <RouterLink :to="{ name: 'sharpen', params: { tag } }">Step by step instead</RouterLink>
    </p>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <p class="print-only">Done by ______________________ on ______________ minutes ______</p>
    <div class="two">
      <section>
        <h2>Set-up</h2>
        <dl class="fact-list">
          <template v-for="[name, value] in sheet.setUp" :key="name"
            ><dt>{{ name }}</dt>
            <dd>{{ value }}</dd></template
          >
        </dl>
      </section>
      <section>
        <h2>Mind</h2>
        <ul>
          <li v-for="caution in sheet.cautions" :key="caution">{{ caution }}</li>
        </ul>
      </section>
    </div>
    <div class="two">
      <table v-for="side in sheet.sides" :key="side.title">
        <caption>
          {{ side.title }}
        </caption>
        <thead>
          <tr>
            <th scope="col">Cutter</th>
            <th scope="col">Now</th>
            <th scope="col">To</th>
            <th scope="col">Gets</th>
            <th scope="col">Done</th>
            <th scope="col">After</th>
          </tr>
        </thead>
        <tbody class="figures">
          <tr v-for="row in side.rows" :key="row.number" :class="{ hurt: row.hurt }">
            <th scope="row">{{ row.name }}{{ row.hurt ? ' !' : '' }}</th>
            <td>{{ row.length }}</td>
            <td>
              <strong>{{ row.target }}</strong>
            </td>
            <td>{{ row.count }}</td>
            <td><span class="box" /></td>
            <td class="write" />
          </tr>
        </tbody>
      </table>
    </div>
    <p>{{ sheet.gauges }}</p>
  </article>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 14px 28px;
  align-items: start;
}
table {
  width: 100%;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 700;
}
th,
td {
  text-align: left;
  padding: 3px 6px 3px 0;
  border-top: 1px solid var(--rule);
  font-size: 0.9rem;
}
.box {
  display: inline-block;
  width: 14px;
  height: 14px;
  border: 1.5px solid var(--ink);
}
.write {
  min-width: 4em;
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .paper {
    font-size: 9pt;
  }
  th,
  td {
    padding-block: 1px;
    font-size: 8pt;
  }
}
</style>
