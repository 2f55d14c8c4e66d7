<script setup lang="ts">
import {
  CUTTER_TYPE_NAMES,
  everySchool,
  forecast,
  PITCH_CLASSES,
  PITCH_PROFILES,
  followsSchool,
  QUESTION_WORDS,
  QUESTIONS,
  rulesConflicts,
  sayRange,
  schoolsOf,
  schoolWords,
  writeLength,
  type HouseRules,
  type Question,
  type SchoolId,
  type ShedEffect,
} from '@undercliff/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { heldTexts } from '../../parts/heldTexts'
import RadioChoice from '../../parts/RadioChoice.vue'
import { postRulesEffect, putRules, ServerRefusal } from '../../remote/api'
import { useLoop } from '../../remote/loopStore'
import { useNotices } from '../../remote/notices'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import ShedAway from '../../parts/ShedAway.vue'
import { LENGTH_LIMITS, NUMBER_LIMITS, oddChanges, PRICES, rulesFrom, textsOf } from './limits'
import { changedFields, takenBack } from './ownChange'
import { chapterOf, CHAPTERS, type Chapter } from './chapters'
import FirstHint from '../../parts/FirstHint.vue'
import EffectPanel from '../../parts/EffectPanel.vue'
import SchoolCard from './SchoolCard.vue'
import SelectField from '../../parts/SelectField.vue'

/** Where crews disagree, the house chooses; what each school comes to is shown on a loop of its own. */
const shed = useShed()
const session = useSession()
const notices = useNotices()
const loop = useLoop()
const route = useRoute()
const router = useRouter()
if (shed.answer === null) void shed.load()
const wrong = ref('')
const wrongField = ref('')
const busy = ref(false)
const rules = computed(() => shed.rules)

/** The loop on which it is shown: the one in the address, else one with something to decide. */
const live = computed(() => shed.loops.filter(({ retired }) => !retired))
const tag = computed(() => {
  const asked = typeof route.query.loop === 'string' ? route.query.loop : ''
  if (live.value.some((card) => card.tag === asked)) return asked
  const damaged = live.value.find(
    ({ action, tooth }) => tooth.damaged > 0 && (action === 'regrind' || action === 'file' || action === 'shop'),
  )
  return (
    (damaged ?? live.value.find(({ action }) => action === 'regrind' || action === 'file') ?? live.value[0])?.tag ?? ''
  )
})
watch(
  tag,
  (wanted) => {
    if (wanted !== '') void loop.open(wanted)
  },
  { immediate: true },
)
const loopOptions = computed(() => live.value.map((card) => ({ value: card.tag, label: card.tag })))
const pick = (wanted: string): void => {
  void router.replace({ query: { ...route.query, loop: wanted } })
}
const state = computed(() => (loop.state?.tag === tag.value ? loop.state : null))
const schools = computed(() =>
  state.value === null ? null : everySchool({ ...state.value, decision: null }, rules.value),
)

/** How the loop stands, to hold what each school would make of it against. */
const now = computed(() => {
  if (state.value === null) return ''
  const { summary, sharpeningsLeft, settingUm } = forecast(state.value, rules.value)
  const damaged = summary.damaged.length
  return [
    `shortest ${writeLength(summary.shortest.length.um, shed.lengths)}`,
    `cutters ${writeLength(summary.spreadUm, shed.lengths)} apart`,
    damaged === 0 ? 'none damaged' : `${damaged} damaged`,
    `gauges at ${writeLength(settingUm, shed.lengths)}`,
    `${sayRange(sharpeningsLeft)} sharpenings left.`,
  ].join(', ')
})

/** What to know of the loop that a question is shown on. */
function notHere(question: Question): string {
  const spec = state.value?.spec
  if (spec === undefined) return ''
  if (question === 'chisel' && spec.cutterType !== 'fullChisel')
    return `${tag.value} is ${CUTTER_TYPE_NAMES[spec.cutterType]}: choose a full-chisel loop to see it`
  if (question === 'file' && spec.pitchClass !== 'threeEighths')
    return `${tag.value} is ${PITCH_PROFILES[spec.pitchClass].name}: choose a 3/8" loop to see it`
  return question === 'when' || question === 'bench'
    ? `${tag.value} as the routine brings it to the bench, its damage cleaned out`
    : ''
}

const choicesOf = (question: Question) =>
  schoolsOf(question).map((school) => ({ value: school.id, label: schoolWords(question, school.id).name, school }))
const followed = (question: Question): SchoolId | null =>
  schoolsOf(question).find((school) => followsSchool(rules.value, school))?.id ?? null
const follow = (question: Question, id: SchoolId): void => {
  const school = schoolsOf(question).find((one) => one.id === id)
  if (school !== undefined)
    void change(school.sets, `${schoolWords(question, id).name}: every loop is worked out again.`)
}

/** Whether rules cannot hold together; says which and why. */
function contradicts(wanted: HouseRules): boolean {
  const [conflict] = rulesConflicts(wanted)
  if (conflict === undefined) return false
  wrong.value = conflict.message
  wrongField.value = conflict.fields[0] ?? ''
  return true
}

/**
 * Saves a change against the version of the rules that is shown; somebody else's is not overwritten.
 *
 * @returns the rules as they hold then, or null when they were refused
 */
async function saveRules(part: Partial<HouseRules>): Promise<HouseRules | null> {
  const wanted = { ...rules.value, ...part, version: rules.value.version }
  if (contradicts(wanted)) return null
  busy.value = true
  try {
    const saved = await putRules(wanted)
    await shed.load()
    wrong.value = wrongField.value = ''
    return saved
  } catch (error) {
    wrong.value = (error as Error).message
    // What somebody else changed meanwhile is shown, to be changed again from there.
    if (error instanceof ServerRefusal && error.problem.code === 'rules-changed') await shed.load()
    return null
  } finally {
    busy.value = false
  }
}

/** A change that waits, with what it would do to the whole shed. */
const pending = ref<{ part: Partial<HouseRules>; said: string; effect: ShedEffect; limits: boolean } | null>(null)
async function change(part: Partial<HouseRules>, said: string, limits = false): Promise<void> {
  const before = rules.value
  if (changedFields(before, { ...before, ...part }).length === 0) return
  const wanted = { ...before, ...part }
  if (contradicts(wanted)) return
  busy.value = true
  try {
    pending.value = { part, said, limits, effect: await postRulesEffect(wanted) }
    wrong.value = wrongField.value = ''
  } catch (error) {
    wrong.value = (error as Error).message
    if (error instanceof ServerRefusal && error.problem.code === 'rules-changed') await shed.load()
  } finally {
    busy.value = false
  }
}
async function hold(): Promise<void> {
  if (pending.value === null) return
  const { part, said, limits } = pending.value
  const before = rules.value
  const own = changedFields(before, { ...before, ...part })
  const saved = await saveRules(part)
  pending.value = null
  if (saved === null) return
  if (limits) held.settle()
  notices.say(said, async () => {
    // Only this change is taken back, and nothing that was changed again since.
    const back = takenBack(before, saved, rules.value, own)
    if (Object.keys(back).length === 0) wrong.value = 'That was changed again since; it stays as it is now.'
    else await saveRules(back)
  })
}

/** The chapter that is open: the one in the address, or that of what the address points at. */
const chapter = computed<Chapter>(() => chapterOf(route.query.chapter, route.hash))
/** What is typed stays while the shed answers anew. */
const held = heldTexts(() => textsOf(rules.value, shed.bareUnit))
const { texts, overtaken } = held
/** What a lead says next to a field that somebody else changed meanwhile. */
const changedTo = (field: string): string => `changed to ${overtaken.value[field] ?? ''} meanwhile`
// A figure without its unit would mean another one from now on.
watch(() => shed.bareUnit, held.settle)
async function save(): Promise<void> {
  const read = rulesFrom(rules.value, texts.value, shed.bareUnit)
  if ('message' in read) {
    wrong.value = read.message
    wrongField.value = read.field
    return
  }
  await change(read, 'Limits and prices changed; every loop is worked out again.', true)
}
const inChapter = (question: Question): boolean =>
  CHAPTERS.find(({ id }) => id === chapter.value)?.questions.includes(question) === true
/** What the device kept may be of an older version: nothing is changed from there. */
const locked = computed(() => !session.isLead || busy.value || (!shed.loaded && !shed.away))
</script>

<template>
  <ShedAway v-if="shed.answer === null" />
  <div v-else class="house">
    <header class="top">
      <div>
        <h1>House rules <span class="soft version">version {{ rules.version }}</span></h1>
        <p class="soft">
          {{
            session.isLead
              ? 'Each choice holds for every loop from now on, and every verdict says under which version it was made.'
              : 'A lead changes these.'
          }}
        </p>
      </div>
      <label v-if="tag" class="pick"
        ><span>Shown on loop</span
        ><SelectField :model-value="tag" :options="loopOptions" aria-label="Shown on loop" @update:model-value="pick"
      /></label>
    </header>
    <FirstHint id="rules">
      Crews disagree on these, and good crews do. Choose what yours does: before it holds you see which verdicts turn.
    </FirstHint>
    <p v-if="wrong" class="stop-text wrong" role="alert">{{ wrong }}</p>
    <p v-if="now" class="now"><strong class="figures">{{ tag }}</strong> before anything is done: {{ now }}</p>
    <p v-if="!tag" class="sheet">Add a loop, and what each school comes to is shown on it.</p>

    <nav class="row index no-print" aria-label="Chapters">
      <RouterLink
        v-for="{ id, name } in CHAPTERS"
        :key="id"
        class="act small"
        :to="{ query: { ...route.query, chapter: id } }"
        replace
        :aria-current="id === chapter ? 'page' : undefined"
        >{{ name }}</RouterLink
      >
    </nav>
    <section
      v-for="question in QUESTIONS"
      v-show="inChapter(question)"
      :key="question"
      class="sheet part"
      :aria-labelledby="`q-${question}`"
    >
      <h2 :id="`q-${question}`">
        {{ QUESTION_WORDS[question] }}
        <span v-if="notHere(question)" class="soft nothere">{{ notHere(question) }}</span>
      </h2>
      <RadioChoice
        v-slot="{ option }"
        class="schools"
        :labelledby="`q-${question}`"
        :model-value="followed(question)"
        :options="choicesOf(question)"
        :disabled="locked"
        manual
        option-class="school"
        @update:model-value="(id) => id && follow(question, id)"
      >
        <SchoolCard
          :school="option.school"
          :question="question"
          :outcome="schools?.[question].find(({ id }) => id === option.value)?.outcome ?? null"
          :figures="shed.figures"
        />
      </RadioChoice>
    </section>

    <form v-show="['prices', 'limits', 'has'].includes(chapter)" class="sheet limits part" @submit.prevent="save">
      <fieldset v-show="chapter === 'prices'" class="grid part">
        <legend>Prices</legend>
        <div class="field">
          <label for="currency">Money</label
          ><input
            id="currency"
            v-model="texts.currency"
            class="plain figures"
            maxlength="3"
            :disabled="locked"
            :aria-invalid="wrongField === 'currency'"
          /><span class="hint" :class="overtaken.currency ? 'changed' : 'soft'">{{
            overtaken.currency ? changedTo('currency') : 'three letters, such as EUR'
          }}</span>
        </div>
        <div v-for="{ field, label } in PRICES" :key="field" class="field">
          <label :for="field">{{ label }}</label
          ><input
            :id="field"
            v-model="texts[field]"
            class="plain figures"
            inputmode="decimal"
            :disabled="locked"
            :aria-invalid="wrongField === field"
          /><span v-if="overtaken[field]" class="hint changed">{{ changedTo(field) }}</span>
        </div>
        <div v-for="pitch in PITCH_CLASSES" :key="pitch" class="field">
          <label :for="`link:${pitch}`">A drive link of {{ PITCH_PROFILES[pitch].name }}</label
          ><input
            :id="`link:${pitch}`"
            v-model="texts[`link:${pitch}`]"
            class="plain figures"
            inputmode="decimal"
            :disabled="locked"
            :aria-invalid="wrongField === `link:${pitch}`"
          /><span v-if="overtaken[`link:${pitch}`]" class="hint changed">{{ changedTo(`link:${pitch}`) }}</span>
        </div>
      </fieldset>
      <fieldset v-show="chapter === 'limits'" class="grid part">
        <legend>Limits</legend>
        <div v-for="{ field, label, hint } in LENGTH_LIMITS" :key="field" class="field">
          <label :for="field">{{ label }}</label
          ><input
            :id="field"
            v-model="texts[field]"
            class="plain figures"
            inputmode="decimal"
            :disabled="locked"
            :aria-invalid="wrongField === field"
          /><span class="hint" :class="overtaken[field] ? 'changed' : 'soft'">{{
            overtaken[field] ? changedTo(field) : hint
          }}</span>
        </div>
        <div v-for="{ field, label, unit } in NUMBER_LIMITS" :key="field" class="field">
          <label :for="field">{{ label }}</label
          ><input
            :id="field"
            v-model="texts[field]"
            class="plain figures"
            inputmode="decimal"
            :disabled="locked"
            :aria-invalid="wrongField === field"
          /><span class="hint" :class="overtaken[field] ? 'changed' : 'soft'">{{
            overtaken[field] ? changedTo(field) : unit
          }}</span>
        </div>
      </fieldset>
      <fieldset v-show="chapter === 'has'" class="part">
        <legend>What the house has and does</legend>
        <div class="row">
          <button
            type="button"
            class="act"
            :aria-pressed="rules.grinderOwned"
            :disabled="locked"
            @click="
              change({ grinderOwned: !rules.grinderOwned }, rules.grinderOwned ? 'No grinder.' : 'There is a grinder.')
            "
          >
            {{ rules.grinderOwned ? 'Owns a grinder' : 'No grinder' }}
          </button>
          <button
            type="button"
            class="act"
            :aria-pressed="rules.shopUsed"
            :disabled="locked"
            @click="
              change({ shopUsed: !rules.shopUsed }, rules.shopUsed ? 'Nothing goes to a shop.' : 'A shop is used.')
            "
          >
            {{ rules.shopUsed ? 'Uses a shop' : 'Uses no shop' }}
          </button>
          <button
            type="button"
            class="act"
            :aria-pressed="rules.dirtyDuty"
            :disabled="locked"
            @click="
              change(
                { dirtyDuty: !rules.dirtyDuty },
                rules.dirtyDuty ? 'No loops are kept for dirty work.' : 'Worn loops are kept for dirty work.',
              )
            "
          >
            {{ rules.dirtyDuty ? 'Keeps loops for dirty work' : 'Keeps none for dirty work' }}
          </button>
        </div>
      </fieldset>
      <p v-show="chapter === 'prices'" class="soft part">Prices start at invented values: put in your own.</p>
      <p v-if="session.isLead && chapter !== 'has'" class="no-print">
        <button type="submit" class="act next" :disabled="busy">Save limits and prices</button>
      </p>
    </form>
    <EffectPanel
      v-if="pending"
      :effect="pending.effect"
      :currency="shed.figures.currency"
      :odd="oddChanges(rules, pending.part, shed.figures)"
      :busy="busy"
      @save="hold"
      @close="pending = null"
    />
  </div>
</template>

<style scoped>
.house {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
.top {
  display: grid;
  grid-template-columns: 1fr 220px;
  gap: 16px;
  align-items: end;
}
/* What a lead has to see before it is saved over. */
.changed {
  font-weight: 700;
  border-left: 4px solid var(--work);
  padding-left: 6px;
}
.index {
  position: sticky;
  top: 0;
  z-index: 2;
  padding: 6px 0;
  background: var(--ground);
}
.index .act {
  text-decoration: none;
}
@media print {
  .part {
    display: grid !important;
  }
}
.version {
  font-size: 1rem;
  font-weight: 400;
  letter-spacing: 0;
}
.pick {
  display: grid;
  gap: 4px;
  font-weight: 700;
}
.schools {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: 10px;
  margin-top: 10px;
}
.limits {
  display: grid;
  gap: 16px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 12px 16px;
  align-items: start;
}
.grid legend {
  grid-column: 1 / -1;
}
.grid input {
  width: 100%;
}
.grid label {
  display: flex;
  align-items: end;
  min-height: 2.7em;
  line-height: 1.25;
}
.nothere {
  font-size: 0.9rem;
  font-weight: 400;
  margin-left: 8px;
  letter-spacing: 0;
}
.grid input[aria-invalid='true'] {
  border-color: var(--stop);
}
.hint {
  font-size: 0.85rem;
}
@media (max-width: 700px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
  }
}
:deep(.school) {
  display: grid;
  grid-template-rows: auto auto 1fr auto;
  gap: 6px;
  align-content: start;
  text-align: left;
  padding: 10px 12px;
  min-height: var(--target);
  border: 2px solid var(--rule);
  border-radius: 4px;
  background: none;
  color: var(--ink);
  font: 400 0.95rem/1.3 var(--text);
  cursor: pointer;
}
:deep(.school[aria-checked='true']) {
  border-color: var(--ink);
  box-shadow: inset 0 6px var(--ink);
  padding-top: 16px;
}
:deep(.school:disabled) {
  cursor: default;
}
:deep(.school strong) {
  font-size: 1.02rem;
}
</style>
