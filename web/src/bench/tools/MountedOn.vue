<script setup lang="ts">
import { kitOf, mayMount, WHEEL_PROBLEM_WORDS, wheelProblems, type KitItemOf } from '@undercliff/core'
import { computed, ref } from 'vue'
import SelectField from '../../parts/SelectField.vue'
import { useKit } from '../../remote/kitStore'

/** The wheel that is on a grinder; another is mounted only where its marked speed allows it. */
const props = defineProps<{ grinder: KitItemOf<'grinder'> }>()
const kit = useKit()
const wheels = computed(() => kitOf(kit.kit, 'wheel'))
const on = computed(() => wheels.value.find(({ id }) => id === props.grinder.set?.wheelId))
const wanted = ref<string | null>(null)
const chosen = computed(() => wheels.value.find(({ id }) => id === (wanted.value ?? on.value?.id)))
const problems = computed(() => (chosen.value === undefined ? [] : wheelProblems(chosen.value, props.grinder)))
const allowed = computed(() => chosen.value !== undefined && mayMount(chosen.value, props.grinder))
const options = computed(() => wheels.value.map(({ id, name }) => ({ value: id, label: name })))
const picked = computed({
  get: () => chosen.value?.id ?? '',
  set: (id: string) => {
    wanted.value = id
  },
})
async function mount(): Promise<void> {
  if (chosen.value === undefined || !allowed.value) return
  const { angleDeg = 30, downDeg = 0 } = props.grinder.set ?? {}
  if (await kit.put({ ...props.grinder, set: { angleDeg, downDeg, wheelId: chosen.value.id } })) wanted.value = null
}
</script>

<template>
  <div v-if="wheels.length > 0" class="row mounted">
    <span>Wheel on it</span>
    <SelectField v-model="picked" class="wheels" :options="options" :aria-label="`Wheel on ${grinder.name}`" />
    <button v-if="chosen && chosen.id !== on?.id && allowed" type="button" class="act small" @click="mount">
      It rang clear: mounted
    </button>
    <p
      v-for="problem in problems"
      :key="problem"
      class="caution"
      :class="{ grave: problem === 'tooSlow' }"
      role="alert"
    >
      {{ WHEEL_PROBLEM_WORDS[problem] }}
    </p>
  </div>
</template>

<style scoped>
.mounted {
  align-items: center;
  margin-top: 6px;
}
.wheels {
  width: 14em;
}
.mounted p {
  flex-basis: 100%;
}
</style>
