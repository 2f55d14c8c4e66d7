<script setup lang="ts">
import type { WearAnswer } from '@undercliff/contract'
import {
  CONDITION_WORDS,
  CUTTER_TYPE_NAMES,
  FILE_AGE_WORDS,
  METHOD_WORDS,
  POPULATION_WORDS,
  POPULATIONS,
  type FileAge,
  type Population,
  type SharpenMethod,
  writeLength,
} from '@undercliff/core'
import { computed, ref } from 'vue'
import { fetchWear } from '../../remote/api'
import { useShed } from '../../remote/shedStore'
import BeliefBars from './BeliefBars.vue'
import PaceBars from './PaceBars.vue'
import SignsLearned from './SignsLearned.vue'
import SharpCurves from './SharpCurves.vue'
import RadioChoice from '../../parts/RadioChoice.vue'

/** What sharpening takes off, and how long loops stay sharp, over everything the crew has logged. */
const shed = useShed()
const wear = ref<WearAnswer | null>(null)
const wrong = ref('')
async function load(): Promise<void> {
  wrong.value = ''
  try {
    wear.value = await fetchWear()
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
void load()
const population = ref<Population>('touchUp')
const populations = POPULATIONS.map((value) => ({ value, label: POPULATION_WORDS[value].all }))
const groups = computed(() => wear.value?.removal[population.value] ?? null)
const personSide = (key: string): string => {
  const [person = '', hand = ''] = key.split('|')
  return `${shed.nameOf(person)}, ${hand}`
}
/** Who surely takes more off one side, the most of them. */
const longest = computed(() => {
  const gaps = (groups.value?.sideGap ?? []).filter(({ low, high }) => low > 0 || high < 0)
  const [most] = [...gaps].sort((a, b) => Math.abs(b.mean) - Math.abs(a.mean))
  return most === undefined
    ? null
    : { person: most.group, hand: most.mean > 0 ? 'right' : 'left', byUm: Math.abs(most.mean) }
})
const title = computed(() =>
  longest.value === null
    ? 'Nobody surely takes more off one side'
    : [
        `${shed.nameOf(longest.value.person)} takes ${writeLength(Math.round(longest.value.byUm), shed.lengths)} more`,
        `off the ${longest.value.hand} each time`,
      ].join(' '),
)
const nothing = computed(() => wear.value !== null && (groups.value?.side.length ?? 0) === 0)
</script>

<template>
  <div class="wear">
    <header class="row">
      <h1>What wears</h1>
      <RouterLink class="act small words no-print" :to="{ name: 'glossary' }">Words of the trade</RouterLink>
    </header>
    <div v-if="wear === null" class="sheet">
      <p v-if="wrong">{{ wrong }} <button type="button" class="act small" @click="load">Try again</button></p>
      <p v-else>Gathering the logs …</p>
    </div>
    <template v-else>
      <section class="sheet" aria-labelledby="removal-title">
        <h2 id="removal-title">{{ title }}</h2>
        <RadioChoice v-model="population" label="Kind of sharpening" :options="populations" small />
        <p v-if="nothing" class="soft">
          Nobody has measured before and after such a sharpening yet. Read a few cutters before and after, and this
          fills.
        </p>
        <div v-else-if="groups" class="grid">
          <BeliefBars title="By person and side" :groups="groups.personSide" :name="personSide" />
          <BeliefBars title="By person" :groups="groups.person" :name="shed.nameOf" />
          <BeliefBars title="By side" :groups="groups.side" :name="(hand) => hand" />
          <BeliefBars
            title="By method"
            :groups="groups.method"
            :name="(method) => METHOD_WORDS[method as SharpenMethod]"
          />
          <BeliefBars
            title="By age of the file"
            :groups="groups.fileAge"
            :name="(age) => FILE_AGE_WORDS[age as FileAge]"
          />
        </div>
        <p class="soft small">
          What comes off a cutter in one sharpening; bars are 95 % ranges, drawn toward all the others while there are
          few figures. A stroke takes about {{ writeLength(Math.round(wear.perStroke.meanUm), shed.lengths) }} ({{
            wear.perStroke.own
          }}
          counted sides).
        </p>
      </section>
      <PaceBars class="sheet" :groups="wear.pace" />
      <SignsLearned class="sheet" :counts="shed.rules.signCounts ?? {}" />
      <SharpCurves class="sheet" :curves="wear.curves" :names="CUTTER_TYPE_NAMES" :conditions="CONDITION_WORDS" />
    </template>
  </div>
</template>

<style scoped>
.words {
  margin-left: auto;
}
.wear {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 18px 28px;
  margin: 12px 0;
}
.row {
  margin-top: 8px;
}
.small {
  font-size: 0.88rem;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
