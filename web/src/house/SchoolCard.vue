<script setup lang="ts">
import {
  ACTION_WORDS,
  sayMinutes,
  writeFile,
  writeLength,
  writeMoney,
  type CountRange,
  type Figures,
  type Question,
  type School,
  type TradeOff,
} from '@undercliff/core'
import { computed } from 'vue'
import VerdictMark from '../parts/VerdictMark.vue'

/** One school: what it says, what it trades, and what it comes to on the loop. */
const props = defineProps<{
  school: School
  question: Question
  follows: boolean
  outcome: TradeOff | null
  figures: Figures
  locked: boolean
}>()
const emit = defineEmits<{ choose: [] }>()
const length = (um: number): string => writeLength(um, props.figures.lengths)
/** A range as short as a card needs it. */
const count = ({ low, likely, high }: CountRange): string => (low === high ? `${likely}` : `${likely} (${low}–${high})`)
const work = (o: TradeOff): [string, string][] => [
  ['Metal', `${length(o.metalUm)} a cutter`],
  ['Time', sayMinutes(o.minutes).replace('about ', '')],
  ['Left after', count(o.sharpeningsLeft)],
]
/** The figures that a question is about. */
function rowsOf(o: TradeOff): [string, string][] {
  switch (props.question) {
    case 'uneven':
      return [
        ...work(o),
        ['Evenness', o.spreadUm === null ? 'not measured' : `${length(o.spreadUm)} apart`],
        ['Left damaged', o.damagedLeft === 0 ? 'none' : `${o.damagedLeft} cutters`],
      ]
    case 'gauges':
      return [
        ['Setting now', length(o.targetUm)],
        ['Of its best', `${Math.round(o.cutsAt * 100)} %`],
        ...work(o).slice(1, 2),
      ]
    case 'file':
      return [
        ['File now', writeFile(o.file.fileUm)],
        ['Bottom below plate', length(o.file.bottomUm)],
        ['Plate above strap', `about ${length(o.file.heightUm)}`],
        ['Clears the strap', o.file.clears ? 'yes' : 'no'],
      ]
    case 'chisel':
      return [
        ['Top plate', `${o.topPlateAngleDeg}°`],
        ['Table on a grinder', `${props.school.sets.chiselDownAngleDeg ?? 0}°`],
      ]
    case 'sidePlate':
      return [
        ['Bevel', `${Math.round(o.bevelDeg)}°`],
        ['File above plate', `${Math.round(o.partAbove * 100)} %`],
        ['Sharp for', `about ${o.sharpHours.likely.toFixed(1)} h`],
      ]
    case 'guide':
      return [
        ['Time', sayMinutes(o.minutes).replace('about ', '')],
        ['Strays', `± ${length(o.strayUm)}`],
        ['File above plate now', `${Math.round(o.partAbove * 100)} %`],
      ]
    case 'when':
      return [
        [
          'Sharpened',
          o.cycle.tanks === 1 ? 'every tank' : `every ${o.cycle.tanks.toFixed(o.cycle.tanks % 1 === 0 ? 0 : 1)} tanks`,
        ],
        ['Metal a tank', length(Math.round(o.cycle.metalPerTankUm))],
        ['Time a tank', `${o.cycle.minutesPerTank.toFixed(1)} min`],
        ['Lasts', `about ${Math.round(o.cycle.tanksLeft)} tanks`],
      ]
    case 'bench':
      return [
        ...work(o),
        [
          'A sharp hour',
          o.perHourMinor === null ? '–' : `${writeMoney(Math.round(o.perHourMinor.likely), props.figures.currency)}`,
        ],
      ]
  }
}
const rows = computed(() => (props.outcome === null ? [] : rowsOf(props.outcome)))
</script>

<template>
  <button type="button" class="school" role="radio" :aria-checked="follows" :disabled="locked" @click="emit('choose')">
    <strong>{{ school.name }}</strong>
    <span class="trades">{{ school.trades }}</span>
    <span v-if="outcome" class="figs">
      <template v-for="[name, value] in rows" :key="name"
        ><span class="soft">{{ name }}</span
        ><span class="figures">{{ value }}</span></template
      >
    </span>
    <span v-if="outcome && question !== 'when'" class="verdict"
      ><VerdictMark :action="outcome.action" /> {{ ACTION_WORDS[outcome.action] }}</span
    >
  </button>
</template>

<style scoped>
.school {
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
.school[aria-checked='true'] {
  border-color: var(--ink);
  box-shadow: inset 0 6px var(--ink);
  padding-top: 16px;
}
.school:disabled {
  cursor: default;
}
.school strong {
  font-size: 1.02rem;
}
.trades {
  font-size: 0.88rem;
}
.figs {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 10px;
  align-content: start;
  font-size: 0.85rem;
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}
.figs .figures {
  text-align: right;
  font-size: 0.82rem;
}
.verdict {
  font-weight: 700;
  font-size: 0.88rem;
}
.soft {
  color: var(--ink-soft);
}
</style>
