<script setup lang="ts">
import {
  ACTION_WORDS,
  briefMinutes,
  schoolWords,
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
import VerdictMark from '../../parts/VerdictMark.vue'

/** One school: what it says, what it trades, and what it comes to on the loop. */
const props = defineProps<{
  school: School
  question: Question
  outcome: TradeOff | null
  figures: Figures
}>()
const words = computed(() => schoolWords(props.question, props.school.id))
const length = (um: number): string => writeLength(um, props.figures.lengths)
/** A range as short as a card needs it. */
const count = ({ low, likely, high }: CountRange): string =>
  low === high ? String(likely) : `${likely} (${low}–${high})`
const percent = (part: number): string => `${Math.round(part * 100)} %`

type Row = readonly [name: string, value: string]
const metal = (o: TradeOff): Row => ['Metal', `${length(o.metalUm)} a cutter`]
const time = (o: TradeOff): Row => ['Time', briefMinutes(o.minutes)]
const left = (o: TradeOff): Row => ['Left after', count(o.sharpeningsLeft)]

function everySoManyTanks(tanks: number): string {
  return tanks === 1 ? 'every tank' : `every ${tanks.toFixed(tanks % 1 === 0 ? 0 : 1)} tanks`
}

function soundAndEven({ stages }: TradeOff): string {
  if (stages === null) return 'in one go'
  return stages.sharpenings === null ? 'not in any time' : `in ${stages.sharpenings} sharpenings`
}

/** What blunt cutters cost until then. */
const lost = ({ lostHours, lostMinor }: NonNullable<TradeOff['stages']>): Row => [
  'Blunt meanwhile',
  `${lostHours.toFixed(1)} h, ${writeMoney(lostMinor, props.figures.currency)}`,
]

/** The figures that each question is about. */
const ROWS: Readonly<Record<Question, (o: TradeOff) => readonly Row[]>> = {
  uneven: (o) => [
    metal(o),
    time(o),
    left(o),
    ['Evenness', o.spreadUm === null ? 'not measured' : `${length(o.spreadUm)} apart`],
    ['Left damaged', o.damagedLeft === 0 ? 'none' : `${o.damagedLeft} cutters`],
    ['Sound and even', soundAndEven(o)],
    ...(o.stages === null || o.stages.lostHours < 0.05 ? [] : [lost(o.stages)]),
  ],
  gauges: (o) => [['Setting now', length(o.targetUm)], ['Of its best', percent(o.cutsAt)], time(o)],
  file: (o) => [
    ['File now', writeFile(o.file.fileUm)],
    ['Bottom below plate', length(o.file.bottomUm)],
    ['Plate above strap', `about ${length(o.file.heightUm)}`],
    ['Clears the strap', o.file.clears ? 'yes' : 'no'],
  ],
  chisel: (o) => [
    ['Top plate', `${o.topPlateAngleDeg}°`],
    ['Table on a grinder', `${props.school.sets.chiselDownAngleDeg ?? 0}°`],
  ],
  sidePlate: (o) => [
    ['Bevel', `${Math.round(o.bevelDeg)}°`],
    ['File above plate', percent(o.partAbove)],
    ['Sharp for', `about ${o.sharpHours.likely.toFixed(1)} h`],
  ],
  guide: (o) => [time(o), ['Strays', `± ${length(o.strayUm)}`], ['File above plate now', percent(o.partAbove)]],
  when: ({ cycle }) => [
    ['Sharpened', everySoManyTanks(cycle.tanks)],
    ['Metal a tank', length(Math.round(cycle.metalPerTankUm))],
    ['Time a tank', `${cycle.minutesPerTank.toFixed(1)} min`],
    ['Lasts', `about ${Math.round(cycle.tanksLeft)} tanks`],
  ],
  bench: (o) => [
    metal(o),
    time(o),
    left(o),
    [
      'A sharp hour',
      o.perHourMinor === null ? '–' : writeMoney(Math.round(o.perHourMinor.likely), props.figures.currency),
    ],
  ],
}
const rows = computed(() => (props.outcome === null ? [] : ROWS[props.question](props.outcome)))
</script>

<template>
  <strong>{{ words.name }}</strong>
  <span class="trades">{{ words.trades }}</span>
  <span v-if="outcome" class="figs">
    <template v-for="[name, value] in rows" :key="name"
      ><span class="soft">{{ name }}</span><span class="figures">{{ value }}</span></template
    >
  </span>
  <span v-if="outcome && question !== 'when'" class="verdict"
    ><VerdictMark :action="outcome.action" /> {{ ACTION_WORDS[outcome.action] }}</span
  >
</template>

<style scoped>
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
