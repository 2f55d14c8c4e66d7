<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import {
  ACTION_WORDS,
  CUTTER_TYPE_NAMES,
  decide,
  fileFor,
  forecast,
  loopLength,
  pitchUmOf,
  sayFile,
  sayHeld,
  sayPlace,
  sayRange,
  SEQUENCE_NAMES,
  sideBalance,
  specLine,
  toothSign,
  topPlateAngleFor,
  nameFile,
  writeLength,
  writeMm,
  type Action,
  waysOut,
} from '@undercliff/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { isTyping } from '../../parts/typing'
import ToothSign from '../../parts/ToothSign.vue'
import { useOpenLoop } from '../../remote/openLoop'
import { JOBS, type LoopScreen } from '../../parts/jobs'
import { useMoves } from '../../move/moveStore'
import { useSession } from '../../remote/sessionStore'
import SidesPanel from '../../parts/SidesPanel.vue'
import LifeChart from './LifeChart.vue'
import LogList from './LogList.vue'
import LoopMap from '../../parts/LoopMap.vue'
import FirstHint from '../../parts/FirstHint.vue'
import NextJob from '../../parts/NextJob.vue'
import OfferedMove from './OfferedMove.vue'
import PlatePhotos from '../../parts/photos/PlatePhotos.vue'
import VerdictPanel from '../../parts/VerdictPanel.vue'
import LoopAway from '../../parts/LoopAway.vue'
import OvertakenLine from '../../parts/OvertakenLine.vue'

const props = defineProps<{ tag: string }>()
const router = useRouter()
const moves = useMoves()
const session = useSession()
const { loop, shed, rules } = useOpenLoop(() => props.tag)

const state = computed(() => loop.state)
const verdict = computed(() => (state.value === null ? null : decide(state.value, rules.value)))
const ahead = computed(() => (state.value === null ? null : forecast(state.value, rules.value)))
const selected = ref<number | undefined>()

/** Words of the log for a job, where a page of the log is where it is done. */
const LOG_WORDS: Partial<Record<Action, string>> = {
  retire: 'Retire this loop',
  inspect: 'Log the inspection',
  regrind: 'Log the regrind',
  file: 'Log the filing',
  lowerGauges: 'Log the gauges lowered',
  touchUp: 'Log the touch-up',
}
/** Where the next step of the work is, for each verdict. */
const nextOf = (action: Action): { to: LoopScreen; label: string } => {
  const { to, start } = JOBS[action]
  return to === null ? { to: 'decide', label: ACTION_WORDS[action] } : { to, label: LOG_WORDS[action] ?? start }
}
const at = (name: LoopScreen) => ({ name, params: { tag: props.tag } })
/** Of a sharpening that was begun and not ended a side waits: what comes next is to go on with it. */
const sideWaits = computed(
  () => state.value !== null && (state.value.begun !== null || state.value.waitingSide !== null),
)
const next = computed(() => {
  if (verdict.value === null || state.value?.retired) return null
  const { action } = verdict.value
  if (action === 'stop' && sideWaits.value) return { to: 'sharpen' as const, label: 'Go on with the side that waits' }
  return nextOf(action === 'retire' && !session.isLead ? 'stop' : action)
})
const others = computed((): { to: LoopScreen; label: string; key: string }[] => [
  { to: 'decide', label: 'Decide', key: 'd' },
  { to: 'measure', label: 'Measure', key: 'm' },
  { to: 'sharpened', label: 'Sharpened', key: 's' },
  { to: 'sharpen', label: 'Step by step', key: 't' },
  { to: 'ran', label: 'Ran', key: 'r' },
  { to: 'struck', label: 'Struck', key: 'x' },
  { to: 'inspected', label: 'Inspected', key: 'i' },
  { to: 'gaugesLowered', label: 'Gauges', key: 'g' },
  { to: 'signs', label: state.value?.signs.length === 0 ? 'It tells …' : 'What it tells', key: 'w' },
  ...(session.isLead ? [{ to: 'retire', label: 'Retire', key: 'e' } as const] : []),
])
onKeyStroke(
  (event) => !isTyping(event) && others.value.some(({ key }) => key === event.key),
  (event) => {
    const found = others.value.find(({ key }) => key === event.key)
    if (found !== undefined && state.value?.retired === null) {
      event.preventDefault()
      void router.push(at(found.to))
    }
  },
)

const put = (): void => {
  if (state.value !== null && state.value.retired === null) moves.ask([state.value.loopId])
}
onKeyStroke('p', (event) => {
  if (isTyping(event) || event.ctrlKey || event.metaKey || moves.asked !== null) return
  event.preventDefault()
  put()
})
const where = computed(() => (state.value === null ? '' : sayPlace(state.value.place, shed.sawName, shed.dates)))
const file = computed(() =>
  state.value === null || ahead.value === null
    ? null
    : fileFor(state.value.spec, ahead.value.summary.shortest.length.um, rules.value.fileSchool),
)
const angle = computed(() =>
  state.value === null ? 0 : topPlateAngleFor(state.value.spec, rules.value.chiselAngleDeg),
)
const balance = computed(() =>
  state.value === null || ahead.value === null ? null : sideBalance(state.value, rules.value, ahead.value),
)
/** While a reading is held out nothing that hangs on it is shown as if it were known. */
const held = computed(() => (state.value === null ? null : sayHeld(state.value, shed.figures)))
const feasible = computed(() => verdict.value?.options.filter((option) => option.feasible).length ?? 0)
const gauges = computed(() => {
  if (ahead.value === null) return ''
  const { settingUm, targetUm, settingMeasured, gaugesDue: due } = ahead.value
  const when = due === null ? '' : due.likely === 0 ? ' Due now.' : ` Due in ${sayRange(due)} sharpenings.`
  const [is, wanted] = [writeLength(settingUm, shed.lengths), writeLength(targetUm, shed.lengths)]
  return `${settingMeasured ? 'Measured' : 'About'} ${is} on average, wanted ${wanted}.${when}`
})
</script>

<template>
  <LoopAway
    v-if="state === null || verdict === null || ahead === null || balance === null"
    :status="loop.status"
    :tag="tag"
    @again="loop.open(tag)"
  />
  <div v-else class="loop">
    <header class="who">
      <ToothSign class="sign" :tooth="toothSign(state, rules)" :retired="state.retired !== null" />
      <div>
        <h1 class="figures">{{ state.tag }}</h1>
        <p class="spec">
          {{ specLine(state.spec) }} · {{ CUTTER_TYPE_NAMES[state.spec.cutterType] }},
          {{ SEQUENCE_NAMES[state.spec.sequence] }}
        </p>
        <p v-if="file">
          <strong>File {{ nameFile(file) }}</strong> at {{ angle }}°: {{ sayFile(file) }}
          <span class="rest"
            >Gauges {{ writeLength(state.spec.settingUm, 'both') }} · loop
            {{ writeMm(loopLength(pitchUmOf(state.spec), state.spec.driveLinks), 0) }}.</span
          >
        </p>
      </div>
      <p class="where">
        <strong>{{ where }}</strong>
        <span class="soft figures">{{ state.sharpenings }} sharpenings · {{ state.tanks }} tanks</span>
        <span class="row no-print end">
          <button v-if="!state.retired" type="button" class="act small" @click="put">
            Put … <kbd class="keys-only">p</kbd>
          </button>
          <RouterLink class="act small" :to="{ name: 'spec', params: { tag } }">Spec</RouterLink>
        </span>
      </p>
    </header>

    <FirstHint id="tooth">
      The drawn cutter is this loop’s own: its length to the line is what is left before the mark, red is damage that
      has to come off, and the bump in front is its depth gauge. Hatched is estimated.
    </FirstHint>
    <OvertakenLine :loop="state" />
    <OfferedMove :state="state" :action="verdict.action" />
    <NextJob :done-tag="tag" />
    <div class="sheet decide">
      <VerdictPanel
        :verdict="verdict"
        :figures="shed.figures"
        :ways="waysOut(state, rules, verdict)"
        :held="held !== null"
      />
      <nav v-if="next" class="do no-print" aria-label="What to do">
        <RouterLink class="act next" :to="at(next.to)">{{ next.label }}</RouterLink>
        <div class="others">
          <RouterLink
            v-for="other in others.filter(({ to }) => to !== next?.to)"
            :key="other.to"
            class="act small"
            :to="at(other.to)"
            >{{ other.label }} <kbd class="keys-only">{{ other.key }}</kbd></RouterLink
          >
        </div>
      </nav>
    </div>

    <section class="sheet">
      <h2>
        Round the loop from the start mark
        <span class="soft">{{ ahead.summary.measured }} of {{ state.cutters.length }} cutters measured</span>
      </h2>
      <LoopMap :state="state" :lengths="shed.lengths" :selected="selected" :rules="rules" @select="selected = $event" />
    </section>

    <div class="two">
      <section v-if="held" class="sheet stack" aria-labelledby="held-title" data-held>
        <h2 id="held-title">A reading that nothing explains</h2>
        <p class="caution">{{ held }}</p>
        <RouterLink class="act" :to="at('measure')">Measure</RouterLink>
      </section>
      <LifeChart v-else class="sheet" :state="state" :forecast="ahead" :reserve-um="rules.reserveUm" />
      <div class="stack">
        <SidesPanel v-if="!held" class="sheet" :sides="balance" :rules="rules" :figures="shed.figures" />
        <section class="sheet" aria-labelledby="gauges-title">
          <h2 id="gauges-title">Depth gauges</h2>
          <p>{{ gauges }}</p>
        </section>
        <section class="sheet" aria-labelledby="decide-title">
          <h2 id="decide-title">What else could be done</h2>
          <p>
            {{ feasible }} ways are open, with their costs, and what would change the verdict.
            <RouterLink :to="at('decide')">Decide</RouterLink>
          </p>
        </section>
      </div>
    </div>
    <PlatePhotos
      class="sheet"
      :subject="{ loopId: state.loopId }"
      :suggestions="['Stamp of a drive link', 'Chain box', 'Tag']"
    />
    <LogList class="sheet" :entries="loop.entries" :waiting="loop.waiting" @strike="loop.strikeOut" />
  </div>
</template>

<style scoped>
.loop {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
.who {
  display: grid;
  grid-template-columns: 128px 1fr auto;
  gap: 18px;
  align-items: center;
  padding: 6px 0;
}
.who h1 {
  font-size: 2.2rem;
}
.spec {
  font-weight: 700;
}
.where {
  display: grid;
  gap: 2px;
  text-align: right;
}
.end {
  justify-content: flex-end;
  gap: 6px;
  margin-top: 4px;
}
.decide {
  display: grid;
  grid-template-columns: 1fr minmax(280px, 380px);
  gap: 24px;
  border-top: 4px solid var(--ink);
}
.do {
  display: grid;
  gap: 12px;
  align-content: start;
}
.do .next {
  font-size: 1.2rem;
  min-height: 60px;
}
.others {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 6fr) minmax(0, 5fr);
  gap: 14px;
  align-items: start;
}
.two .stack {
  gap: 14px;
}
@media (max-width: 900px) {
  .who {
    grid-template-columns: 84px 1fr;
  }
  .where {
    grid-column: 1 / 3;
    text-align: left;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: center;
  }
  .decide,
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .others {
    grid-template-columns: 1fr 1fr;
  }
}
@media print {
  .loop {
    gap: 6px;
  }
  .two {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
