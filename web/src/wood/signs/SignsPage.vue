<script setup lang="ts">
import {
  capital,
  CAUSE_NAMES,
  CAUSES,
  diagnose,
  HANDS,
  lookCaution,
  lookHow,
  LOOK_FACTS,
  LOOK_NAMES,
  NOTHING_FOUND,
  REMEDIES,
  sayChance,
  saySigns,
  SIGN_NAMES,
  SIGNS,
  type Cause,
  type Hand,
  type Look,
  type Sign,
} from '@undercliff/core'
import { computed, ref, watch } from 'vue'
import LoopAway from '../../parts/LoopAway.vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import { useOpenLoop } from '../../remote/openLoop'
import { useDay } from '../field/day'

/** What the saw tells: what may be behind it, the one look that tells most, and what to do. */
const props = defineProps<{ tag: string }>()
const { loop, shed, rules } = useOpenLoop(() => props.tag)
const day = useDay()
const state = computed(() => loop.state)
const wrong = ref('')

const chosen = ref<readonly Sign[]>([])
const toward = ref<Hand | null>(null)
/** Whether it was cut along the grain; a ripping loop usually does. */
const along = ref<boolean | null>(null)
const isAlong = computed({
  get: () => along.value ?? state.value?.spec.cutterType === 'ripping',
  set: (said) => (along.value = said),
})
const SIDES = HANDS.map((value) => ({ value, label: `To the ${value}` }))
const GRAIN = [
  { value: false, label: 'Across the grain' },
  { value: true, label: 'Along the grain' },
]
function choose(sign: Sign): void {
  chosen.value = chosen.value.includes(sign) ? chosen.value.filter((one) => one !== sign) : [...chosen.value, sign]
  if (!chosen.value.includes('pulls')) toward.value = null
}
const ready = computed(() => chosen.value.length > 0 && chosen.value.includes('pulls') === (toward.value !== null))
const said = computed(() =>
  saySigns({ signs: chosen.value, ...(toward.value === null ? {} : { toward: toward.value }) }),
)
async function notice(): Promise<void> {
  const { wood } = day.value
  wrong.value =
    (await loop.write(
      {
        kind: 'noticed',
        personId: shed.meId(),
        signs: chosen.value,
        ...(toward.value === null ? {} : { toward: toward.value }),
        wood,
        along: isAlong.value,
      },
      `${capital(said.value)}: noted on ${props.tag}`,
    )) ?? ''
  if (wrong.value !== '') return
  chosen.value = []
  toward.value = null
}

const answer = ref<HTMLElement | null>(null)
const open = computed(() => state.value?.signs.at(-1) ?? null)
const saw = computed(() => {
  const on = shed.saws.find(({ id }) => id === state.value?.sawId)
  return on === undefined ? null : { fit: on, due: on.due, tension: on.tension, unturned: on.unturned }
})
// What is likeliest is what one sees next, wherever the page was: in the same frame, before a thumb is on the way.
watch(
  () => open.value?.entryId,
  () => {
    answer.value?.scrollIntoView({ block: 'start' })
    answer.value?.focus({ preventScroll: true })
  },
  { flush: 'post' },
)
const thought = computed(() =>
  state.value === null || open.value === null
    ? null
    : diagnose({ state: state.value, saw: saw.value, rules: rules.value }, open.value, rules.value.signCounts),
)
const likeliest = computed(() => thought.value?.causes.filter(({ chance }) => chance >= 0.05).slice(0, 4) ?? [])
const remedy = computed(() => {
  if (thought.value?.settled !== true) return null
  return thought.value.actOn === null ? NOTHING_FOUND : REMEDIES[thought.value.actOn]
})
const otherCauses = computed(() => CAUSES.filter((cause) => cause !== thought.value?.actOn))
const showOthers = ref(false)

async function looked(look: Look, found: readonly Cause[]): Promise<void> {
  if (open.value === null) return
  const entry = { kind: 'looked', personId: shed.meId(), into: open.value.entryId, look, found } as const
  wrong.value = (await loop.write(entry, `${capital(LOOK_NAMES[look])}: noted`)) ?? ''
}
async function traced(cause: Cause | null): Promise<void> {
  if (open.value === null) return
  showOthers.value = false
  const entry = { kind: 'traced', personId: shed.meId(), into: open.value.entryId, cause } as const
  const text = cause === null ? 'Nothing found' : `It was ${CAUSE_NAMES[cause]}`
  wrong.value = (await loop.write(entry, text)) ?? ''
}
</script>

<template>
  <LoopAway v-if="state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <section v-else class="sheet stack signs" aria-labelledby="signs-title">
    <h1 id="signs-title">
      What <RouterLink class="figures" :to="{ name: 'loop', params: { tag } }">{{ tag }}</RouterLink> tells
    </h1>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <template v-if="open && thought">
      <p class="told">
        {{
          capital(
            saySigns({
              signs: open.signs,
              ...(open.toward === null ? {} : { toward: open.toward }),
              ...(open.wood === null ? {} : { wood: open.wood }),
              ...(open.along === null ? {} : { along: open.along }),
            }),
          )
        }}
      </p>
      <p v-if="thought.rests" class="caution grave" role="alert">
        The gauges may be too low. Do not cut with it until a plate has said otherwise.
      </p>
      <ol ref="answer" class="causes" tabindex="-1" aria-label="What may be behind it">
        <li v-for="{ cause, chance } in likeliest" :key="cause" :style="{ '--part': chance }">
          <strong>{{ capital(CAUSE_NAMES[cause]) }}</strong> <span class="soft">{{ sayChance(chance) }}</span>
        </li>
      </ol>
      <p class="soft">The likeliest behind it first; the figure says how surely it is there at all.</p>
      <div v-if="thought.look" class="stack" data-look>
        <h2>
          Look: {{ LOOK_NAMES[thought.look.look] }}
          <span class="soft">{{
            thought.look.minutes < 1 ? 'half a minute' : `about ${thought.look.minutes} min`
          }}</span>
        </h2>
        <p v-if="lookCaution(thought.look.look)" class="caution">{{ lookCaution(thought.look.look) }}</p>
        <p>{{ lookHow(thought.look.look) }}</p>
        <div class="answers">
          <button
            v-for="cause in LOOK_FACTS[thought.look.look].shows"
            :key="cause"
            type="button"
            class="act"
            @click="looked(thought.look.look, [cause])"
          >
            {{ capital(CAUSE_NAMES[cause]) }}
          </button>
          <button type="button" class="act" @click="looked(thought.look.look, [])">Nothing wrong there</button>
        </div>
      </div>
      <div v-else-if="remedy" class="stack" data-remedy>
        <p v-if="thought.actOn && !thought.isSure" class="soft">It is not sure. What is likeliest, first:</p>
        <h2>{{ remedy.text }}</h2>
        <p v-if="remedy.caution" class="caution" :class="{ grave: remedy.rests }">{{ remedy.caution }}</p>
        <div class="answers">
          <button v-if="thought.actOn" type="button" class="act next" @click="traced(thought.actOn)">
            It was {{ CAUSE_NAMES[thought.actOn] }}
          </button>
          <button v-else type="button" class="act next" @click="traced(null)">Nothing found</button>
          <RouterLink v-if="thought.actOn === 'dull'" class="act" :to="{ name: 'card', params: { tag } }"
            >How to touch up</RouterLink
          >
        </div>
      </div>
      <div class="answers">
        <button type="button" class="act" :aria-expanded="showOthers" @click="showOthers = !showOthers">
          It was something else …
        </button>
      </div>
      <div v-if="showOthers" class="answers">
        <button v-if="thought.actOn !== null || !thought.settled" type="button" class="act" @click="traced(null)">
          Nothing found
        </button>
        <button v-for="cause in otherCauses" :key="cause" type="button" class="act" @click="traced(cause)">
          {{ capital(CAUSE_NAMES[cause]) }}
        </button>
      </div>
    </template>
    <template v-else>
      <p class="soft">Tap what it does. More than one is better.</p>
      <div class="answers">
        <button
          v-for="sign in SIGNS"
          :key="sign"
          type="button"
          class="act"
          :aria-pressed="chosen.includes(sign)"
          @click="choose(sign)"
        >
          {{ SIGN_NAMES[sign] }}
        </button>
      </div>
      <RadioChoice
        v-if="chosen.includes('pulls')"
        v-model="toward"
        class="two"
        label="To which side"
        option-class="act"
        :options="SIDES"
      />
      <RadioChoice v-model="isAlong" class="two" label="Which way it cut" option-class="act" :options="GRAIN" />
      <button type="button" class="act next say" :disabled="!ready" @click="notice">
        {{ ready ? 'What is it?' : chosen.length === 0 ? 'Tap a sign first' : 'To which side?' }}
      </button>
    </template>
    <RouterLink class="act" :to="{ name: 'wood', query: { tag } }">Back to the saw</RouterLink>
  </section>
</template>

<style scoped>
.signs {
  --target: 56px;
  max-width: 720px;
  margin: 0 auto;
}
.told {
  font-weight: 700;
  font-size: 1.15rem;
}
.causes {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
/* What stays at the head of the page does not cover it. */
.causes {
  scroll-margin-top: 96px;
}
.causes li {
  padding: 6px 10px;
  border: 1px solid var(--rule);
  background: linear-gradient(to right, var(--steel-light) calc(var(--part) * 100%), transparent 0);
  color: var(--ink);
}
.causes .soft {
  color: var(--ink);
}
.answers {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
}
/* Nothing stands alone beside an empty place. */
.answers > :last-child:nth-child(odd) {
  grid-column: 1 / -1;
}
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
}
.say {
  min-height: 72px;
  font-size: 1.25rem;
}
</style>
