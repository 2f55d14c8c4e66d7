<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { CUTTER_TYPE_NAMES, decide, fits, forecast, loopLength, pitchUmOf, SEQUENCE_NAMES, specLine, toothSign, writeFile, writeLength, writeMm, type Action } from '@undercliff/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { isTyping } from '../parts/typing'
import ToothSign from '../parts/ToothSign.vue'
import { useOpenLoop } from '../remote/openLoop'
import { useNotices } from '../remote/notices'
import LifeChart from './LifeChart.vue'
import LogList from './LogList.vue'
import LoopMap from './LoopMap.vue'
import OptionsTable from './OptionsTable.vue'
import VerdictPanel from './VerdictPanel.vue'
import LoopAway from './LoopAway.vue'

const props = defineProps<{ tag: string }>()
const router = useRouter()
const notices = useNotices()
const { loop, shed, rules } = useOpenLoop(() => props.tag)

const state = computed(() => loop.state)
const verdict = computed(() => (state.value === null ? null : decide(state.value, rules.value)))
const ahead = computed(() => (state.value === null ? null : forecast(state.value, rules.value)))
const selected = ref<number | undefined>()

/** Where the next step of the work is, for each verdict. */
const NEXT: Record<Action, { to: string; label: string }> = {
  retire: { to: 'note/retired', label: 'Retire this loop' },
  stop: { to: 'note/inspected', label: 'Log what was found' },
  inspect: { to: 'note/inspected', label: 'Log the inspection' },
  measure: { to: 'measure', label: 'Measure it' },
  regrind: { to: 'sharpened', label: 'Log the regrind' },
  file: { to: 'sharpened', label: 'Log the filing' },
  lowerGauges: { to: 'note/gaugesLowered', label: 'Log the gauges lowered' },
  touchUp: { to: 'sharpened', label: 'Log the touch-up' },
  runOn: { to: 'note/ran', label: 'Log tanks run' },
}
const base = computed(() => `/loops/${encodeURIComponent(props.tag)}`)
const next = computed(() => (verdict.value === null || state.value?.retired ? null : NEXT[verdict.value.action]))
const others = computed(() => [
  { to: 'measure', label: 'Measure', key: 'm' },
  { to: 'sharpened', label: 'Sharpened', key: 's' },
  { to: 'note/ran', label: 'Ran', key: 'r' },
  { to: 'note/struck', label: 'Struck', key: 'x' },
  { to: 'note/inspected', label: 'Inspected', key: 'i' },
  { to: 'note/gaugesLowered', label: 'Gauges', key: 'g' },
  { to: 'note/retired', label: 'Retire', key: 'e' },
])
onKeyStroke((event) => !isTyping(event) && others.value.some(({ key }) => key === event.key), (event) => {
  const found = others.value.find(({ key }) => key === event.key)
  if (found !== undefined && state.value?.retired === null) {
    event.preventDefault()
    void router.push(`${base.value}/${found.to}`)
  }
})

const sawsThatFit = computed(() => (state.value === null ? [] : shed.saws.filter((saw) => state.value !== null && fits(state.value.spec, saw) && saw.id !== state.value.sawId)))
async function putOn(sawId: string): Promise<void> {
  const there = shed.loops.find((card) => card.sawId === sawId)
  const { nanoid } = await import('nanoid')
  const before = there === undefined ? [] : [{ id: nanoid(), loopId: there.loopId, happenedAt: new Date().toISOString(), personId: null, kind: 'takenOff' as const }]
  const said = there === undefined ? `${props.tag} is on ${shed.sawName(sawId)}` : `${props.tag} is on ${shed.sawName(sawId)}; ${there.tag} came off`
  const wrong = await loop.write({ kind: 'fitted', sawId, personId: null }, said, before)
  if (wrong !== null) notices.say(wrong)
}
async function takeOff(): Promise<void> {
  const wrong = await loop.write({ kind: 'takenOff', personId: null }, `${props.tag} is off the saw`)
  if (wrong !== null) notices.say(wrong)
}
const sides = computed(() => {
  const difference = ahead.value?.summary.difference
  if (difference === undefined || difference === null) return 'Measure two cutters a side to compare the sides.'
  const { lengths } = shed
  const longer = difference.difference >= 0 ? 'left' : 'right'
  const range = [difference.low, difference.high]
    .map((um) => Math.round(Math.abs(um)))
    .sort((a, b) => a - b)
    .map((um) => writeLength(um, lengths))
  const sure = difference.p < 0.05
  return sure
    ? `The ${longer} side is ${writeLength(Math.round(Math.abs(difference.difference)), lengths)} longer on average (${range.join(' to ')}): it pulls ${longer}.`
    : `The sides differ by ${writeLength(Math.round(Math.abs(difference.difference)), lengths)}, within what the readings can tell.`
})
const gauges = computed(() => {
  if (ahead.value === null) return ''
  const { settingUm, targetUm, settingMeasured, gaugePass } = ahead.value
  const due = gaugePass.dueInSharpenings
  const when = due === null ? '' : due === 0 ? ' Due now.' : ` Due in about ${due} ${due === 1 ? 'sharpening' : 'sharpenings'}.`
  return `${settingMeasured ? 'Measured' : 'About'} ${writeLength(settingUm, shed.lengths)} on average, wanted ${writeLength(targetUm, shed.lengths)}.${when}`
})
</script>

<template>
  <LoopAway v-if="state === null || verdict === null || ahead === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <div v-else class="loop">
    <header class="who">
      <ToothSign class="sign" :tooth="toothSign(state, rules)" :retired="state.retired !== null" />
      <div>
        <h1 class="figures">{{ state.tag }}</h1>
        <p class="spec">{{ specLine(state.spec) }} · {{ CUTTER_TYPE_NAMES[state.spec.cutterType] }}, {{ SEQUENCE_NAMES[state.spec.sequence] }}</p>
        <p><strong>File {{ writeFile(state.spec.fileUm) }}</strong> at {{ state.spec.topPlateAngleDeg }}° · gauges {{ writeLength(state.spec.settingUm, 'both') }} · loop {{ writeMm(loopLength(pitchUmOf(state.spec), state.spec.driveLinks), 0) }}</p>
      </div>
      <p class="where">
        <strong>{{ state.retired ? 'Retired' : state.sawId === null ? 'Off the saws' : `On ${shed.sawName(state.sawId)}` }}</strong>
        <span class="soft figures">{{ state.sharpenings }} sharpenings · {{ state.tanks }} tanks</span>
      </p>
    </header>

    <div class="sheet decide">
      <VerdictPanel :verdict="verdict" :lengths="shed.lengths" />
      <nav v-if="next" class="do no-print" aria-label="What to do">
        <RouterLink class="act next" :to="`${base}/${next.to}`">{{ next.label }}</RouterLink>
        <div class="others">
          <RouterLink v-for="other in others.filter(({ to }) => to !== next?.to)" :key="other.to" class="act small" :to="`${base}/${other.to}`">{{ other.label }} <kbd class="keys-only">{{ other.key }}</kbd></RouterLink>
        </div>
      </nav>
    </div>

    <section class="sheet">
      <h2>Round the loop from the start mark <span class="soft">{{ ahead.summary.measured }} of {{ state.cutters.length }} cutters measured</span></h2>
      <LoopMap :state="state" :lengths="shed.lengths" :selected="selected" :target-um="ahead.targetUm" @select="selected = $event" />
      <p><strong>Sides.</strong> {{ sides }}</p>
      <p><strong>Gauges.</strong> {{ gauges }}</p>
    </section>

    <div class="two">
      <LifeChart class="sheet" :state="state" :forecast="ahead" :reserve-um="rules.reserveUm" />
      <OptionsTable class="sheet" :options="verdict.options" :chosen="verdict.action" :lengths="shed.lengths" />
    </div>
    <section v-if="!state.retired" class="sheet no-print">
      <h2>Where it is</h2>
      <p v-if="!verdict.fitForUse" class="caution grave">{{ tag }} must not go on a saw as it is.</p>
      <p v-else class="caution">Brake on, engine off and cold or battery out, gloves on. Flip the bar, set the tension, check it again after a few minutes.</p>
      <p class="row fit">
        <template v-if="verdict.fitForUse"><button v-for="saw in sawsThatFit" :key="saw.id" type="button" class="act small" @click="putOn(saw.id)">Put on {{ saw.nickname }}</button></template>
        <button v-if="state.sawId !== null" type="button" class="act small" @click="takeOff">Take off {{ shed.sawName(state.sawId) }}</button>
        <span v-if="sawsThatFit.length === 0 && state.sawId === null" class="soft">No saw takes this pitch, gauge and number of drive links.</span>
      </p>
    </section>
    <LogList class="sheet" :entries="loop.entries" :waiting="loop.waiting" :lengths="shed.lengths" @strike="loop.strikeOut" />
  </div>
</template>

<style scoped>
.loop { display: grid; gap: 14px; grid-template-columns: minmax(0, 1fr); }
.who { display: grid; grid-template-columns: 128px 1fr auto; gap: 18px; align-items: center; padding: 6px 0; }
.who h1 { font-size: 2.2rem; }
.spec { font-weight: 700; }
.where { display: grid; text-align: right; }
.decide { display: grid; grid-template-columns: 1fr minmax(280px, 380px); gap: 24px; border-top: 4px solid var(--ink); }
.do { display: grid; gap: 12px; align-content: start; }
.do .next { font-size: 1.2rem; min-height: 60px; }
.others { display: grid; grid-template-columns: repeat(3, 1fr); gap: 6px; }
.two { display: grid; grid-template-columns: minmax(0, 5fr) minmax(0, 6fr); gap: 14px; }
.fit { margin-top: 10px; }
@media (max-width: 900px) {
  .who { grid-template-columns: 84px 1fr; }
  .where { grid-column: 1 / 3; text-align: left; display: flex; gap: 12px; }
  .decide, .two { grid-template-columns: minmax(0, 1fr); }
  .others { grid-template-columns: 1fr 1fr; }
}
</style>
