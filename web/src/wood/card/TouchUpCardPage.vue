<script setup lang="ts">
import {
  decide,
  hasBumpers,
  METHOD_CAUTIONS,
  PLAN_DOUBTS,
  BUMPER_CAUTION,
  sayReason,
  cutterName,
  sayMinutes,
  setUpRows,
  SHARPENING_REFUSALS,
  TOOL_FACTS,
  TOOL_NAMES,
  writeLength,
} from '@undercliff/core'
import { computed } from 'vue'
import LoopAway from '../../parts/LoopAway.vue'
import { useOpenLoop } from '../../remote/openLoop'
import { useSession } from '../../remote/sessionStore'
import { strokesBySide, useOnePlan } from '../../parts/onePlan'

/** How the loop in hand is touched up: what to hold how, how many strokes, and what to mind. Read at arm's length. */
const props = defineProps<{ tag: string }>()
const { loop, shed, rules } = useOpenLoop(() => props.tag)
const session = useSession()
const state = computed(() => loop.state)
const personId = computed(() => session.me?.personId ?? null)
const onePlan = useOnePlan()
const plan = computed(() =>
  state.value === null
    ? null
    : onePlan({ state: state.value, rules: rules.value, action: 'touchUp', personId: personId.value }),
)
/** Cutters that are worked until they are clean, however many strokes that takes. */
const untilClean = computed(() =>
  (plan.value?.sides ?? []).flatMap(({ cutters }) => cutters.filter((job) => job.untilClean)),
)
/** What has to be looked at before; cutters of unknown depth are named by themselves. */
const doubts = computed(() => (plan.value?.doubts ?? []).filter((doubt) => doubt !== 'depthUnknown'))
const strokes = computed(() => (plan.value === null ? { left: 0, right: 0 } : strokesBySide(plan.value)))
const verdict = computed(() => (state.value === null ? null : decide(state.value, rules.value)))
/** Why it does not cut as it is, whatever its edges are like; null where it may. */
const unfit = computed(() => (verdict.value?.fitForUse === false ? (verdict.value.reasons[0] ?? null) : null))
const rows = computed(() => (plan.value === null ? [] : setUpRows(plan.value.setUp, shed.figures)))
const BIG = new Set(['File', 'Height', 'Top plate'])
</script>

<template>
  <LoopAway v-if="state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <section v-else-if="plan" class="sheet card" aria-labelledby="card-title">
    <h1 id="card-title">
      Touch up <RouterLink class="figures" :to="{ name: 'loop', params: { tag } }">{{ tag }}</RouterLink>
      <span class="soft tool">{{ TOOL_NAMES[plan.tool] }}</span>
    </h1>
    <p v-if="unfit" class="caution grave" role="alert" data-unfit>
      Do not use it as it is. {{ sayReason(unfit, shed.figures) }}
    </p>
    <p v-if="plan.refusal" class="caution grave" role="alert">{{ SHARPENING_REFUSALS[plan.refusal] }}</p>
    <template v-else>
      <p class="caution">{{ METHOD_CAUTIONS.fileField }}</p>
      <p v-for="doubt in doubts" :key="doubt" class="caution" :data-doubt="doubt">{{ PLAN_DOUBTS[doubt] }}</p>
      <div class="strokes" role="group" aria-label="Strokes for each cutter">
        <p v-for="{ hand } in plan.sides" :key="hand">
          <strong class="figures number">{{ strokes[hand] }}</strong> <span>{{ hand }}</span>
          <span v-if="plan.behind === hand" class="soft">with more for what the saw tells</span>
        </p>
      </div>
      <p v-if="untilClean.length > 0" class="caution" data-until-clean>
        Until clean, and no count before:
        {{ untilClean.map(({ number, hand }) => cutterName(number, hand)).join(', ') }}.
      </p>
      <p class="soft figures">{{ sayMinutes(plan.minutes) }}</p>
      <dl>
        <template v-for="[name, value] in rows" :key="name">
          <dt :class="{ big: BIG.has(name) }">{{ name }}</dt>
          <dd :class="{ big: BIG.has(name) }">{{ value }}</dd>
        </template>
        <dt>Gauges</dt>
        <dd>
          {{
            plan.gauges.due
              ? `due: plate ${writeLength(plan.gauges.plateUm, shed.lengths)}, never by eye`
              : TOOL_FACTS[plan.tool].gaugesToo
                ? 'down with every stroke'
                : 'not due: leave them'
          }}
        </dd>
        <dt>Start</dt>
        <dd>{{ state.spec.startMark ?? 'mark one cutter' }}, and once round from there</dd>
      </dl>
      <p v-if="plan.gauges.due && hasBumpers(state.spec)" class="caution">{{ BUMPER_CAUTION }}</p>
    </template>
    <div class="ways">
      <RouterLink class="act next" :to="{ name: 'sharpen', params: { tag }, query: { action: 'touchUp' } }"
        >Step by step</RouterLink
      >
      <RouterLink class="act" :to="{ name: 'wood', query: { tag } }">Back to the saw</RouterLink>
    </div>
  </section>
</template>

<style scoped>
.card {
  --target: 56px;
  max-width: 720px;
  margin: 0 auto;
  display: grid;
  gap: 12px;
}
.tool {
  margin-left: 8px;
  font-size: 1rem;
  font-weight: 400;
}
.strokes {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
}
.strokes p {
  display: grid;
  justify-items: center;
  border: 2px solid var(--rule-strong);
  border-radius: 4px;
  padding: 6px;
  font-size: 1.25rem;
}
.number {
  font-size: 4rem;
  line-height: 1;
}
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 6px 14px;
  margin: 0;
  align-items: baseline;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  font-weight: 700;
}
dd.big {
  font-size: 1.5rem;
  line-height: 1.2;
}
.ways {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px;
}
</style>
