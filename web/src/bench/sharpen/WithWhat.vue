<script setup lang="ts">
import {
  angleMeant,
  changeFile,
  KIT_DUE_WORDS,
  kitOf,
  SHARPENING_REFUSALS,
  SHARPENING_TOOLS,
  sayKitUse,
  TOOL_NAMES,
  WHEEL_PROBLEM_WORDS,
  wheelProblems,
  whyNotWith,
  writeMoney,
  type HouseRules,
  type KitItemOf,
  type LoopState,
  type SharpeningTool,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed } from 'vue'
import SelectField from '../../parts/SelectField.vue'
import WhoField from '../../parts/WhoField.vue'
import { useShed } from '../../remote/shedStore'
import type { SharpeningHere } from './sharpening'

/** With what a loop is sharpened, and by whom; what is in use of the kit, and whether a fresh file pays. */
const props = defineProps<{ here: SharpeningHere; state: LoopState; rules: HouseRules }>()
const shed = useShed()
const { now, plan, events, used, want } = props.here
const { kit } = used
/** Why a tool is none for this loop: by its kind, or by what the crew has of it. */
const whyNot = (one: SharpeningTool) =>
  whyNotWith(one, props.state.spec, props.rules, {
    angleDeg: angleMeant(props.state, props.rules),
    kit: kit.kit,
  })
const tools = computed(() =>
  SHARPENING_TOOLS.filter((one) => whyNot(one) === null).map((value) => ({ value, label: TOOL_NAMES[value] })),
)
const refused = computed(() =>
  SHARPENING_TOOLS.flatMap((one) => {
    const why = whyNot(one)
    return why === null ? [] : [{ tool: one, why: SHARPENING_REFUSALS[why] }]
  }),
)
const tool = computed({
  get: () => plan.value?.tool ?? 'plateGuide',
  set: (wanted: SharpeningTool) => {
    want({
      tool: wanted,
      action: wanted.endsWith('Grinder') ? 'regrind' : now.value.action === 'touchUp' ? 'touchUp' : 'file',
    })
  },
})
const who = computed({
  get: () => now.value.personId,
  set: (personId: string | null) => {
    want({ personId })
  },
})
const named = (all: readonly { readonly id: string; readonly name: string }[]) =>
  all.map(({ id, name }) => ({ value: id, label: name }))
const file = computed({
  get: () => used.file.value?.id ?? '',
  set: (fileId: string) => {
    want({ fileId })
  },
})
const grinder = computed({
  get: () => used.grinder.value?.id ?? '',
  set: (grinderId: string) => {
    want({ grinderId })
  },
})
const wheel = computed({
  get: () => used.wheel.value?.id ?? '',
  set: (wheelId: string) => {
    want({ wheelId })
  },
})
const fileSaid = computed(() =>
  used.file.value === undefined || used.fileUsage.value === null
    ? ''
    : sayKitUse(used.file.value, used.fileUsage.value, kit.strokesLast),
)
const usedUp = computed(() => kit.due.get(used.file.value?.id ?? '')?.includes('usedUp') === true)
const fresh = computed(() => {
  const [current, usage] = [plan.value, used.fileUsage.value]
  if (current === null || usage === null || current.gives !== 'strokes') return null
  const usual = (current.bites.left + current.bites.right) / 2 / usage.bite
  const offUm = current.sides.flatMap(({ cutters }) => cutters.map(({ removeUm }) => removeUm))
  return changeFile(offUm, usual, usage.bite, props.rules, kit.strokesLast)
})
const stock = computed(() =>
  kitOf(kit.kit, 'stock').find(({ fileUm, left }) => fileUm === used.file.value?.fileUm && left > 0),
)
/** One out of the pack goes into use, and this sharpening goes on with it. */
async function openOne(from: KitItemOf<'stock'>): Promise<void> {
  const id = nanoid()
  const openedAt = new Date().toISOString()
  const name = `${from.name.replace(/, unopened$/, '')} ${openedAt.slice(5, 10)}`.slice(0, 40)
  if (!(await kit.put({ id, kind: 'file', name, fileUm: from.fileUm, openedAt }))) return
  want({ fileId: id })
  await kit.put({ ...from, left: from.left - 1 })
}
const problems = computed(() => {
  const mounted = props.here.mounted.value
  if (mounted === null || plan.value?.setUp.with !== 'wheel') return []
  return wheelProblems(mounted.wheel, mounted.grinder, plan.value.setUp.wheelUm).filter(
    (problem) => problem === 'glazed' || problem === 'width',
  )
})
/** What stands otherwise on the grinder than this loop wants it. */
const toChange = computed(() => {
  const [set, setUp] = [used.grinder.value?.set, plan.value?.setUp]
  if (set === undefined || setUp?.with !== 'wheel') return []
  return [
    ...(set.angleDeg === setUp.clampDeg ? [] : [`clamp from ${set.angleDeg}° to ${setUp.clampDeg}°`]),
    ...(set.downDeg === setUp.downAngleDeg ? [] : [`table from ${set.downDeg}° to ${setUp.downAngleDeg}°`]),
    ...(set.wheelId === undefined || set.wheelId === used.wheel.value?.id ? [] : ['another wheel']),
  ]
})
</script>

<template>
  <section v-if="plan" class="stack">
    <div class="field">
      <span class="legend">With</span>
      <SelectField v-if="events.length === 0" v-model="tool" :options="tools" aria-label="With" />
      <span v-else>{{ TOOL_NAMES[plan.tool] }}</span>
    </div>
    <details v-if="events.length === 0 && refused.length > 0">
      <summary class="soft">Not for this loop: {{ refused.length }}</summary>
      <ul>
        <li v-for="one in refused" :key="one.tool"><strong>{{ TOOL_NAMES[one.tool] }}.</strong> {{ one.why }}</li>
      </ul>
    </details>
    <template v-if="plan.gives === 'strokes' && used.files.value.length > 0">
      <div class="field">
        <span class="legend">File</span
        ><SelectField v-model="file" :options="named(used.files.value)" aria-label="File" />
      </div>
      <p class="soft">{{ fileSaid }}</p>
      <p v-if="usedUp && fresh?.pays !== false" class="caution" role="status">{{ KIT_DUE_WORDS.usedUp }}.</p>
      <p v-if="fresh?.pays" class="caution" role="status" data-fresh>
        A fresh file saves about {{ Math.round(fresh.savedMinutes) }} min on this loop,
        {{ writeMoney(fresh.savedMinor, rules.currency) }}; it costs {{ writeMoney(fresh.priceMinor, rules.currency) }}:
        {{ fresh.paysAfter === 1 ? 'it pays at once' : `it pays from loop ${fresh.paysAfter} like this one` }}.
        <button v-if="stock" type="button" class="act small" @click="openOne(stock)">Open a fresh one</button>
      </p>
      <p v-else-if="fresh" class="soft" data-fresh>
        A fresh one would save {{ Math.round(fresh.savedMinutes) }} min on this loop: not worth
        {{ writeMoney(fresh.priceMinor, rules.currency) }} in its life yet.
      </p>
    </template>
    <template v-if="plan.gives === 'touches' && used.grinders.value.length > 0">
      <div class="field">
        <span class="legend">Grinder</span
        ><SelectField v-model="grinder" :options="named(used.grinders.value)" aria-label="Grinder" />
      </div>
      <div v-if="used.wheels.value.length > 0" class="field">
        <span class="legend">Wheel</span
        ><SelectField v-model="wheel" :options="named(used.wheels.value)" aria-label="Wheel" />
      </div>
      <p v-for="problem in problems" :key="problem" class="caution" role="status">{{ WHEEL_PROBLEM_WORDS[problem] }}</p>
      <p v-if="toChange.length > 0" class="caution">Set otherwise now: {{ toChange.join(', ') }}.</p>
    </template>
    <WhoField v-model="who" small />
    <p class="soft"><RouterLink :to="{ name: 'tools' }">Tools</RouterLink> of {{ shed.crew?.name ?? 'the crew' }}</p>
  </section>
</template>

<style scoped>
ul {
  margin: 4px 0 0;
  padding-left: 1.2em;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
}
</style>
