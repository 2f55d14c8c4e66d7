<script setup lang="ts">
import {
  chainSpeed,
  depthBounds,
  FULL_THROTTLE,
  pitchUmOf,
  STRIKE_NAMES,
  STRIKE_OBJECTS,
  strikeExposure,
  TOUCH_MS,
  type LoopSpec,
  type StrikeObject,
} from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import LoopMap from '../../parts/LoopMap.vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import { useDraft } from '../../parts/draft'
import { useFigure } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import { useLoop } from '../../remote/loopStore'
import { useShed } from '../../remote/shedStore'
import { inTheirOrder, readCutterNumbers, sayRun } from './cutterNumbers'
import NoteForm from './NoteForm.vue'
import type { NoteBody } from './noteBody'

/** What a loop struck, and on which cutters, as far as anybody has looked. */
const props = defineProps<{ tag: string }>()
const loop = useLoop()
const shed = useShed()
const against = ref<StrikeObject | null>(null)
const objects = STRIKE_OBJECTS.map((value) => ({ value, label: STRIKE_NAMES[value] }))
const cuttersText = ref('')
const strikeDepth = useFigure('Depth', () => depthBounds(loop.state?.spec ?? { newLengthUm: 9000 }))
const struckOn = ref<number | undefined>()
useDraft(`struck:${props.tag}`, { against, cuttersText, strikeDepth: strikeDepth.text, struckOn })
const rules = computed(() => shed.rules)
const cutterCount = computed(() => loop.state?.cutters.length ?? 0)
/** The run as the map draws it: what the text says, as far as it can be read. */
const struckRun = computed<number[]>(() => {
  const numbers = readCutterNumbers(cuttersText.value, cutterCount.value)
  return typeof numbers === 'string' ? [] : inTheirOrder(numbers, cutterCount.value)
})
const chooseRun = (run: number[]): void => {
  cuttersText.value = sayRun(run)
  struckOn.value = undefined
}
/** The cutter that was looked at: the one chosen on the map, else the middle of the run. */
const deepestOn = computed(() =>
  struckOn.value !== undefined && struckRun.value.includes(struckOn.value)
    ? struckOn.value
    : struckRun.value[Math.floor(struckRun.value.length / 2)],
)
/** At full throttle a touch meets so many in a row: as many have to be looked at. */
const exposed = (spec: LoopSpec): number =>
  strikeExposure(spec, chainSpeed(pitchUmOf(spec), FULL_THROTTLE.perMinute, FULL_THROTTLE.teeth), TOUCH_MS).cutters

function body(): NoteBody | string {
  if (against.value === null) return 'Say what it struck; “Not sure” is an answer too.'
  const struck = { kind: 'struck', against: against.value } as const
  if (cuttersText.value.trim() === '') return struck
  const numbers = readCutterNumbers(cuttersText.value, cutterCount.value)
  if (typeof numbers === 'string') return numbers
  const cutters = inTheirOrder(numbers, cutterCount.value)
  const depthUm = against.value === 'soil' ? null : strikeDepth.read()
  if (typeof depthUm === 'string') return depthUm
  if (depthUm === null || deepestOn.value === undefined) return { ...struck, cutters }
  return { ...struck, cutters, deepest: { cutter: deepestOn.value, depthUm } }
}
</script>

<template>
  <NoteForm v-slot="{ state }" :tag="tag" title="Log a strike of" save="Log the strike" :body="body">
    <p class="caution grave">
      Stop the engine before you touch the chain. A struck chain is looked over, every cutter, strap and rivet, before
      it cuts again.
    </p>
    <fieldset>
      <legend>What</legend>
      <RadioChoice v-model="against" label="What it struck" :options="objects" />
    </fieldset>
    <fieldset>
      <legend>Where, if you can see: draw over the cutters</legend>
      <LoopMap
        :state="state"
        :lengths="shed.lengths"
        :rules="rules"
        :selected="struckOn"
        :run="struckRun"
        strip
        low
        @run="chooseRun"
        @select="struckOn = $event"
      />
      <p class="soft">
        At full speed a touch of {{ TOUCH_MS }} ms meets about {{ exposed(state.spec) }} cutters in a row.
      </p>
    </fieldset>
    <div class="abreast">
      <div class="field">
        <label for="cutters">Cutters <span class="soft">(such as 5-9, 12)</span></label
        ><NInput v-model:value="cuttersText" :input-props="{ id: 'cutters' }" placeholder="" />
      </div>
      <FigureField v-if="struckRun.length > 0 && against !== 'soil'" id="strike-depth" :figure="strikeDepth"
        >How deep on cutter {{ deepestOn }}, the worst <span class="soft">(if measured)</span></FigureField
      >
    </div>
    <p v-if="strikeDepth.text.value.trim() !== '' && struckRun.length > 1" class="soft">
      The others of the run are worked out from it, as estimates, until somebody looks.
    </p>
  </NoteForm>
</template>
