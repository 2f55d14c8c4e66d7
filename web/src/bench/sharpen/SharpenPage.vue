<script setup lang="ts">
import {
  checkCutter,
  cutterName,
  decide,
  endedAs,
  oddReading,
  parcelOf,
  PLAN_DOUBTS,
  READING_DOUBTS,
  readLength,
  sayCount,
  sayMinutes,
  sayRecheck,
  sayRefusal,
  sayStep,
  SHARPENING_TOOLS,
  TOOL_NAMES,
  SHARPENING_REFUSALS,
  whyNotWith,
  writeLength,
  minutesByStep,
  workedAlone,
  type CutterJob,
  type Sharpening,
  type SharpeningTool,
  type StepId,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import LoopAway from '../../parts/LoopAway.vue'
import SelectField from '../../parts/SelectField.vue'
import WhoField from '../../parts/WhoField.vue'
import { useOpenLoop } from '../../remote/openLoop'
import { useSession } from '../../remote/sessionStore'
import { useWriting } from '../../remote/writing'
import CutterInHand from './CutterInHand.vue'
import SetUpCard from './SetUpCard.vue'
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
const { now, plan, walk, events, add, undo, want, end, leftOpen } = useSharpening(props.tag, state, rules, () => ({
  action:
    ACTIONS.find((action) => action === route.query.action) ??
    ACTIONS.find((action) => action === advised.value) ??
    'file',
  personId: session.me?.personId ?? null,
}))
const step = computed(() => walk.value?.step ?? null)
const words = computed(() =>
  plan.value === null || step.value === null ? null : sayStep(step.value.id, step.value.hand, plan.value),
)
const byStep = computed(() =>
  plan.value === null ? new Map<StepId, number>() : minutesByStep(plan.value, events.value),
)
const took = computed(() => [...byStep.value.values()].reduce((sum, one) => sum + one, 0))
const steps = computed(() =>
  (plan.value?.steps ?? []).map((one, i) => ({
    ...one,
    took: byStep.value.get(one.id) ?? 0,
    name: plan.value === null ? '' : sayStep(one.id, one.hand, plan.value).name,
    done: i < (walk.value?.at ?? 0),
    here: i === walk.value?.at,
  })),
)
const tools = computed(() =>
  SHARPENING_TOOLS.filter(
    (tool) => state.value !== null && whyNotWith(tool, state.value.spec, rules.value) === null,
  ).map((value) => ({ value, label: TOOL_NAMES[value] })),
)
const tool = computed({
  get: () => plan.value?.tool ?? 'plateGuide',
  set: (wanted: SharpeningTool) => {
    want({
      tool: wanted,
      action: wanted.endsWith('Grinder') ? 'regrind' : now.value.action === 'touchUp' ? 'touchUp' : 'file',
    })
  },
})
const who = computed({
  get: () => now.value.personId,
  set: (personId: string | null) => {
    want({ personId })
  },
})

/** What a stroke is worth today, once readings have changed it by as much as a person would notice. */
const NOTICED = 0.1
const worthSaid = computed(() => {
  const [current, job] = [walk.value, walk.value?.cutter]
  if (plan.value?.gives !== 'strokes' || current == null || job == null) return ''
  const [before, today] = [plan.value.bites[job.hand], current.worth[job.hand].meanUm]
  if (Math.abs(today - before) < NOTICED * before) return ''
  const usual = plan.value.sides
    .find(({ hand }) => hand === job.hand)
    ?.cutters.find(({ number }) => number === job.number)
  const instead = usual === undefined || usual.count === job.count ? '' : `: ${job.count} instead of ${usual.count}`
  const part = Math.round((Math.abs(today - before) / before) * 100)
  return `A stroke takes ${part} % ${today < before ? 'less' : 'more'} than usual today${instead}.`
})

const typed = ref('')
const field = ref<HTMLInputElement | null>(null)
const onward = ref<HTMLButtonElement | null>(null)
const refused = ref('')
/** The reading that somebody was asked about: typed again it stands. */
const asked = ref('')
const isBefore = ref(false)
const moreStrokes = ref(0)
const count = computed(() => Math.max(0, (walk.value?.cutter?.count ?? 0) + moreStrokes.value))
const inSide = computed(() => step.value?.hand != null)
const checking = computed(() => step.value?.id === 'recheck')
const checked = computed(() => (checking.value && walk.value?.check != null ? walk.value.check : null))
watch(
  [() => walk.value?.cutter?.number, () => step.value?.id],
  async () => {
    moreStrokes.value = 0
    isBefore.value = false
    typed.value = refused.value = asked.value = ''
    await nextTick()
    const next = field.value ?? onward.value
    next?.focus({ preventScroll: true })
  },
  { immediate: true },
)

/** Says what is wrong with a reading; typing replaces it, as a caliper does that is read again. */
function refuse(why: string): false {
  refused.value = why
  field.value?.select()
  return false
}
/** The reading that is typed; null for none, and false where it cannot be, which is said. */
function reading(job: CutterJob, worked: boolean): number | null | false {
  const text = typed.value.trim()
  if (text === '') return null
  const read = readLength(text, shed.bareUnit)
  if (!read.ok) return refuse(sayRefusal(read))
  const odd = oddReading(job, read.um, worked)
  if (odd === null || asked.value === text) return read.um
  asked.value = text
  return refuse(`${writeLength(read.um, shed.lengths)}: ${READING_DOUBTS[odd]} Enter again keeps it.`)
}

/** Goes on: with what is typed for the cutter in hand, or to the next step. */
function go(): void {
  const job = walk.value?.cutter ?? null
  if (job === null || plan.value === null) {
    add({ kind: 'done' })
    return
  }
  if (checking.value) {
    const um = reading(job, true)
    if (um === false) return
    if (um !== null) add({ kind: 'read', cutter: job.number, um })
    else if (checked.value !== null) add({ kind: 'done' })
    else refused.value = 'Measure it, or say that it goes on unchecked.'
    typed.value = ''
    return
  }
  const um = reading(job, !isBefore.value)
  if (um === false) return
  refused.value = asked.value = typed.value = ''
  if (um !== null && isBefore.value) {
    add({ kind: 'read', cutter: job.number, um })
    isBefore.value = false
    return
  }
  const given = moreStrokes.value === 0 ? {} : { count: Math.min(500, count.value) }
  add({ kind: 'done', ...given }, ...(um === null ? [] : [{ kind: 'read' as const, cutter: job.number, um }]))
}
const KEYS: Readonly<Record<string, () => void>> = {
  Enter: go,
  ' ': go,
  '+': () => (moreStrokes.value += 1),
  '-': () => (moreStrokes.value -= 1),
  u: undo,
  s: () => {
    if (inSide.value) add({ kind: 'skip' })
  },
  c: () => {
    if (inSide.value) add({ kind: 'clean' })
  },
  m: () => {
    isBefore.value = !isBefore.value
  },
}
function key(event: KeyboardEvent): void {
  const act = KEYS[event.key]
  if (act === undefined || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  act()
}

const gaugesDone = ref<boolean | null>(null)
const gaugesToUm = computed(() =>
  (gaugesDone.value ?? plan.value?.gauges.due) === true ? (plan.value?.gauges.plateUm ?? null) : null,
)
/** The side that was worked alone, where it ended so. */
const alone = computed(() => (plan.value === null || walk.value === null ? null : workedAlone(plan.value, walk.value)))
const ended = computed(() => (plan.value === null || walk.value === null ? 'nothing' : endedAs(plan.value, walk.value)))
/** Cutters that were left out on the way. */
const leftOut = computed(() =>
  (plan.value?.sides ?? [])
    .flatMap(({ cutters }) => cutters)
    .filter(({ number }) => walk.value?.work.get(number)?.done !== true)
    .map(({ number, hand }) => cutterName(number, hand)),
)
const wrong = ref('')
const busy = ref(false)
async function log(): Promise<void> {
  if (plan.value === null || state.value === null) return
  busy.value = true
  const half = ended.value === 'oneSide'
  const entries = parcelOf(plan.value, events.value, {
    loopId: state.value.loopId,
    personId: now.value.personId,
    newId: nanoid,
    endedMs: Date.now(),
    // Gauges are lowered behind both sides.
    gaugesToUm: half ? null : gaugesToUm.value,
  })
  const said = half
    ? `The ${alone.value ?? ''} side of ${props.tag} logged; the other one waits`
    : `Sharpening of ${props.tag} logged`
  wrong.value = (await writing.write(entries, said)) ?? ''
  busy.value = false
  if (wrong.value !== '') return
  end()
  await router.push({ name: 'loop', params: { tag: props.tag } })
}
function stop(): void {
  end()
  void router.push({ name: 'loop', params: { tag: props.tag } })
}
const leftInSide = computed(() => (walk.value === null ? '' : `${walk.value.place + 1} of ${walk.value.of}`))
const inHandJob = computed(() => walk.value?.cutter ?? (plan.value === null ? null : checkCutter(plan.value)))
</script>

<template>
  <LoopAway v-if="state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <div v-else-if="plan && walk" class="desk sharpen">
    <section class="sheet stack work" aria-labelledby="sharpen-title">
      <h1 id="sharpen-title">
        Sharpen <RouterLink :to="{ name: 'loop', params: { tag } }" class="figures">{{ tag }}</RouterLink>
        <span class="soft"> {{ sayMinutes(plan.minutes) }}</span>
      </h1>
      <p v-if="leftOpen" class="caution" role="status">
        This was left open on another day. Go on where it was, or
        <button type="button" class="act small" @click="stop">throw it away</button>
      </p>
      <p v-if="plan.refusal" class="caution grave" role="alert">{{ SHARPENING_REFUSALS[plan.refusal] }}</p>
      <p v-for="doubt in plan.doubts" :key="doubt" class="caution">{{ PLAN_DOUBTS[doubt] }}</p>
      <template v-if="step && words && plan.refusal === null">
        <div class="step" aria-live="polite">
          <h2>
            {{ words.name }} <span v-if="inSide" class="soft figures">{{ leftInSide }}</span>
          </h2>
          <p v-if="words.caution" class="caution">{{ words.caution }}</p>
          <details :open="walk.place === 0">
            <summary>How</summary>
            <p>{{ words.what }}</p>
            <p class="soft">
              <strong>Right when:</strong> {{ words.see }} <strong>Usual mistake:</strong> {{ words.mistake }}
            </p>
          </details>
        </div>
        <template v-if="(inSide || checking) && inHandJob">
          <p class="cutter" data-in-hand>
            <strong class="figures">{{ cutterName(inHandJob.number, inHandJob.hand) }}</strong>
            <span v-if="inSide" class="figures gives">{{ sayCount({ ...inHandJob, count }, plan.gives) }}</span>
            <span class="soft figures">to {{ writeLength(inHandJob.targetUm, shed.lengths) }}</span>
          </p>
          <CutterInHand
            :job="inHandJob"
            :new-length-um="state.spec.newLengthUm"
            :mark-length-um="state.spec.markLengthUm"
            :lengths="shed.lengths"
          />
          <p v-if="worthSaid" class="worth" role="status">{{ worthSaid }}</p>
          <p v-if="checked" class="caution" role="status">{{ sayRecheck(checked, plan.gives, shed.figures) }}</p>
          <label class="read"
            >{{ isBefore ? 'Length before it is worked' : 'Length after' }}
            <span class="soft">{{ checking ? '' : '(if you measure it)' }}</span>
            <input
              ref="field"
              v-model="typed"
              data-reading
              class="plain figures"
              inputmode="decimal"
              autocomplete="off"
              @keydown="key"
          /></label>
          <p v-if="refused" class="stop-text" role="alert">{{ refused }}</p>
        </template>
        <div class="row">
          <template v-if="inSide">
            <button type="button" class="act" aria-label="One stroke fewer" @click="moreStrokes -= 1">−</button>
            <button type="button" class="act" aria-label="One stroke more" @click="moreStrokes += 1">+</button>
            <button v-if="inHandJob?.untilClean" type="button" class="act" @click="add({ kind: 'clean' })">
              Clean <kbd class="keys-only">c</kbd>
            </button>
            <button type="button" class="act" @click="add({ kind: 'skip' })">
              Skip <kbd class="keys-only">s</kbd>
            </button>
            <button type="button" class="act" :aria-pressed="isBefore" @click="isBefore = !isBefore">
              Measure before <kbd class="keys-only">m</kbd>
            </button>
          </template>
          <button v-if="checking && !checked" type="button" class="act" @click="add({ kind: 'unchecked' })">
            Go on unchecked
          </button>
          <button v-if="events.length > 0" type="button" class="act" @click="undo">
            Undo <kbd class="keys-only">u</kbd>
          </button>
        </div>
        <button ref="onward" type="button" class="act next go" @click="go" @keydown="key">
          {{ inSide ? 'Next cutter' : checking && !checked ? 'It reads so' : 'Done, next' }}
          <kbd class="keys-only">Enter</kbd>
        </button>
      </template>
      <template v-else-if="plan.refusal === null">
        <h2>{{ ended === 'both' ? 'All done' : 'Not done yet' }}</h2>
        <p v-if="ended === 'both' && leftOut.length > 0" class="caution" role="status">
          Left out, and not sharp: {{ leftOut.join(', ') }}.
        </p>
        <p v-if="ended === 'oneSide'" class="caution grave" role="alert">
          Most of one side was left out. Like this the saw pulls: logged so, the loop stays off the saws until the other
          side is done.
        </p>
        <p v-else-if="ended === 'nothing'">No cutter was done, so there is nothing to log.</p>
        <fieldset v-else>
          <legend>Gauges lowered to {{ writeLength(plan.gauges.plateUm, shed.lengths) }}?</legend>
          <div class="row">
            <button type="button" class="act" :aria-pressed="gaugesToUm !== null" @click="gaugesDone = true">
              Yes
            </button>
            <button type="button" class="act" :aria-pressed="gaugesToUm === null" @click="gaugesDone = false">
              No
            </button>
          </div>
        </fieldset>
        <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
        <div class="row">
          <button v-if="ended === 'both'" type="button" class="act next go" :disabled="busy" @click="log">
            Log the sharpening
          </button>
          <button v-else-if="ended === 'oneSide'" type="button" class="act" :disabled="busy" @click="log">
            Log the {{ alone }} side alone
          </button>
          <button type="button" class="act" @click="undo">Undo</button>
        </div>
      </template>
    </section>
    <div class="stack">
      <section class="sheet stack">
        <div class="field">
          <span class="legend">With</span>
          <SelectField v-if="events.length === 0" v-model="tool" :options="tools" aria-label="With" />
          <span v-else>{{ TOOL_NAMES[plan.tool] }}</span>
        </div>
        <WhoField v-model="who" />
        <p v-if="plan.waiting" class="soft">Only the {{ plan.waiting }} side is left to do.</p>
        <p v-else-if="plan.bites.left !== plan.bites.right && plan.gives === 'strokes'" class="soft">
          Begins with the {{ plan.sides[0]?.hand }} side.
        </p>
        <template v-if="events.length > 0 && step">
          <template v-if="ended === 'oneSide'">
            <button type="button" class="act small" :disabled="busy" @click="log">
              End here: log the {{ alone }} side alone
            </button>
            <span class="soft">The loop is then not fit until the other side follows.</span>
          </template>
          <button type="button" class="act small" @click="stop">Stop, and log nothing</button>
        </template>
      </section>
      <SetUpCard class="sheet" :tool="plan.tool" :set-up="plan.setUp" :figures="shed.figures" />
      <section class="sheet" aria-labelledby="steps-title">
        <h2 id="steps-title">Steps</h2>
        <ol>
          <li
            v-for="one in steps"
            :key="one.id"
            :class="{ done: one.done, here: one.here }"
            :aria-current="one.here ? 'step' : undefined"
          >
            {{ one.name }}<span v-if="one.took >= 0.5" class="soft figures"> {{ Math.round(one.took) }} min</span>
          </li>
        </ol>
        <p v-if="took >= 0.5" class="soft figures">
          {{ Math.round(took) }} min so far, about {{ Math.round(plan.minutes.likely) }} planned
        </p>
      </section>
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
.cutter {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: baseline;
  margin: 0;
}
.cutter strong {
  font-size: 2.6rem;
}
.gives {
  font-size: 1.9rem;
  font-weight: 700;
}
.worth {
  margin: 0;
  font-weight: 700;
}
.read {
  display: grid;
  gap: 4px;
  font-weight: 700;
}
.read input {
  font-size: 1.6rem;
  min-height: 56px;
}
.go {
  font-size: 1.25rem;
  min-height: 64px;
  width: 100%;
}
ol {
  margin: 6px 0 0;
  padding-left: 1.6em;
}
li.done {
  color: var(--ink-soft);
}
li.done::after {
  content: ' ✓';
}
li.here {
  font-weight: 700;
}
@media (max-width: 700px) {
  .go {
    position: sticky;
    bottom: calc(var(--foot) + 6px);
  }
}
</style>
