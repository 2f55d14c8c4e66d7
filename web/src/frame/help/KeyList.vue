<script setup lang="ts">
import { DAMAGE_KEYS, WALK_KEYS } from '../../parts/keys'
import { PLACES } from '../places'

const ANYWHERE: readonly (readonly [string, string])[] = [
  ['/', 'search: loops, saws, people, screens, words'],
  ...PLACES.map(({ key, name }) => [`Shift ${key}`, name] as const),
  ['? or F1', 'help and keys'],
]
const SHED: readonly (readonly [string, string])[] = [
  ['f', 'find in the list'],
  ['arrow keys', 'from loop to loop'],
  ['Enter', 'open the loop'],
  ['t', 'triage: go through all that wait'],
  ['p', 'put the loop somewhere: then a letter for a place, a number for a saw'],
  ['x', 'choose the loop, to move several'],
]
const LOOP: readonly (readonly [string, string])[] = [
  ['d', 'decide: options, costs, what if'],
  ['Enter', 'while deciding: start the job'],
  ['m', 'measure'],
  ['s', 'log a sharpening'],
  ['t', 'sharpen it step by step'],
  ['g', 'log gauges lowered'],
  ['r', 'log tanks run'],
  ['p', 'put it somewhere'],
  ['i', 'log an inspection'],
  ['x', 'log a strike'],
  ['w', 'what the saw tells'],
  ['arrow keys', 'from cutter to cutter on the loop map'],
  ['Shift arrows', 'on the map of a strike: choose a run'],
]
const TRIAGE: readonly (readonly [string, string])[] = [
  ['up, down', 'from loop to loop'],
  ['x', 'choose the loop'],
  ['a', 'accept the verdicts of those chosen'],
]
const SHARPENING: readonly (readonly [string, string])[] = [
  ['Enter, Space', 'on to the next cutter or step'],
  ['a', 'all is done up to the first cutter'],
  ['number, Enter', 'what the cutter measures after its strokes'],
  ['number, °, Enter', 'its angle'],
  ['+ and -', 'a stroke more or fewer'],
  ['*', 'counts a stroke'],
  ['m', 'the number that follows is what it measures before them'],
  ['c', 'the cutter is clean'],
  ['d', 'damage that was found on it'],
  ['s', 'skip this cutter'],
  ['b', 'back to the one before'],
  ['u', 'undo the last thing'],
]
const groups = [
  { name: 'Anywhere', keys: ANYWHERE },
  { name: 'In the shed', keys: SHED },
  { name: 'On a loop', keys: LOOP },
  { name: 'Triage', keys: TRIAGE },
  { name: 'Sharpening step by step', keys: SHARPENING },
  { name: 'Walking round', keys: WALK_KEYS.map(({ key, does }) => [key, does] as const) },
  { name: 'Damage, while walking round', keys: DAMAGE_KEYS.map(({ key, name }) => [key, name] as const) },
]
</script>

<template>
  <div class="groups">
    <section v-for="group in groups" :key="group.name">
      <h3>{{ group.name }}</h3>
      <dl>
        <template v-for="[key, does] in group.keys" :key="key">
          <dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
    </section>
  </div>
</template>

<style scoped>
.groups {
  columns: 2 280px;
}
section {
  break-inside: avoid;
  margin-bottom: 18px;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 14px;
  margin: 6px 0 0;
}
dd {
  margin: 0;
}
</style>
