<script setup lang="ts">
import {
  CUTTER_DAMAGE,
  cutterName,
  decide,
  endedAs,
  endingsFound,
  parcelOf,
  PLAN_DOUBTS,
  sayAgo,
  sayMinutes,
  sayStep,
  SHARPENING_REFUSALS,
  type PutBack,
  type Sharpening,
} from '@undercliff/core'
import { keptRef } from '../../remote/keptRef'
import { nanoid } from 'nanoid'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import LoopAway from '../../parts/LoopAway.vue'
import PlateStep from '../../parts/PlateStep.vue'
import { useOpenLoop } from '../../remote/openLoop'
import { useSession } from '../../remote/sessionStore'
import { useWriting } from '../../remote/writing'
import CutterWork from './CutterWork.vue'
import PutBackList from './PutBackList.vue'
import SetUpCard from './SetUpCard.vue'
import SharpenEnd from './SharpenEnd.vue'
import StepList from './StepList.vue'
import SpeedsRead from './SpeedsRead.vue'
import WithWhat from './WithWhat.vue'
import { useSharpening } from './sharpening'

/** A loop is sharpened step by step: what to do, which cutter is in hand and what it gets, and the log at the end. */
const props = defineProps<{ tag: string }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const writing = useWriting()
const { loop, shed, rules } = useOpenLoop(() => props.tag)
const state = computed(() => loop.state)

const ACTIONS: readonly Sharpening['action'][] = ['touchUp', 'file', 'regrind']
const advised = computed(() => (state.value === null ? 'runOn' : decide(state.value, rules.value).action))
const here = useSharpening(props.tag, state, rules, () => ({
  action:
    ACTIONS.find((action) => action === route.query.action) ??
    ACTIONS.find((action) => action === advised.value) ??
    'file',
  personId: session.me?.personId ?? null,
}))
const { plan, walk, events, there, leftOpen, overtaken, end, takeOver } = here
const step = computed(() => walk.value?.step ?? null)
const words = computed(() =>
  plan.value === null || step.value === null ? null : sayStep(step.value.id, step.value.hand, plan.value),
)
const inSide = computed(() => step.value?.hand != null)
const leftInSide = computed(() => (walk.value === null ? '' : `${walk.value.place + 1} of ${walk.value.of}`))
const ended = computed(() => (plan.value === null || walk.value === null ? 'nothing' : endedAs(plan.value, walk.value)))
/** It ends here, although steps are left. */
const ending = ref(false)
const putBack = keptRef<readonly PutBack[]>(`undercliff:put-back:${props.tag}`, [])
const cracked = computed(() => (walk.value === null ? [] : endingsFound(walk.value)))

function stop(): void {
  end()
  void router.push({ name: 'loop', params: { tag: props.tag } })
}
const wrong = ref('')
/** What ends the loop is written down; nothing more is done to it. */
async function logEnding(): Promise<void> {
  if (plan.value === null || walk.value === null || state.value === null) return
  const { loopId, cutters } = state.value
  const readings = cracked.value.map((cutter) => ({
    cutter,
    damage: [...(cutters[cutter - 1]?.damage ?? []), ...(walk.value?.work.get(cutter)?.found ?? [])],
  }))
  const base = { loopId, personId: here.now.value.personId }
  const endedMs = Date.now()
  const entries = parcelOf(plan.value, events.value, { ...base, newId: nanoid, endedMs, gaugesTo: null })
  const found = {
    ...base,
    id: nanoid(),
    happenedAt: new Date(endedMs + 1).toISOString(),
    kind: 'inspected' as const,
    readings,
    parts: [],
  }
  wrong.value = (await writing.write([...entries, found], `What was found on ${props.tag} is logged`)) ?? ''
  if (wrong.value === '') stop()
}
const nameOf = (number: number): string => cutterName(number, state.value?.cutters[number - 1]?.hand ?? 'left')
const what = (number: number): string =>
  (walk.value?.work.get(number)?.found ?? [])
    .filter(({ kind }) => CUTTER_DAMAGE[kind].effect === 'ends')
    .map(({ kind }) => CUTTER_DAMAGE[kind].name)
    .join(', ')
/** It is to be left: where cutters were worked that is asked about first. */
const leaving = ref(false)
function leave(): void {
  if (here.begunSide.value === null) stop()
  else leaving.value = true
}
async function nothingFiled(): Promise<void> {
  await here.nothingWasDone()
  stop()
}
/** How long ago another device was last heard of. */
const ago = computed(() => (there.value === null ? '' : sayAgo(Date.now() - Date.parse(there.value.savedAt))))
</script>

<template>
  <LoopAway v-if="state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <div v-else-if="plan && walk" class="desk sharpen">
    <section class="sheet stack work" aria-labelledby="sharpen-title">
      <h1 id="sharpen-title">
        Sharpen <RouterLink :to="{ name: 'loop', params: { tag } }" class="figures">{{ tag }}</RouterLink>
        <span class="soft"> {{ sayMinutes(plan.minutes) }}</span>
      </h1>
      <p v-if="there" class="caution" role="alert" data-elsewhere>
        {{ shed.nameOf(there.personId) }} is at this loop on {{ there.device }}, {{ ago }}.
        <button type="button" class="act small" @click="takeOver(there)">Go on here with it</button>
      </p>
      <p v-if="overtaken && !there" class="caution grave" role="alert" data-overtaken>
        {{ shed.nameOf(overtaken.personId) }} logged a sharpening of this loop after this one was begun here. If it was
        the same work, <button type="button" class="act small" @click="stop">throw this one away</button>
      </p>
      <p v-else-if="leftOpen" class="caution" role="status">
        This was left open on another day. Go on where it was, or
        <button type="button" class="act small" @click="stop">throw it away</button>
      </p>
      <p v-if="plan.refusal" class="caution grave" role="alert">{{ SHARPENING_REFUSALS[plan.refusal] }}</p>
      <SpeedsRead v-if="plan.refusal === 'wheelUnnamed' || plan.refusal === 'wheelSpeedUnknown'" :here="here" />
      <p v-for="doubt in plan.doubts" :key="doubt" class="caution">{{ PLAN_DOUBTS[doubt] }}</p>
      <template v-if="cracked.length > 0">
        <p class="caution grave" role="alert">
          {{ cracked.map((cutter) => `${nameOf(cutter)}: ${what(cutter)}`).join('; ') }}. That ends a loop, however long
          its cutters are: nothing more is done to it.
        </p>
        <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
        <div class="row">
          <button type="button" class="act next" @click="logEnding">Log what was found</button>
          <button type="button" class="act" @click="here.undo">Undo</button>
        </div>
      </template>
      <template v-else-if="ending">
        <SharpenEnd v-model:put-back="putBack" :here="here" :state="state" :tag="tag" early />
        <button type="button" class="act" @click="ending = false">Go on instead</button>
      </template>
      <template v-else-if="step && words && plan.refusal === null">
        <div class="step" aria-live="polite">
          <h2>{{ words.name }} <span v-if="inSide" class="soft figures">{{ leftInSide }}</span></h2>
          <p v-if="words.caution" class="caution">{{ words.caution }}</p>
          <details :open="walk.place === 0">
            <summary>How</summary>
            <p>{{ words.what }}</p>
            <p class="soft">
              <strong>Right when:</strong> {{ words.see }} <strong>Usual mistake:</strong> {{ words.mistake }}
            </p>
          </details>
        </div>
        <p v-if="step.id === 'gauges'" data-plate>
          {{ here.plate.value?.how }}
        </p>
        <PlateStep v-if="step.id === 'gauges'" :saw-id="state.sawId" :rules="rules" />
        <PutBackList
          v-if="step.id === 'putBack' && state.sawId !== null"
          v-model="putBack"
          :saw-name="shed.sawName(state.sawId)"
        />
        <CutterWork :here="here" :state="state" :rules="rules" />
      </template>
      <SharpenEnd v-else-if="plan.refusal === null" v-model:put-back="putBack" :here="here" :state="state" :tag="tag" />
    </section>
    <div class="stack">
      <section class="sheet stack">
        <WithWhat :here="here" :state="state" :rules="rules" />
        <p v-if="events.length === 0" class="row">
          <RouterLink :to="{ name: 'sharpened', params: { tag }, query: $route.query }">Log it in one go</RouterLink>
          <RouterLink :to="{ name: 'jobSheet', params: { tag }, query: $route.query }">Job sheet on paper</RouterLink>
        </p>
        <p v-if="plan.waiting" class="soft">Only the {{ plan.waiting }} side is left to do.</p>
        <p v-else-if="plan.bites.left !== plan.bites.right && plan.gives === 'strokes'" class="soft">
          Begins with the {{ plan.sides[0]?.hand }} side.
        </p>
        <template v-if="events.length > 0 && step && !ending">
          <button v-if="ended !== 'nothing'" type="button" class="act small" @click="ending = true">End here …</button>
          <button v-if="!leaving" type="button" class="act small" @click="leave">Stop, and log nothing</button>
          <div v-else class="stack" role="alert">
            <p class="caution grave">
              A cutter was worked: half sharp the saw pulls. The loop stays off, on every device, until both sides are
              done.
            </p>
            <RouterLink class="act small" :to="{ name: 'loop', params: { tag } }">Leave it; go on later</RouterLink>
            <button type="button" class="act small" @click="nothingFiled">Nothing was filed: as it was</button>
            <button type="button" class="act small" @click="leaving = false">Go on</button>
          </div>
        </template>
      </section>
      <SetUpCard class="sheet" :tool="plan.tool" :set-up="plan.setUp" :figures="shed.figures" />
      <StepList class="sheet" :here="here" />
    </div>
  </div>
</template>

<style scoped>
.work {
  align-content: start;
}
h1 .soft {
  margin-left: 10px;
  font-size: 1rem;
  font-weight: 400;
}
.step details[open] > summary {
  display: none;
}
.step summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  font-weight: 700;
  text-decoration: underline;
  cursor: pointer;
}
.step p {
  margin: 6px 0 0;
}
</style>
