<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { writeLoopFile } from '@undercliff/contract'
import {
  ACTION_WORDS,
  actionInWords,
  decide,
  forecast,
  isLeadsJob,
  lifeOf,
  mayOverrule,
  POPULATION_WORDS,
  sayHeld,
  sayLearnedFrom,
  sayRange,
  sayTurn,
  sensitivity,
  sideBalance,
  toothSign,
  writeMoney,
  type Action,
  type Duty,
  waysOut,
  writeLength,
  sayDay,
} from '@undercliff/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import LoopAway from '../../parts/LoopAway.vue'
import LoopMap from '../../parts/LoopMap.vue'
import VerdictPanel from '../../parts/VerdictPanel.vue'
import { useMoves } from '../../move/moveStore'
import ToothSign from '../../parts/ToothSign.vue'
import { useOnePlan } from '../../parts/onePlan'
import { isTyping } from '../../parts/typing'
import { useOpenLoop } from '../../remote/openLoop'
import { useSession } from '../../remote/sessionStore'
import SetUpCard from '../sharpen/SetUpCard.vue'
import { JOBS } from '../../parts/jobs'
import OptionRows from './OptionRows.vue'
import PricesPanel from './PricesPanel.vue'
import OverrulePanel from './OverrulePanel.vue'
import SidesPanel from '../../parts/SidesPanel.vue'
import { asItIs, supposed, type WhatIf } from './whatIf'
import WhatIfPanel from './WhatIfPanel.vue'

const props = defineProps<{ tag: string }>()
const router = useRouter()
const moves = useMoves()
const session = useSession()
const onePlan = useOnePlan()
const { loop, shed, rules } = useOpenLoop(() => props.tag)

const state = computed(() => loop.state)
const turned = shallowRef<WhatIf | null>(null)
const shown = ref<Action | null>(null)
const selected = ref<number | undefined>()
const overruling = ref(false)
const busy = ref(false)
const wrong = ref('')
// What was turned stays while the shed answers anew.
watch(
  () => state.value?.loopId,
  () => {
    turned.value = null
  },
)

/** The verdict as it stands, and with what was turned. */
const verdict = computed(() => (state.value === null ? null : decide(state.value, rules.value)))
const turning = computed(() =>
  state.value === null || turned.value === null ? null : supposed(state.value, rules.value, turned.value),
)
const drawn = computed(() => turning.value?.state ?? state.value)
const would = computed(() =>
  turning.value === null ? verdict.value : decide(turning.value.state, turning.value.rules),
)

const ahead = computed(() => (drawn.value === null ? null : forecast(drawn.value, rules.value)))
const turns = computed(() =>
  state.value === null || verdict.value === null ? [] : sensitivity(state.value, rules.value, verdict.value),
)
const sides = computed(() =>
  state.value === null || ahead.value === null ? null : sideBalance(state.value, rules.value, ahead.value),
)
const life = computed(() => (state.value === null ? null : lifeOf(state.value, rules.value, new Date().toISOString())))

/** The option whose outcome the map shows: the one asked for, else the advised one, if it is a job. */
const option = computed(() => {
  const options = would.value?.options ?? []
  const wanted = shown.value ?? would.value?.action
  return options.find(({ action }) => action === wanted) ?? null
})
const after = computed(() => (option.value !== null && option.value.deepestUm > 0 ? option.value.afterUm : undefined))
const againstIt = computed(
  () => option.value !== null && verdict.value !== null && option.value.action !== verdict.value.action,
)
const allowed = computed(
  () => option.value !== null && verdict.value !== null && mayOverrule(verdict.value, option.value.action),
)
/** How what is shown would be done, where a tool of the house does it. */
const sharpening = computed(() => {
  const action = option.value?.action
  if (state.value === null || (action !== 'regrind' && action !== 'file' && action !== 'touchUp')) return null
  return onePlan({ state: state.value, rules: rules.value, action, personId: session.me?.personId ?? null })
})
const mayStart = computed(() => verdict.value !== null && (session.isLead || !isLeadsJob(verdict.value.action)))

async function settle(action: Action, overruled?: string): Promise<boolean> {
  if (verdict.value === null) return false
  busy.value = true
  const { advised, rulesVersion } = verdict.value
  const said =
    overruled === undefined
      ? `Settled: ${actionInWords(action)} ${props.tag}`
      : `Overruled: ${actionInWords(action)} ${props.tag}`
  wrong.value =
    (await loop.write(
      {
        kind: 'decided',
        action,
        advised,
        rulesVersion,
        personId: session.me?.personId ?? null,
        ...(overruled === undefined ? {} : { overruled }),
      },
      said,
    )) ?? ''
  busy.value = false
  return wrong.value === ''
}

async function overrule(reason: string): Promise<void> {
  if (option.value === null || !(await settle(option.value.action, reason))) return
  overruling.value = false
}

async function changeDuty(duty: Duty): Promise<void> {
  const said = duty === 'dirty' ? `${props.tag} is kept for dirty work` : `${props.tag} is back to clean work`
  wrong.value = (await loop.write({ kind: 'dutyChanged', duty, personId: session.me?.personId ?? null }, said)) ?? ''
}

/** Begins the job: where there is a page for it, that is opened. */
async function start(): Promise<void> {
  const current = verdict.value
  if (current === null || state.value === null) return
  if (current.action === 'dirtyDuty') {
    await changeDuty('dirty')
    return
  }
  const { to } = JOBS[current.action]
  if (to !== null) await router.push({ name: to, params: { tag: props.tag } })
  else moves.ask([state.value.loopId])
}
onKeyStroke('Enter', (event) => {
  if (
    isTyping(event) ||
    document.activeElement !== document.body ||
    overruling.value ||
    moves.asked !== null ||
    !mayStart.value
  )
    return
  event.preventDefault()
  void start()
})

/** The loop with its rules and the present, for scripts and outside checks. */
function save(): void {
  const file = writeLoopFile(loop.entries, rules.value, new Date().toISOString())
  const address = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: 'application/json' }))
  const link = document.createElement('a')
  link.href = address
  link.download = `${props.tag}.loop.json`
  link.click()
  URL.revokeObjectURL(address)
}
const day = (instant: string): string => sayDay(instant, shed.dates)
/** While a reading is held out nothing that hangs on it is shown as if it were known. */
const held = computed(() => (state.value === null ? null : sayHeld(state.value, shed.figures)))
const costLine = computed(() => {
  const current = verdict.value
  const chosen = current?.options.find(({ action }) => action === current.action)
  if (current === null || chosen === undefined || chosen.perHourMinor === null || chosen.money.totalMinor === 0)
    return ''
  const { currency } = rules.value
  const dearer = (minor: number): string => `${writeMoney(minor, currency)} a sharp hour dearer`
  const second =
    current.runnerUp === null || current.action !== current.advised
      ? ''
      : `. Second: ${actionInWords(current.runnerUp.action)}, ${dearer(current.runnerUp.byMinor)}`
  return `${writeMoney(chosen.money.totalMinor, currency)} in all${second}`
})
/** What comes off, small as it is, in the crew's unit. */
const small = (um: number): string => writeLength(Math.round(um), shed.lengths)
</script>

<template>
  <LoopAway
    v-if="state === null || verdict === null || would === null || drawn === null || ahead === null"
    :status="loop.status"
    :tag="tag"
    @again="loop.open(tag)"
  />
  <div v-else class="decide">
    <header class="top">
      <ToothSign class="sign" :tooth="toothSign(state, rules)" :retired="state.retired !== null" />
      <div>
        <h1>Decide <RouterLink :to="{ name: 'loop', params: { tag } }" class="figures">{{ tag }}</RouterLink></h1>
        <p v-if="state.duty === 'dirty'" class="soft">
          Kept for dirty work.
          <button v-if="session.isLead && !state.retired" type="button" class="act small" @click="changeDuty('clean')">
            Back to clean work
          </button>
        </p>
      </div>
      <button type="button" class="act small no-print" @click="save">Save as a file</button>
    </header>

    <div class="sheet settle">
      <div>
        <VerdictPanel
          :verdict="verdict"
          :figures="shed.figures"
          :ways="waysOut(state, rules, verdict)"
          :held="held !== null"
        />
        <p v-if="held" class="caution">{{ held }}</p>
        <p v-if="costLine" class="cost">{{ costLine }}.</p>
        <p v-if="verdict.decision && verdict.action !== verdict.advised" class="caution">
          Settled by {{ shed.nameOf(verdict.decision.personId) }} against the verdict ({{
            actionInWords(verdict.advised)
          }}): {{ verdict.decision.overruled }}
        </p>
        <p v-else-if="verdict.decision" class="soft">Settled by {{ shed.nameOf(verdict.decision.personId) }}.</p>
        <p v-if="verdict.bounds" class="caution">
          <strong>Until it is looked at:</strong> it may turn out to need anything from
          {{ actionInWords(verdict.bounds.least.action) }} ({{
            sayRange(verdict.bounds.least.sharpeningsLeft)
          }}
          sharpenings left) to {{ actionInWords(verdict.bounds.most.action) }} ({{
            sayRange(verdict.bounds.most.sharpeningsLeft)
          }}
          left).
        </p>
      </div>
      <div v-if="!state.retired" class="do no-print">
        <button v-if="mayStart" type="button" class="act next" @click="start">{{ JOBS[verdict.action].start }}</button>
        <p v-else class="soft">A lead does that.</p>
        <button
          v-if="!verdict.decision"
          type="button"
          class="act small"
          :disabled="busy"
          @click="settle(verdict.action)"
        >
          Settle on it, for later
        </button>
        <button
          v-if="session.isLead && againstIt && option && allowed"
          type="button"
          class="act small"
          @click="overruling = true"
        >
          {{ ACTION_WORDS[option.action] }} instead …
        </button>
        <p v-if="wrong && !overruling" class="stop-text" role="alert">{{ wrong }}</p>
      </div>
    </div>

    <PricesPanel v-if="!state.retired" class="no-print" :spec="state.spec" />
    <section class="sheet" aria-labelledby="map-title">
      <h2 id="map-title">
        <template v-if="option">Before and after: {{ actionInWords(option.action) }}</template
        ><template v-else>As it stands</template> <span v-if="after" class="soft">hatched comes off</span>{{ ' ' }}
        <span v-if="turning" class="soft">with what was turned</span>
      </h2>
      <LoopMap
        :state="drawn"
        :lengths="shed.lengths"
        :selected="selected"
        :rules="rules"
        :after-um="after"
        low
        @select="selected = $event"
      />
    </section>

    <div class="two">
      <div class="stack side">
        <OptionRows
          class="sheet"
          :options="would.options"
          :shown="option?.action ?? null"
          :advised="would.advised"
          :plan="turning === null ? sharpening : null"
          :figures="shed.figures"
          :held="held !== null"
          @show="shown = $event"
        />
        <SidesPanel v-if="sides && !held" class="sheet" :sides="sides" :rules="rules" :figures="shed.figures" />
        <section v-if="life && state && !held" class="sheet stack" aria-labelledby="life-title">
          <h2 id="life-title">
            {{
              life.end
                ? `At its own rate it ends about ${day(life.end.likely)}`
                : 'Too little use yet to say when it ends'
            }}
          </h2>
          <p v-if="life.end">
            From {{ day(life.end.from)
            }}{{ life.end.to ? ` to ${day(life.end.to)}` : ' on, with no end that can be said' }};
            {{ life.end.aMonth.toFixed(1) }} sharpenings a month so far, {{ sayRange(life.sharpeningsLeft) }} left,
            which is {{ sayRange(life.tanksLeft) }} tanks.
          </p>
          <p>
            Stays sharp for {{ life.sharpness.mean.toFixed(1) }} clean tanks ({{ life.sharpness.low.toFixed(1) }} to
            {{ life.sharpness.high.toFixed(1) }}; {{ life.sharpness.ended }} seen to go dull).
          </p>
          <p>
            A routine filing takes {{ small(life.removal.lowUm) }} to {{ small(life.removal.highUm) }}, a stroke about
            {{ small(life.perStroke.meanUm) }}; {{ sayLearnedFrom(life.removal, state) }}. In the mix that this loop
            gets, a sharpening takes {{ small(life.mix.meanUm) }}.
          </p>
          <p v-if="life.gaugesDue">
            Gauges are due {{ life.gaugesDue.likely === 0 ? 'now' : `in ${sayRange(life.gaugesDue)} sharpenings` }}; the
            top plate falls about {{ life.slopeDeg.toFixed(1) }}°.
          </p>
          <ul v-if="life.sessions.length > 0" class="sessions">
            <li v-for="(one_, i) in life.sessions.slice(0, 5)" :key="i">
              <span class="figures">{{ small(one_.perSharpeningUm) }}</span> a {{ POPULATION_WORDS[one_.population].one
              }}<template v-if="one_.at">, {{ day(one_.at) }}</template
              ><template v-if="one_.personId">, {{ shed.nameOf(one_.personId) }}</template
              ><template v-if="one_.sides?.left && one_.sides.right"
                >: {{ small(one_.sides.left.um) }} left, {{ small(one_.sides.right.um) }} right</template
              >
            </li>
          </ul>
          <p class="soft">
            Made under version {{ verdict.rulesVersion }} of the house rules.
            <RouterLink :to="{ name: 'house' }">House rules</RouterLink> ·
            <RouterLink :to="{ name: 'wear' }">What wears, over all loops</RouterLink>
          </p>
        </section>
      </div>
      <div class="stack side">
        <WhatIfPanel
          class="sheet"
          :state="state"
          :rules="rules"
          :turned="turned ?? asItIs(state, rules)"
          :would="would.advised"
          :advised="verdict.advised"
          :figures="shed.figures"
          @turn="turned = $event"
        />
        <section class="sheet" aria-labelledby="turns-title">
          <h2 id="turns-title">What would change it</h2>
          <p v-if="turns.length === 0">
            {{
              verdict.fitForUse
                ? 'No price, and no reading that is still open, would turn it.'
                : 'No price turns it. It changes when what is named above is put right, or found to be otherwise.'
            }}
          </p>
          <ul v-else>
            <li v-for="turn in turns" :key="turn.by">{{ sayTurn(turn, verdict.advised, shed.figures) }}</li>
          </ul>
        </section>
        <div v-if="sharpening" class="sheet stack">
          <SetUpCard :tool="sharpening.tool" :set-up="sharpening.setUp" :figures="shed.figures" />
          <p class="no-print">
            <RouterLink class="act" :to="{ name: 'sharpen', params: { tag }, query: { action: sharpening.action } }"
              >Go through it step by step</RouterLink
            >
          </p>
        </div>
      </div>
    </div>
    <OverrulePanel
      v-if="overruling && option"
      :tag="tag"
      :action="option.action"
      :advised="verdict.advised"
      :busy="busy"
      :wrong="wrong"
      @close="overruling = false"
      @overrule="overrule"
    />
  </div>
</template>

<style scoped>
.decide {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
.top {
  display: grid;
  grid-template-columns: 84px 1fr auto;
  gap: 14px;
  align-items: center;
}
.sign {
  width: 84px;
}
.settle {
  display: grid;
  grid-template-columns: 1fr minmax(220px, 300px);
  gap: 20px;
  border-top: 4px solid var(--ink);
}
.cost {
  font-weight: 700;
  margin-bottom: 6px;
}
.do {
  display: grid;
  gap: 8px;
  align-content: start;
}
.do .next {
  font-size: 1.15rem;
  min-height: 60px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
  gap: 14px;
  align-items: start;
}
.side {
  gap: 14px;
}
ul {
  margin: 6px 0 0;
  padding-left: 1.1em;
}
.sessions {
  margin: 0;
  font-size: 0.92rem;
}
@media (max-width: 900px) {
  .settle,
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .top {
    grid-template-columns: 64px 1fr auto;
  }
  .sign {
    width: 64px;
  }
}
</style>
