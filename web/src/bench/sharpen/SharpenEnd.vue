<script setup lang="ts">
import {
  cutterName,
  endedAs,
  parcelOf,
  tonight,
  TOOL_FACTS,
  workedAlone,
  type LoopState,
  type NewEntry,
  type NewSawEntry,
  type PutBack,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { LOOK_AGAIN_MINUTES, useReminders } from '../../remote/reminders'
import { useShed } from '../../remote/shedStore'
import { useWriting } from '../../remote/writing'
import PutBackList from './PutBackList.vue'
import type { SharpeningHere } from './sharpening'

/** All steps are through, or it ends here: what was left out, the gauges, the put-back, and the log. */
const props = defineProps<{ here: SharpeningHere; state: LoopState; tag: string; early?: boolean }>()
const putBack = defineModel<readonly PutBack[]>('putBack', { required: true })
const shed = useShed()
const router = useRouter()
const writing = useWriting()
const reminders = useReminders()
const { plan, walk, events, now, undo, end } = props.here
const ended = computed(() => (plan.value === null || walk.value === null ? 'nothing' : endedAs(plan.value, walk.value)))
/** The side that was worked alone, where it ended so. */
const alone = computed(() => (plan.value === null || walk.value === null ? null : workedAlone(plan.value, walk.value)))
const half = computed(() => ended.value === 'oneSide')
/** Cutters that were left out on the way. */
const leftOut = computed(() =>
  (plan.value?.sides ?? [])
    .filter(({ hand }) => (alone.value ?? hand) === hand)
    .flatMap(({ cutters }) => cutters)
    .filter(({ number }) => walk.value?.work.get(number)?.done !== true)
    .map(({ number, hand }) => cutterName(number, hand)),
)
const gaugesDone = ref<boolean | null>(null)
/** They come down by a pass of their own: a two-in-one has them done with every stroke. */
const ownPass = computed(() => plan.value !== null && !TOOL_FACTS[plan.value.tool].gaugesToo)
const lowered = computed(() => ownPass.value && (gaugesDone.value ?? plan.value?.gauges.due) === true)
const plate = computed(() => props.here.plate.value)
/** The next loop of tonight's list that is sharpened too. */
const next = computed(() =>
  tonight(shed.loops).find(({ tag, action }) => tag !== props.tag && (action === 'file' || action === 'regrind')),
)
/** Minutes that stand on the job sheet; entering it took no time that counts. */
const paperMinutes = ref('')
const onPaper = computed(() => {
  const minutes = Number(paperMinutes.value.trim().replace(',', '.'))
  return paperMinutes.value.trim() === '' || !(minutes > 0) || minutes > 1440 ? null : minutes
})
/** What the sharpening writes. */
function sharpened(endedMs: number): NewEntry[] {
  if (plan.value === null) return []
  const { fileAge, usedIds } = props.here
  return parcelOf(plan.value, events.value, {
    loopId: props.state.loopId,
    personId: now.value.personId,
    newId: nanoid,
    endedMs,
    // Gauges are lowered behind both sides.
    gaugesTo: half.value || !lowered.value ? null : (plate.value?.used ?? null),
    used: usedIds.value,
    ...(now.value.fromPaper === true ? { minutes: onPaper.value } : {}),
    ...(fileAge.value === undefined || plan.value.gives === 'touches' ? {} : { fileAge: fileAge.value }),
  })
}
/** What the log of its saw says of the put-back; nothing where it is on none. */
function putBackOn(endedMs: number): NewSawEntry[] {
  const { sawId } = props.state
  if (sawId === null || half.value || putBack.value.length === 0) return []
  const base = { id: nanoid(), sawId, happenedAt: new Date(endedMs).toISOString(), personId: now.value.personId }
  return [{ ...base, kind: 'putBack', done: putBack.value }]
}
/** What the grinder is set to now, for who comes next; where nobody answers it stays as it was written down. */
async function leaveSet(): Promise<void> {
  const { kit, grinder, wheel } = props.here.used
  if (plan.value?.setUp.with !== 'wheel' || grinder.value === undefined) return
  const { clampDeg: angleDeg, downAngleDeg: downDeg } = plan.value.setUp
  const wheelId = wheel.value === undefined ? {} : { wheelId: wheel.value.id }
  await kit.put({ ...grinder.value, set: { angleDeg, downDeg, ...wheelId } })
}
const wrong = ref('')
const busy = ref(false)
async function log(onward: boolean): Promise<void> {
  busy.value = true
  const endedMs = Date.now()
  const goesTo = onward ? next.value : undefined
  const back = putBackOn(endedMs)
  const said = half.value
    ? `The ${alone.value ?? ''} side of ${props.tag} logged; the other one waits`
    : `Sharpening of ${props.tag} logged`
  wrong.value = (await writing.write([...sharpened(endedMs), ...back], said)) ?? ''
  busy.value = false
  if (wrong.value !== '') return
  void leaveSet()
  for (const { sawId } of back) if (putBack.value.includes('tension')) reminders.remindTension(sawId)
  putBack.value = []
  end()
  await router.push(
    goesTo === undefined
      ? { name: 'loop', params: { tag: props.tag } }
      : { name: 'sharpen', params: { tag: goesTo.tag } },
  )
}
</script>

<template>
  <template v-if="plan">
    <h2>{{ half ? 'One side done' : ended === 'both' ? 'All done' : 'Not done yet' }}</h2>
    <p v-if="ended !== 'nothing' && leftOut.length > 0" class="caution" role="status">
      Left out, and not sharp: {{ leftOut.join(', ') }}.
    </p>
    <p v-if="half" class="caution grave" role="alert">
      Only the {{ alone }} side is done. Like this the saw pulls: logged so, the loop is not fit until the other side
      follows.
    </p>
    <p v-else-if="ended === 'nothing' && here.begunSide.value !== null" class="caution grave" role="alert">
      Less than a side is done. The loop stays off, on every device, until the rest follows: go on with it here or on
      another device.
    </p>
    <p v-else-if="ended === 'nothing'">No cutter was done, so there is nothing to log.</p>
    <template v-else>
      <p v-if="!ownPass">The gauges came down with every stroke: no pass of their own.</p>
      <fieldset v-else>
        <legend>Gauges lowered, {{ plate?.said }}?</legend>
        <div class="row">
          <button type="button" class="act" :aria-pressed="lowered" @click="gaugesDone = true">Yes</button>
          <button type="button" class="act" :aria-pressed="!lowered" @click="gaugesDone = false">No</button>
        </div>
      </fieldset>
      <template v-if="state.sawId !== null">
        <PutBackList v-model="putBack" :saw-name="shed.sawName(state.sawId)" />
        <p v-if="putBack.includes('tension')" class="soft">
          You are reminded to look at the tension in {{ LOOK_AGAIN_MINUTES }} minutes, and again until it stays.
        </p>
      </template>
    </template>
    <div v-if="now.fromPaper" class="field">
      <label for="paper-minutes">Minutes that stand on the paper</label
      ><input id="paper-minutes" v-model="paperMinutes" class="plain figures minutes" inputmode="decimal" />
    </div>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <div class="row">
      <button v-if="ended === 'both' && next" type="button" class="act next go" :disabled="busy" @click="log(true)">
        Log it, and on to {{ next.tag }}
      </button>
      <button
        v-if="ended === 'both'"
        type="button"
        class="act go"
        :class="{ next: !next }"
        :disabled="busy"
        @click="log(false)"
      >
        Log the sharpening
      </button>
      <button v-else-if="half" type="button" class="act" :disabled="busy" @click="log(false)">
        Log the {{ alone }} side alone
      </button>
      <button v-if="!early" type="button" class="act" @click="undo">Undo</button>
    </div>
  </template>
</template>

<style scoped>
.minutes {
  width: 8em;
}
.go {
  font-size: 1.25rem;
  min-height: 64px;
  flex: 1;
}
</style>
