<script setup lang="ts">
import {
  ACTION_WORDS,
  RISK_WORDS,
  sayMinutes,
  sayRange,
  sayReason,
  saySides,
  sayStages,
  writeLength,
  writeMoney,
  type Action,
  type Figures,
  type Option,
  type SharpeningPlan,
} from '@undercliff/core'
import { computed } from 'vue'
import VerdictMark from '../../parts/VerdictMark.vue'
import { inOrder, MONEY_PARTS, partsOf } from './options'
import RadioChoice from '../../parts/RadioChoice.vue'

/** What could be done, side by side: what it costs and of what, and what it gives. */
const props = defineProps<{
  options: readonly Option[]
  shown: Action | null
  advised: Action
  /** How what is shown would be done by whoever looks at it. */
  plan: SharpeningPlan | null
  figures: Figures
  held: boolean
}>()
const emit = defineEmits<{ show: [Action] }>()
const ordered = computed(() => inOrder(props.options))
const choices = computed(() =>
  ordered.value.map((option) => ({ value: option.action, label: ACTION_WORDS[option.action], option })),
)
const classOf = (action: Action): string =>
  props.options.some((option) => option.action === action && option.feasible) ? 'option' : 'option cannot'
const most = computed(() =>
  Math.max(1, ...props.options.filter(({ feasible }) => feasible).map(({ money }) => money.totalMinor)),
)
const width = (minor: number): string => `${Math.min(100, (minor / most.value) * 100)}%`
const used = computed(() =>
  MONEY_PARTS.filter(({ part }) => props.options.some(({ feasible, money }) => feasible && money[part] > 0)),
)
const money = (minor: number): string => writeMoney(Math.round(minor), props.figures.currency)
const length = (um: number): string => writeLength(um, props.figures.lengths)
const perHour = ({ perHourMinor }: Option): string =>
  perHourMinor === null ? 'no sharp hours' : money(perHourMinor.likely)
const range = ({ perHourMinor }: Option): string =>
  perHourMinor === null || perHourMinor.high <= 0 ? '' : `${money(perHourMinor.low)} to ${money(perHourMinor.high)}`
const takes = (option: Option): string =>
  option.deepestUm === 0 ? 'no metal' : `${length(option.meanUm)} on average, ${length(option.deepestUm)} at most`
/** Strokes in the hands of whoever looks at it, as every page of the work says them, and how long that takes them. */
function inHand({ action, minutes }: Option): string {
  const { plan } = props
  const counts = plan?.action === action ? saySides(plan) : ''
  if (plan === null || counts === '') return ''
  const [here, usual] = [sayMinutes(plan.minutes), sayMinutes(minutes)]
  return `Strokes in your hands: ${counts}${here === usual ? '' : `; ${here}`}.`
}
const later = ({ action, sharpeningsLeft, stages }: Option): string =>
  action === 'retire'
    ? 'a new loop takes its place'
    : props.held
      ? ''
      : `${sayRange(sharpeningsLeft)} sharpenings after${stages === null ? '' : ', with every cutter sound'}`
</script>

<template>
  <section aria-labelledby="options-title">
    <h2 id="options-title">What could be done</h2>
    <p class="legend soft" aria-hidden="true">
      <span v-for="{ part, name } in used" :key="part"><i class="sw" :class="part" /> {{ name }}</span>
    </p>
    <RadioChoice
      v-slot="{ option: { option } }"
      class="rows"
      labelledby="options-title"
      :model-value="shown"
      :options="choices"
      :option-class="classOf"
      @update:model-value="(action) => action && emit('show', action)"
    >
      <span class="name"
        ><VerdictMark :action="option.action" /> <strong>{{ ACTION_WORDS[option.action] }}</strong
        ><span v-if="option.action === advised" class="advised">advised</span></span
      >
      <template v-if="option.feasible">
        <span
          class="bar"
          :aria-label="
            partsOf(option, figures.currency)
              .map(({ said }) => said)
              .join(', ') || 'costs nothing'
          "
          role="img"
          ><i
            v-for="{ part, minor } in partsOf(option, figures.currency)"
            :key="part"
            :class="part"
            :style="{ width: width(minor) }"
        /></span>
        <span class="rate figures"
          ><strong>{{ perHour(option) }}</strong
          ><small>{{ option.perHourMinor === null ? '' : 'a sharp hour' }}</small></span
        >
        <span class="facts soft">{{
          [
            sayMinutes(option.minutes) || 'no time',
            writeMoney(option.money.totalMinor, figures.currency),
            takes(option),
            later(option),
          ]
            .filter(Boolean)
            .join(' · ')
        }}</span>
      </template>
      <span v-else class="why">{{ option.reasons[0] ? sayReason(option.reasons[0], figures) : '' }}</span>
      <span v-if="option.action === shown && option.feasible" class="more">
        <span v-if="range(option)"
          >{{ range(option) }} a sharp hour, as times and edges vary; {{ option.sharpHours.likely.toFixed(1) }} sharp
          hours ({{ option.sharpHours.low.toFixed(1) }} to {{ option.sharpHours.high.toFixed(1) }}).</span
        >
        <span v-if="partsOf(option, figures.currency).length > 0"
          >{{
            partsOf(option, figures.currency)
              .map(({ said }) => said)
              .join(', ')
          }}.</span
        >
        <span v-if="inHand(option)">{{ inHand(option) }}</span>
        <span v-if="option.spreadUm !== null && option.deepestUm > 0 && !held"
          >Cutters then differ by {{ writeLength(option.spreadUm, figures.lengths) }}.</span
        >
        <span v-if="option.damagedLeft > 0 && option.deepestUm > 0">{{ option.damagedLeft }} still damaged.</span>
        <span v-if="option.stages !== null">{{ sayStages(option, figures.currency) }}</span>
        <span v-if="option.gauges"
          >Gauges come down in the same go, to {{ writeLength(option.settingUm, figures.lengths) }}.</span
        >
        <span v-if="option.daysAway > 0">Away about {{ option.daysAway }} days.</span>
        <span v-for="risk in option.risks" :key="risk">{{ RISK_WORDS[risk] }}</span>
      </span>
    </RadioChoice>
  </section>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  font-size: 0.82rem;
  margin: 4px 0 8px;
}
.rows {
  display: grid;
  border-bottom: 1px solid var(--rule);
}
:deep(.option) {
  display: grid;
  grid-template-columns: minmax(0, 11.5em) minmax(0, 1fr) auto;
  gap: 2px 14px;
  align-items: center;
  text-align: left;
  min-height: var(--target);
  padding: 7px 10px;
  border: 0;
  border-top: 1px solid var(--rule);
  border-left: 6px solid transparent;
  background: none;
  color: var(--ink);
  font: 400 0.95rem/1.25 var(--text);
  cursor: pointer;
}
:deep(.option[aria-checked='true']) {
  border-left-color: var(--ink);
  background: color-mix(in srgb, var(--steel-light) 30%, transparent);
}
.advised {
  font-size: 0.76rem;
  font-weight: 700;
  background: var(--work);
  color: var(--work-ink);
  border-radius: 2px;
  padding: 1px 6px;
  margin-left: 6px;
}
.bar {
  display: flex;
  height: 16px;
  min-width: 0;
}
.bar i,
.sw {
  display: inline-block;
  height: 100%;
}
.sw {
  width: 11px;
  height: 11px;
  vertical-align: -1px;
}
.labourMinor {
  background: var(--ink);
}
.consumablesMinor {
  background: var(--steel-light);
}
.shopMinor {
  background: repeating-linear-gradient(45deg, var(--ink) 0 2px, var(--sheet) 2px 5px);
}
.metalMinor {
  background: var(--steel);
}
.newLoopMinor {
  background: var(--work);
}
.upkeepMinor {
  background: repeating-linear-gradient(90deg, var(--steel) 0 2px, var(--sheet) 2px 5px);
}
.rate {
  text-align: right;
  white-space: nowrap;
}
.rate small {
  display: block;
  font: 400 0.76rem/1 var(--text);
  color: var(--ink-soft);
}
.facts,
.more {
  grid-column: 1 / 4;
  font-size: 0.87rem;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding-top: 2px;
}
.why {
  grid-column: 2 / 4;
  font-size: 0.87rem;
  color: var(--ink-soft);
}
:deep(.cannot) .name strong {
  font-weight: 400;
}
@media (max-width: 700px) {
  .option {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .bar {
    grid-column: 1 / 3;
    grid-row: 2;
  }
  .why,
  .facts,
  .more {
    grid-column: 1 / 3;
  }
}
</style>
