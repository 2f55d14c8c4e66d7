<script setup lang="ts">
import {
  cutterName,
  CUTTER_DAMAGE,
  damageDepth,
  gaugeRuleOf,
  gaugeStanding,
  sayDamage,
  summarise,
  writeLength,
  type CutterState,
  type HouseRules,
  type LengthPreference,
  type LoopState,
} from '@undercliff/core'
import { computed } from 'vue'
import CutterStrip from './CutterStrip.vue'

/**
 * Every cutter in order from the start mark, seen from above: left-hand cutters above the chain,
 * right-hand ones below. Height is what is left to the witness mark.
 */
const props = defineProps<{
  state: LoopState
  lengths: LengthPreference
  selected?: number | undefined
  /** The house's limits for depth gauges, and the rule that says what they come down to. */
  rules: HouseRules
  low?: boolean
  /** What each cutter would be brought to: the map then shows before and after. */
  afterUm?: readonly number[] | undefined
  /** Cutters are pointed at here: a phone gets a strip wide enough for a thumb. */
  strip?: boolean
  /** A run of cutters that is being chosen: by one stroke of the pointer, or Shift and arrows. */
  run?: readonly number[] | undefined
}>()
const emit = defineEmits<{ select: [number]; run: [number[]] }>()

const WIDTH = 1000
const SIDE = 128
const CHAIN = 30
const HEIGHT = SIDE * 2 + CHAIN
const EDGE_PAD = 6
/** Narrower than this a cutter is not seen or hit; a long loop scrolls sideways instead. */
const LEAST_SLOT_PX = 7
/** Room for half a plate at either end. */
const PAD = 12

const summary = computed(() => summarise(props.state))
const slot = computed(() => (WIDTH - 2 * PAD) / props.state.cutters.length)
const middleOf = (number: number): number => PAD + (number - 0.5) * slot.value
const barWidth = computed(() => Math.min(44, slot.value * 1.55))
const scaleUm = computed(() => (SIDE - 16) / Math.max(1, props.state.spec.newLengthUm - props.state.spec.markLengthUm))
const leftUm = (cutter: CutterState): number => Math.max(0, cutter.length.um - props.state.spec.markLengthUm)

/** A top plate from above: its leading edge stands at the angle it is filed to. */
function plate(cutter: CutterState, fromUm: number, toUm: number): string {
  const up = cutter.hand === 'left' ? -1 : 1
  const base = up < 0 ? SIDE : SIDE + CHAIN
  const x = middleOf(cutter.number) - barWidth.value / 2
  const slant = Math.min(12, barWidth.value * 0.35)
  const y = (um: number): number => base + up * um * scaleUm.value
  const [a, b] = [y(fromUm), y(toUm)]
  const lean = (value: number, um: number): number =>
    um === 0 ? value : value - up * Math.min(slant, um * scaleUm.value)
  return `M${x} ${a}L${x} ${b}L${x + barWidth.value} ${lean(b, toUm)}L${x + barWidth.value} ${lean(a, fromUm)}Z`
}

const bars = computed(() =>
  props.state.cutters.map((cutter) => {
    const left = leftUm(cutter)
    const depth = damageDepth(cutter.damage)
    const sound = left - Math.min(left, depth.knownUm)
    const after = Math.max(
      0,
      Math.min(left, (props.afterUm?.[cutter.number - 1] ?? cutter.length.um) - props.state.spec.markLengthUm),
    )
    const gone = left - sound
    const serious = cutter.damage.some(({ kind }) => ['ends', 'unfit'].includes(CUTTER_DAMAGE[kind].effect))
    return {
      cutter,
      x: middleOf(cutter.number),
      ghost: plate(cutter, 0, props.state.spec.newLengthUm - props.state.spec.markLengthUm),
      sound: plate(cutter, 0, serious ? 0 : sound),
      hurt: gone > 0 || serious ? plate(cutter, serious ? 0 : sound, left) : null,
      off: after < left ? plate(cutter, after, left) : null,
      inRun: props.run?.includes(cutter.number) === true,
      unknown: depth.unknown,
      minor: cutter.damage.length > 0 && depth.knownUm === 0 && !depth.unknown && !serious,
      tipY: cutter.hand === 'left' ? SIDE - left * scaleUm.value : SIDE + CHAIN + left * scaleUm.value,
      gauge: gaugeStanding(props.state.spec, cutter, gaugeRuleOf(props.state, props.rules)),
    }
  }),
)
const worst = computed(() => bars.value[summary.value.worst.number - 1])
const chosen = computed(() => props.state.cutters[(props.selected ?? 0) - 1])
const every = computed(() => (props.state.cutters.length > 40 ? 4 : 2))

const describe = (cutter: CutterState): string => {
  const how =
    cutter.length.known === 'measured'
      ? 'measured'
      : cutter.length.known === 'new'
        ? 'as new, not measured'
        : 'estimated'
  const damage = cutter.damage.map((one) => sayDamage(one, props.lengths))
  const read = cutter.setting.known === 'measured' ? 'measured' : 'estimated'
  return [
    `${cutterName(cutter.number, cutter.hand)}: ${writeLength(cutter.length.um, props.lengths)} ${how}`,
    ...damage,
    `gauge setting ${writeLength(cutter.setting.um, props.lengths)} ${read}`,
  ].join('; ')
}

const wrap = (number: number): number =>
  ((((number - 1) % props.state.cutters.length) + props.state.cutters.length) % props.state.cutters.length) + 1

/** The run grows and shrinks at its end, past the joint too. */
function extend(by: number): void {
  const run = props.run ?? []
  const last = run.at(-1)
  if (last === undefined) emit('run', [props.selected ?? 1])
  else if (by > 0 && run.length < props.state.cutters.length) emit('run', [...run, wrap(last + 1)])
  else if (by < 0 && run.length > 1) emit('run', run.slice(0, -1))
}

/** On the strip the first tap begins a run, the next one ends it, and the one after that begins another. */
function pick(number: number): void {
  emit('select', number)
  if (props.run === undefined) return
  const [first] = props.run
  emit('run', first === undefined || props.run.length !== 1 ? [number] : between(first, number))
}

let from: number | null = null
const numberAt = (event: PointerEvent): number => {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  const x = ((event.clientX - box.left) / box.width) * WIDTH
  return Math.min(props.state.cutters.length, Math.max(1, Math.ceil((x - PAD) / slot.value)))
}
const between = (a: number, b: number): number[] =>
  Array.from({ length: Math.abs(b - a) + 1 }, (_, i) => Math.min(a, b) + i)
function press(event: PointerEvent): void {
  if (props.run === undefined) return
  from = numberAt(event)
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  emit('run', [from])
}
function drag(event: PointerEvent): void {
  if (from !== null) emit('run', between(from, numberAt(event)))
}
const release = (): void => {
  from = null
}

function move(event: KeyboardEvent): void {
  const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  if (props.run !== undefined && event.shiftKey) {
    extend(by)
    return
  }
  const count = props.state.cutters.length
  emit('select', (((((props.selected ?? (by > 0 ? 0 : 1)) - 1 + by) % count) + count) % count) + 1)
}
</script>

<template>
  <figure class="map" :class="{ low }">
    <div class="scroll">
      <div :style="{ minWidth: `${state.cutters.length * LEAST_SLOT_PX}px` }">
        <svg
          :viewBox="`0 ${-EDGE_PAD} ${WIDTH} ${HEIGHT + EDGE_PAD * 2}`"
          preserveAspectRatio="none"
          tabindex="0"
          role="group"
          :class="{ choosing: run !== undefined }"
          :aria-label="
            run === undefined
              ? 'Loop map. Arrow keys go from cutter to cutter.'
              : 'Loop map. Arrow keys go from cutter to cutter, with Shift they choose a run.'
          "
          @keydown="move"
          @pointerdown="press"
          @pointermove="drag"
          @pointerup="release"
          @pointercancel="release"
        >
          <defs>
            <pattern id="taken" width="5" height="5" patternUnits="userSpaceOnUse">
              <rect class="paper" width="5" height="5" />
              <path class="dot" d="M0 2.5H2.5" />
            </pattern>
            <pattern id="estimated" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <path class="hatch" d="M0 0V6" />
            </pattern>
          </defs>
          <rect class="chain" x="0" :y="SIDE + 6" :width="WIDTH" :height="CHAIN - 12" />
          <g
            v-for="bar in bars"
            :key="bar.cutter.number"
            class="cutter"
            :class="[bar.cutter.length.known, { chosen: bar.cutter.number === selected, struck: bar.inRun }]"
            :data-cutter="bar.cutter.number"
            @click="emit('select', bar.cutter.number)"
          >
            <title>{{ describe(bar.cutter) }}</title>
            <rect
              class="reach"
              :x="bar.x - barWidth / 2"
              :y="bar.cutter.hand === 'left' ? 0 : SIDE + CHAIN"
              :width="barWidth"
              :height="SIDE"
            />
            <path class="ghost" :d="bar.ghost" />
            <path class="sound" :d="bar.sound" />
            <path v-if="bar.hurt" class="hurt" :d="bar.hurt" />
            <path v-if="bar.off" class="taken" :d="bar.off" />
            <path v-if="bar.unknown" class="asks" :d="`M${bar.x - barWidth / 2} ${bar.tipY}h${barWidth}`" />
            <circle v-if="bar.minor" class="hurt" :cx="bar.x" :cy="bar.tipY" r="5" />
            <path
              v-if="bar.gauge !== 'fine'"
              class="gauge"
              :class="bar.gauge"
              :d="
                bar.gauge === 'high'
                  ? `M${bar.x - 6} ${SIDE + 20}l6 -10 6 10z`
                  : `M${bar.x - 6} ${SIDE + 10}l6 10 6 -10z`
              "
            />
            <rect v-else class="gauge fine" :x="bar.x - 2.5" :y="SIDE + 12.5" width="5" height="5" />
          </g>
          <path class="marks" :d="`M0 ${SIDE}H${WIDTH}M0 ${SIDE + CHAIN}H${WIDTH}`" />
        </svg>
        <div class="numbers figures" aria-hidden="true">
          <span
            v-for="bar in bars"
            :key="bar.cutter.number"
            :class="{
              off: (bar.cutter.number - 1) % every !== 0,
              worst: state.held.length === 0 && bar.cutter.number === summary.worst.number,
            }"
            :style="{ left: `${(bar.x / WIDTH) * 100}%` }"
            >{{ bar.cutter.number }}</span
          >
        </div>
      </div>
    </div>
    <CutterStrip
      v-if="strip"
      class="thumb"
      :state="state"
      :lengths="lengths"
      :selected="selected"
      :run="run"
      @select="pick"
    />
    <figcaption>
      <p v-if="chosen" class="said" aria-live="polite">Cutter {{ describe(chosen) }}</p>
      <p v-else-if="worst && state.held.length === 0" class="said">Worst: {{ describe(worst.cutter) }}</p>
      <p class="key soft">
        <span><i class="sw measured" /> measured</span><span><i class="sw estimated" /> estimated</span
        ><span><i class="sw hurt" /> to come off for damage</span><span><i class="sw ghost" /> new</span>
        <span><i class="sw asks" /> damaged, depth not measured</span><span>▲ gauge high</span><span>▼ gauge low</span
        ><span>line: witness mark</span><span v-if="afterUm"><i class="sw taken" /> comes off</span>
      </p>
    </figcaption>
  </figure>
</template>

<style scoped>
.map {
  margin: 0;
  position: relative;
}
svg {
  display: block;
  width: 100%;
  height: 300px;
}
.low svg {
  height: 180px;
}
.low .key {
  display: none;
}
.scroll {
  overflow-x: auto;
}
.chain {
  fill: var(--steel-light);
  opacity: 0.45;
}
.reach {
  fill: transparent;
  cursor: pointer;
}
.ghost {
  fill: none;
  stroke: var(--steel-light);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
  stroke-dasharray: 3 3;
  pointer-events: none;
}
.sound {
  fill: var(--steel);
  pointer-events: none;
}
.estimated .sound {
  fill: url(#estimated);
  stroke: var(--steel);
  vector-effect: non-scaling-stroke;
}
.new .sound {
  fill: none;
  stroke: var(--steel);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
.hatch {
  stroke: var(--steel);
  stroke-width: 4;
}
.hurt {
  fill: var(--stop);
  pointer-events: none;
}
.choosing {
  touch-action: none;
  cursor: crosshair;
}
.struck .reach {
  fill: color-mix(in srgb, var(--stop) 28%, transparent);
}
.taken {
  fill: url(#taken);
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.paper {
  fill: color-mix(in srgb, var(--sheet) 38%, transparent);
}
.dot {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.sw.taken {
  background: repeating-linear-gradient(0deg, var(--ink) 0 2px, transparent 2px 4px);
  border-color: var(--ink);
}
.chosen .reach {
  fill: color-mix(in srgb, var(--work) 35%, transparent);
}
.marks {
  stroke: var(--ink);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.gauge {
  fill: var(--ink);
  pointer-events: none;
}
.gauge.fine {
  fill: var(--ink-soft);
  opacity: 0.6;
}
.gauge.high,
.gauge.low {
  fill: var(--stop);
}
.numbers {
  position: relative;
  height: 22px;
  font-size: 0.78rem;
  color: var(--ink-soft);
}
.numbers span {
  position: absolute;
  transform: translateX(-50%);
  top: 2px;
}
.numbers .off {
  display: none;
}
.numbers .worst {
  display: block;
  background: var(--ink);
  color: var(--sheet);
  padding: 0 4px;
  border-radius: 2px;
  z-index: 1;
  forced-color-adjust: none;
}
.asks {
  stroke: var(--stop);
  stroke-width: 9;
  stroke-dasharray: 4 3;
  pointer-events: none;
}
.said {
  font-weight: 700;
  padding-top: 4px;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: 0.85rem;
}
.sw {
  display: inline-block;
  width: 12px;
  height: 12px;
  vertical-align: -1px;
  border: 1px solid var(--steel);
}
.sw.measured {
  background: var(--steel);
}
.sw.estimated {
  background: repeating-linear-gradient(45deg, var(--steel) 0 2px, transparent 2px 4px);
}
.sw.hurt {
  background: var(--stop);
  border-color: var(--stop);
}
.sw.asks {
  border: 2px dashed var(--stop);
}
.sw.ghost {
  border-style: dashed;
  border-color: var(--steel-light);
}
.thumb {
  display: none;
}
@media (pointer: coarse), (max-width: 700px) {
  .thumb {
    display: flex;
  }
}
@media (max-width: 700px) {
  svg {
    height: 240px;
  }
  .numbers .off,
  .numbers span:not(.worst):nth-child(4n + 3) {
    display: none;
  }
}
</style>
