<script setup lang="ts">
import {
  cutterName,
  CUTTER_DAMAGE,
  CUTTER_DAMAGE_KINDS,
  damageName,
  decide,
  depthBounds,
  hasBumpers,
  MOST_TOP_PLATE_DEG,
  readAngle,
  sayDamage,
  sayReason,
  URGENCY_WORDS,
  type CutterDamage,
  type CutterDamageKind,
  type CutterReading,
  type PartDamage,
} from '@undercliff/core'
import { computed, ref } from 'vue'
import { allAlike } from '../../parts/allAlike'
import { useDraft } from '../../parts/draft'
import { useCount, useFigure } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import { COMMONEST_DAMAGE, DAMAGE_KEYS } from '../../parts/keys'
import LoopMap from '../../parts/LoopMap.vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import { useLoop } from '../../remote/loopStore'
import { useShed } from '../../remote/shedStore'
import { CHASSIS, choicesAt, partsAfter, type Looked } from './chassis'
import NoteForm from './NoteForm.vue'
import type { NoteBody } from './noteBody'

/** A look at the whole loop: cutter by cutter on the map, then the chassis place by place. */
const props = defineProps<{ tag: string }>()
const loop = useLoop()
const shed = useShed()
const wrong = ref('')
const at = ref(1)
/** What this look found on each cutter; a cutter that is not here was not spoken of. */
const found = ref<Record<number, CutterDamage[]>>({})
const looked = ref<Record<string, Looked>>({})
const allKinds = ref(false)
const depth = useFigure('Depth', () => depthBounds(loop.state?.spec ?? { newLengthUm: 9000 }))
/** Top plate angles as they were found, where somebody read them. */
const angles = ref<Record<number, number>>({})
const angle = useCount(
  'Angle',
  {
    bounds: () => ({ least: 0, most: MOST_TOP_PLATE_DEG, usual: [8, 40], known: [] }),
    read: (typed) => readAngle(typed, true),
    wanted: `degrees are wanted, 0 to ${MOST_TOP_PLATE_DEG}, such as 25.`,
    say: (deg) => `${deg}°`,
  },
  ref(''),
)
/** The damage whose depth is being asked. */
const deep = ref<CutterDamageKind | null>(null)
useDraft(`inspected:${props.tag}`, { at, found, looked, angles })

const cutters = computed(() => loop.state?.cutters ?? [])
const cutter = computed(() => cutters.value[at.value - 1])
const verdict = computed(() => (loop.state === null ? null : decide(loop.state, shed.rules)))
/** What makes a look due, in the words of the verdict. */
const due = computed(() => {
  const now = verdict.value
  if (now === null || (now.action !== 'inspect' && now.fitForUse)) return []
  return now.reasons.slice(0, 3).map((reason) => sayReason(reason, shed.figures))
})
const damageOf = (number: number): readonly CutterDamage[] =>
  found.value[number] ?? cutters.value[number - 1]?.damage ?? []
const here = computed(() => damageOf(at.value))
/** The loop as this look has it, for the map. */
const shown = computed(() =>
  loop.state === null
    ? null
    : { ...loop.state, cutters: cutters.value.map((one) => ({ ...one, damage: [...damageOf(one.number)] })) },
)
/** The commonest first; a look finds more kinds than have a key: gauges that look wrong, bumpers that were filed. */
const COMMON = DAMAGE_KEYS.slice(0, COMMONEST_DAMAGE).map(({ kind }) => kind)
const kinds = computed(() => (allKinds.value ? [...new Set([...COMMON, ...CUTTER_DAMAGE_KINDS])] : COMMON))
const bumpers = computed(() => loop.state !== null && hasBumpers(loop.state.spec))

/** An angle is asked for where it is wrong. */
const isOff = computed(() => here.value.some(({ kind }) => kind === 'wrongAngle'))
function go(by: number): void {
  if (!takeDepth()) return
  const count = cutters.value.length
  at.value = ((at.value - 1 + by + count) % count) + 1
}
function select(number: number): void {
  if (takeDepth()) at.value = number
}
function put(damage: readonly CutterDamage[]): void {
  found.value = { ...found.value, [at.value]: [...damage] }
}
/** Marks a kind of damage on the cutter in hand, or takes it away again. */
function mark(kind: CutterDamageKind): void {
  if (!takeDepth()) return
  const others = here.value.filter((one) => one.kind !== kind)
  if (others.length < here.value.length) {
    put(others)
    if (kind === 'wrongAngle') forgetAngle()
    return
  }
  put([...others, { kind, depthUm: null }])
  if (CUTTER_DAMAGE[kind].effect === 'depth') deep.value = kind
}
/** What is wrong with this one is marked on every other. */
function allLikeThis(): void {
  if (!takeDepth()) return
  found.value = {
    ...found.value,
    [at.value]: [...here.value],
    ...allAlike(at.value, cutters.value.length, damageOf),
  }
}
/** What was marked by mistake takes its degrees with it. */
function forgetAngle(): void {
  const { [at.value]: _here, ...others } = angles.value
  angles.value = others
}
/** An angle that stands in the field goes to the cutter in hand. */
function takeAngle(): boolean {
  const deg = angle.read()
  if (typeof deg === 'string') {
    wrong.value = deg
    return false
  }
  if (deg !== null) angles.value = { ...angles.value, [at.value]: deg }
  angle.text.value = ''
  return true
}
/** A depth that stands in the field goes to the damage it was asked for; one that is odd keeps the cutter in hand. */
function takeDepth(): boolean {
  if (!takeAngle()) return false
  if (deep.value === null) return true
  const um = depth.read()
  if (typeof um === 'string') {
    wrong.value = um
    return false
  }
  if (um !== null) put(here.value.map((one) => (one.kind === deep.value ? { ...one, depthUm: um } : one)))
  deep.value = null
  depth.text.value = ''
  wrong.value = ''
  return true
}
/** Everything that was known of cutters and chassis is settled: somebody looked and it is sound. */
function allSound(): void {
  deep.value = null
  depth.text.value = angle.text.value = ''
  angles.value = {}
  found.value = Object.fromEntries(
    cutters.value.filter(({ damage }) => damage.length > 0).map(({ number }) => [number, []]),
  )
  looked.value = Object.fromEntries(CHASSIS.map(({ name }) => [name, 'sound']))
}
const soundSaid = computed(
  () =>
    CHASSIS.every(({ name }) => looked.value[name] === 'sound') &&
    cutters.value.every(({ number }) => damageOf(number).length === 0),
)
const parts = (known: readonly PartDamage[]): PartDamage[] =>
  partsAfter(known, new Map(Object.entries(looked.value)), null)
const readings = (): CutterReading[] =>
  [...new Set([...Object.keys(found.value), ...Object.keys(angles.value)])].map((key) => {
    const number = Number(key)
    const [damage, angleDeg] = [found.value[number], angles.value[number]]
    return {
      cutter: number,
      ...(damage === undefined ? {} : { damage }),
      ...(angleDeg === undefined ? {} : { angleDeg }),
    }
  })

function body(): NoteBody | string {
  if (!takeDepth()) return wrong.value
  return { kind: 'inspected', readings: readings(), parts: parts(loop.state?.parts ?? []) }
}
const summary = computed(() => {
  const damaged = cutters.value.filter(({ number }) => damageOf(number).length > 0).length
  const chassis = parts(loop.state?.parts ?? []).length
  const one = damaged === 0 ? 'no cutter damaged' : `${damaged} ${damaged === 1 ? 'cutter' : 'cutters'} damaged`
  return `${one}, ${chassis === 0 ? 'chassis sound as far as anybody knows' : `${chassis} on the chassis`}`
})
</script>

<template>
  <NoteForm v-slot="{ state }" :tag="tag" title="Log an inspection of" save="Log the inspection" :body="body">
    <p class="caution">
      Engine off or battery out, brake on, gloves on. Look at working corners first, then straps, rivets, drive links
      {{ bumpers ? 'and bumpers' : 'and length' }}. A sharp edge throws no light.
    </p>
    <section v-if="due.length > 0" aria-labelledby="due">
      <h2 id="due">Why it is looked at</h2>
      <p v-for="one in due" :key="one">{{ one }}</p>
    </section>
    <p class="row">
      <button type="button" class="act" :aria-pressed="soundSaid" @click="allSound">All sound</button>
      <span class="soft" role="status">Now: {{ summary }}.</span>
    </p>
    <fieldset class="stack">
      <legend>Cutter by cutter</legend>
      <LoopMap
        v-if="shown"
        :state="shown"
        :lengths="shed.lengths"
        :rules="shed.rules"
        :selected="at"
        low
        strip
        @select="select"
      />
      <div class="row walk">
        <button type="button" class="act" @click="go(-1)">Back</button>
        <strong v-if="cutter" class="figures number" aria-live="polite">{{
          cutterName(cutter.number, cutter.hand)
        }}</strong>
        <button type="button" class="act" @click="go(1)">Next cutter</button>
        <span :class="here.length > 0 ? 'stop-text' : 'soft'">{{
          here.length === 0 ? 'sound' : here.map((one) => sayDamage(one, shed.lengths)).join('; ')
        }}</span>
        <button v-if="here.length > 0" type="button" class="act small" data-all-like-this @click="allLikeThis">
          They are all like this
        </button>
      </div>
      <div class="row" role="group" aria-label="Damage of this cutter">
        <button
          v-for="kind in kinds"
          :key="kind"
          type="button"
          class="act small"
          :aria-pressed="here.some((one) => one.kind === kind)"
          @click="mark(kind)"
        >
          {{ damageName(kind) }}
        </button>
        <button type="button" class="act small" :aria-expanded="allKinds" @click="allKinds = !allKinds">
          {{ allKinds ? 'Fewer' : 'More kinds' }}
        </button>
      </div>
      <FigureField v-if="deep !== null" :figure="depth"
        >How deep is the {{ damageName(deep) }}? <span class="soft">(empty: not measured)</span></FigureField
      >
      <FigureField v-if="isOff" :figure="angle" data-angle
        >At what angle does it stand? <span class="soft">(degrees; empty: not measured)</span>
        <span v-if="angles[at] !== undefined" class="soft">Read: {{ angles[at] }}°.</span></FigureField
      >
      <p v-for="{ kind } in here" :key="kind" class="soft">
        {{ damageName(kind) }}: {{ URGENCY_WORDS[CUTTER_DAMAGE[kind].urgency]
        }}{{ CUTTER_DAMAGE[kind].fileBites ? '' : '; a file skates on it'
        }}{{ CUTTER_DAMAGE[kind].effect === 'depth' ? '; the edge has to be taken back behind it' : '' }}.
      </p>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    </fieldset>
    <fieldset v-for="place in CHASSIS" :key="place.name" class="place">
      <legend>{{ place.name }} <span class="soft">{{ place.look }}</span></legend>
      <RadioChoice
        :model-value="looked[place.name] ?? state.parts.find(({ kind }) => place.kinds.includes(kind))?.kind ?? null"
        :label="place.name"
        :options="choicesAt(place)"
        small
        @update:model-value="looked[place.name] = $event"
      />
    </fieldset>
  </NoteForm>
</template>

<style scoped>
.walk {
  align-items: center;
}
.number {
  font-size: 1.6rem;
  min-width: 3.2em;
  text-align: center;
}
.place .soft {
  font-weight: 400;
  font-size: 0.92rem;
}
</style>
