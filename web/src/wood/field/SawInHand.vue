<script setup lang="ts">
import type { Saw } from '@undercliff/contract'
import {
  ACTION_WORDS,
  cutterName,
  fold,
  sayReason,
  STRIKE_NAMES,
  STRIKE_OBJECTS,
  type Entry,
  type StrikeObject,
} from '@undercliff/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import ToothSign from '../../parts/ToothSign.vue'
import OvertakenLine from '../../parts/OvertakenLine.vue'
import VerdictMark from '../../parts/VerdictMark.vue'
import { readLog } from '../../remote/keptLogs'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import { strokesBySide, useOnePlan } from '../../parts/onePlan'
import { sayDayOf } from './day'
import type { Field } from './field'
import type { Looked } from './look'
import { useSight } from './sight'
import { useToday } from './today'

/** The saw in hand, with its loop, and everything that is logged of it by a tap or two. */
const props = defineProps<{ field: Field; saw: Saw }>()
const shed = useShed()
const session = useSession()
const sight = useSight()
const today = useToday()
const { loop, others, just, wrong } = props.field
/** The log of the loop in hand, as this device has it, else as the server does: for what it got last. */
const log = shallowRef<readonly Entry[]>([])
watch(
  () => loop.value?.loopId,
  async (loopId) => {
    log.value = []
    if (loopId === undefined) return
    const found = await readLog(loopId)
    if (loop.value?.loopId === loopId) log.value = found
  },
  { immediate: true },
)
const onePlan = useOnePlan()
/** The loop as its log has it; null where that is not here. */
const state = computed(() => (log.value.length === 0 ? null : fold(log.value)))
const logLook = (found: Looked): void => {
  const now = state.value
  if (now === null) return
  done(() => {
    props.field.lookedOver(found, now)
  })
}
/** What the card and the work step by step say of a touch-up too; null where its log is not here. */
const plan = computed(() =>
  state.value === null
    ? null
    : onePlan({ state: state.value, rules: shed.rules, action: 'touchUp', personId: session.me?.personId ?? null }),
)
const own = ref<{ readonly left: number; readonly right: number } | null>(null)
/** A few strokes, where nothing is known of the loop. Common practice. */
const USUAL = { left: 4, right: 4 } as const
const strokes = computed(() => own.value ?? (plan.value === null ? USUAL : strokesBySide(plan.value)))
const untilClean = computed(() =>
  (plan.value?.sides ?? []).flatMap(({ cutters }) => cutters.filter((job) => job.untilClean)),
)
/** What the verdict keeps off: somebody sees to that first, and a tank is not the thing to tap. */
const SEE_TO = { inspect: 'Looked over …', stop: 'What keeps it off', measure: 'Measure it' } as const
const seeTo = computed(() => {
  const action = loop.value?.action
  return action === 'inspect' || action === 'stop' || action === 'measure' ? action : null
})
const unworked = computed(() => (loop.value === undefined ? undefined : shed.unworked.get(loop.value.loopId)))
/** Loops that somebody put on this saw, and that by a later word are elsewhere. */
const setAside = computed(() =>
  loop.value === undefined ? shed.loops.filter(({ overtaken }) => overtaken?.sawId === props.saw.id) : [],
)
const tanksToday = computed(() => today.tanksBySaw.get(props.saw.id) ?? 0)

type Asked = 'touchedUp' | 'struck' | 'swap' | 'lookedOver'
const asked = ref<Asked | null>(null)
const panel = ref<HTMLElement | null>(null)
/** A second tap is asked for, in the same place. */
async function ask(what: Asked): Promise<void> {
  asked.value = what
  own.value = null
  await nextTick()
  panel.value?.querySelector<HTMLElement>('button')?.focus({ preventScroll: true })
}
const change = (side: 'left' | 'right', by: number): void => {
  const { left, right } = strokes.value
  const before = { left, right }
  own.value = { ...before, [side]: Math.min(60, Math.max(1, before[side] + by)) }
}
function done(act: () => void): void {
  asked.value = null
  act()
}
const logTouchUp = (): void => {
  const { left, right } = strokes.value
  done(() => {
    props.field.touchedUp({ left, right }, plan.value)
  })
}
const logStrike = (against: StrikeObject): void => {
  done(() => {
    props.field.struck(against)
  })
}
</script>

<template>
  <section class="sheet in-hand" :class="{ left: sight.leftHand }" :aria-label="saw.nickname" data-in-hand>
    <header>
      <ToothSign v-if="loop" class="sign" :tooth="loop.tooth" :retired="false" />
      <div>
        <h2>
          <RouterLink class="tag name" :to="{ name: 'saw', params: { nickname: saw.nickname } }">{{
            saw.nickname
          }}</RouterLink>
          {{ ' ' }}
          <RouterLink v-if="loop" class="figures tag" :to="{ name: 'loop', params: { tag: loop.tag } }">{{
            loop.tag
          }}</RouterLink>
        </h2>
        <p v-if="loop" class="verdict" :class="{ stop: !loop.fitForUse }">
          <VerdictMark :action="loop.action" /> {{ ACTION_WORDS[loop.action] }}
        </p>
        <p v-if="loop?.reason" class="soft why">{{ sayReason(loop.reason, shed.figures) }}</p>
        <p v-if="!loop" class="soft">No loop on it.</p>
      </div>
    </header>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <OvertakenLine v-if="loop" :loop="loop" />
    <template v-for="one in setAside" :key="one.loopId">
      <OvertakenLine :loop="one" />
      <button type="button" class="act" data-here @click="field.swap(one, false)">{{ one.tag }} is on this saw</button>
    </template>
    <p v-if="unworked" class="caution grave" role="alert" data-unworked>
      What is logged here cannot be worked out on this device now: {{ unworked }} What was struck, or half sharpened,
      stays off until the shed has answered.
    </p>
    <div class="just" role="status" aria-live="polite">
      <template v-if="just">
        <span>{{ just.text }}.</span>
        <button type="button" class="act" data-undo @click="field.undo">Undo</button>
      </template>
      <span v-else-if="loop" class="soft day">A tank counts as one in {{ sayDayOf(field.day.value) }}.</span>
    </div>
    <div v-if="asked" ref="panel" class="second stack" :data-asked="asked">
      <template v-if="asked === 'touchedUp'">
        <p class="soft">Strokes for each cutter{{ plan === null ? ', a few as usual' : ', as the card has them' }}</p>
        <p v-if="untilClean.length > 0" class="caution">
          Until clean: {{ untilClean.map(({ number, hand }) => cutterName(number, hand)).join(', ') }}
        </p>
        <div class="sides">
          <div v-for="side in ['left', 'right'] as const" :key="side" class="side">
            <button type="button" class="act" :aria-label="`One less ${side}`" @click="change(side, -1)">−</button>
            <strong class="figures">{{ strokes[side] }} {{ side === 'left' ? 'L' : 'R' }}</strong>
            <button type="button" class="act" :aria-label="`One more ${side}`" @click="change(side, 1)">+</button>
          </div>
        </div>
        <button type="button" class="act next" data-log @click="logTouchUp">
          Log {{ strokes.left }} left, {{ strokes.right }} right
        </button>
      </template>
      <div v-else-if="asked === 'struck'" class="row">
        <button v-for="one in STRIKE_OBJECTS" :key="one" type="button" class="act grow" @click="logStrike(one)">
          {{ STRIKE_NAMES[one] }}
        </button>
      </div>
      <div v-else-if="asked === 'lookedOver'" class="stack">
        <p class="caution">Engine off, brake on, gloves on. Every cutter against the light, straps and rivets too.</p>
        <!-- Without its log nobody knows what was wrong with cutters and chassis before: a look would take it back. -->
        <template v-if="state">
          <button type="button" class="act next" data-sound @click="logLook('sound')">All sound</button>
          <button type="button" class="act" data-dirt @click="logLook('dirt')">All dulled by dirt</button>
        </template>
        <p v-else class="caution">Its log is not on this device: log the look where the shed answers.</p>
        <RouterLink v-if="loop" class="act" :to="{ name: 'inspected', params: { tag: loop.tag } }"
          >Something is hurt …</RouterLink
        >
      </div>
      <template v-else>
        <p v-if="others.length === 0">No other loop that fits is here and fit.</p>
        <div v-for="other in others.slice(0, 6)" :key="other.loopId" class="other" :data-other="other.tag">
          <ToothSign class="small-sign" :tooth="other.tooth" :retired="false" />
          <span><strong class="figures">{{ other.tag }}</strong> {{ ACTION_WORDS[other.action] }}</span>
          <div class="turned">
            <button
              type="button"
              class="act"
              :aria-label="`${other.tag} on, bar turned`"
              @click="done(() => field.swap(other, true))"
            >
              Bar turned
            </button>
            <button
              type="button"
              class="act"
              :aria-label="`${other.tag} on, bar not turned`"
              @click="done(() => field.swap(other, false))"
            >
              Not turned
            </button>
          </div>
        </div>
      </template>
      <p v-if="asked === 'swap'" class="soft">Engine off, brake on, gloves on. Tension is asked for in a minute.</p>
      <p v-if="asked === 'touchedUp'" class="soft">Engine off, brake on, gloves on. File away from you.</p>
      <button type="button" class="act" @click="asked = null">Never mind</button>
    </div>
    <div v-else class="taps">
      <template v-if="loop">
        <template v-if="seeTo">
          <button v-if="seeTo === 'inspect'" type="button" class="act next tank" data-see-to @click="ask('lookedOver')">
            {{ SEE_TO.inspect }}
          </button>
          <RouterLink
            v-else
            class="act next tank"
            data-see-to
            :to="{ name: seeTo === 'measure' ? 'measure' : 'loop', params: { tag: loop.tag } }"
            >{{ SEE_TO[seeTo] }}</RouterLink
          >
        </template>
        <button type="button" class="act" :class="seeTo ? '' : 'next tank'" data-tank @click="field.tank">
          A tank<span v-if="tanksToday > 0" class="count figures">{{ tanksToday }} today</span>
        </button>
        <button type="button" class="act" @click="ask('touchedUp')">Touched up</button>
        <button type="button" class="act" @click="ask('struck')">Struck</button>
      </template>
      <button type="button" class="act" @click="ask('swap')">Another loop</button>
      <RouterLink v-if="loop" class="act" :to="{ name: 'signs', params: { tag: loop.tag } }">It tells …</RouterLink>
      <button type="button" class="act" @click="field.oiled">Oil filled</button>
      <RouterLink v-if="loop" class="act" :to="{ name: 'card', params: { tag: loop.tag } }">How to touch up</RouterLink>
    </div>
  </section>
</template>

<style scoped>
.in-hand {
  display: grid;
  gap: 10px;
  padding: 12px;
  position: relative;
}
header {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}
header > :only-child {
  grid-column: 1 / -1;
}
.sign {
  width: 96px;
}
h2 {
  font-size: 1.4rem;
}
.tag {
  margin-left: 6px;
  display: inline-flex;
  min-height: 56px;
  min-width: 56px;
  align-items: center;
}
.name {
  margin-left: 0;
}
.verdict {
  font-weight: 700;
  font-size: 1.1rem;
}
.verdict.stop {
  color: var(--stop);
}
.why {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.just {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  min-height: 56px;
  font-weight: 700;
}
.just .day {
  font-weight: 400;
}
.taps {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
}
.taps .act {
  min-height: 64px;
  font-size: 1.1rem;
  padding: 6px 8px;
}
.tank {
  grid-column: 1 / -1;
  min-height: 84px;
  font-size: 1.35rem;
}
.count {
  font-size: 1rem;
  font-weight: 400;
}
.left .taps {
  direction: rtl;
}
.left .taps > * {
  direction: ltr;
}
.second {
  border-left: 6px solid var(--work);
  padding-left: 12px;
}
.sides {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
}
.side {
  display: flex;
  gap: 6px;
  align-items: center;
  justify-content: space-between;
}
.side .act {
  min-width: 56px;
  font-size: 1.4rem;
  padding: 4px;
}
.side strong {
  white-space: nowrap;
  font-size: 1.5rem;
}
.second > .act.next {
  min-height: 72px;
  font-size: 1.25rem;
}
.grow {
  flex: 1;
  min-height: 64px;
}
.other {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr);
  gap: 6px 10px;
  align-items: center;
}
.turned {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
}
.turned .act {
  min-height: 60px;
}
/* Two steppers beside each other need more than a small phone has. */
@media (max-width: 460px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
.small-sign {
  width: 56px;
}
/* A phone on its side is low: what is tapped stays in sight. */
@media (max-height: 500px) {
  header {
    grid-template-columns: 56px minmax(0, 1fr);
  }
  .sign {
    width: 56px;
  }
  .why {
    display: none;
  }
  .in-hand {
    gap: 6px;
    padding: 6px 12px;
  }
  .tank,
  .taps .act {
    min-height: 56px;
  }
}
</style>
