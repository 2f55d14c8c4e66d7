<script setup lang="ts">
import type { WearAnswer } from '@undercliff/contract'
import { CONDITION_NAMES, CUTTER_TYPE_NAMES, SHARPEN_METHOD_NAMES, type Population } from '@undercliff/core'
import { computed, ref } from 'vue'
import { fetchWear } from '../remote/api'
import { useShed } from '../remote/shedStore'
import BeliefBars from './BeliefBars.vue'
import SharpCurves from './SharpCurves.vue'

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
const POPULATION_NAMES: Record<Population, string> = {
  touchUp: 'Touch-ups',
  routine: 'Filing at the bench',
  grind: 'Grinding',
}
const groups = computed(() => wear.value?.removal[population.value] ?? null)
const HANDS = { left: 'left', right: 'right' } as const
const AGES = { fresh: 'fresh file', used: 'used file', worn: 'worn file' } as const
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
    : `${shed.nameOf(longest.value.person)} takes ${Math.round(longest.value.byUm)} µm more off the ${longest.value.hand} each time`,
)
const nothing = computed(() => wear.value !== null && (groups.value?.side.length ?? 0) === 0)
</script>

<template>
  <div class="wear">
    <h1>What wears</h1>
    <div v-if="wear === null" class="sheet">
      <p v-if="wrong">{{ wrong }} <button type="button" class="act small" @click="load">Try again</button></p>
      <p v-else>Gathering the logs …</p>
    </div>
    <template v-else>
      <section class="sheet" aria-labelledby="removal-title">
        <h2 id="removal-title">{{ title }}</h2>
        <div class="row" role="radiogroup" aria-label="Kind of sharpening">
          <button
            v-for="(name, one) in POPULATION_NAMES"
            :key="one"
            type="button"
            class="act small"
            role="radio"
            :aria-checked="population === one"
            @click="population = one"
          >
            {{ name }}
          </button>
        </div>
        <p v-if="nothing" class="soft">
          Nobody has measured before and after such a sharpening yet. Read a few cutters before and after, and this
          fills.
        </p>
        <div v-else-if="groups" class="grid">
          <BeliefBars title="By person and side" :groups="groups.personSide" :name="personSide" />
          <BeliefBars title="By person" :groups="groups.person" :name="shed.nameOf" />
          <BeliefBars title="By side" :groups="groups.side" :name="(hand) => HANDS[hand as 'left']" />
          <BeliefBars
            title="By method"
            :groups="groups.method"
            :name="(method) => SHARPEN_METHOD_NAMES[method as 'grinder']"
          />
          <BeliefBars title="By age of the file" :groups="groups.fileAge" :name="(age) => AGES[age as 'used']" />
        </div>
        <p class="soft small">
          Micrometres off a cutter in one sharpening; bars are 95 % ranges, drawn toward all the others while there are
          few figures. A stroke takes about {{ Math.round(wear.perStroke.meanUm) }} µm ({{ wear.perStroke.own }} counted
          sides).
        </p>
      </section>
      <SharpCurves class="sheet" :curves="wear.curves" :names="CUTTER_TYPE_NAMES" :conditions="CONDITION_NAMES" />
    </template>
  </div>
</template>

<style scoped>
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
