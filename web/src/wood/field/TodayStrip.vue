<script setup lang="ts">
import { plural } from '@undercliff/core'
import { computed, ref } from 'vue'
import { useShed } from '../../remote/shedStore'
import { useToday } from './today'

/** The day so far: what was logged and by whom, tanks and hours by saw, what is still sharp on the truck. */
const emit = defineEmits<{ hours: [sawId: string, tanks: number, hours: number] }>()
const today = useToday()
const shed = useShed()
const HALF = 0.5
const lines = computed(() =>
  [...today.tanksBySaw].map(([sawId, tanks]) => {
    const saw = shed.saws.find(({ id }) => id === sawId)
    const each = saw?.tankHours
    return {
      sawId,
      tanks,
      name: shed.sawName(sawId),
      hours: Math.max(HALF, Math.round((tanks * (each?.hours ?? 0.75)) / HALF) * HALF),
      own: (each?.own ?? 0) > 0,
    }
  }),
)
/** The saw whose hours somebody is saying, and what they say. */
const saying = ref<{ readonly sawId: string; readonly hours: number } | null>(null)
const change = (by: number): void => {
  if (saying.value !== null) saying.value = { ...saying.value, hours: Math.max(HALF, saying.value.hours + by) }
}
function say(tanks: number): void {
  if (saying.value === null) return
  emit('hours', saying.value.sawId, tanks, saying.value.hours)
  saying.value = null
}
</script>

<template>
  <section class="sheet stack" aria-labelledby="today-title" data-today>
    <h2 id="today-title">Today</h2>
    <p v-if="today.byPerson.length === 0" class="soft">Nothing is logged yet.</p>
    <p v-for="{ name, did } in today.byPerson" :key="name"><strong>{{ name }}</strong> {{ did }}</p>
    <div v-for="line in lines" :key="line.sawId" class="stack saw">
      <div class="row">
        <span class="what"
          ><strong>{{ line.name }}</strong> {{ plural(line.tanks, 'tank') }}, about {{ line.hours }} h<span
            v-if="!line.own"
            class="soft"
          >
            by common practice</span
          ></span
        >
        <button
          v-if="saying?.sawId !== line.sawId"
          type="button"
          class="act"
          @click="saying = { sawId: line.sawId, hours: line.hours }"
        >
          It was …
        </button>
      </div>
      <div v-if="saying?.sawId === line.sawId" class="row">
        <button type="button" class="act" aria-label="Half an hour less" @click="change(-HALF)">−</button>
        <strong class="figures" aria-live="polite">{{ saying.hours }} h</strong>
        <button type="button" class="act" aria-label="Half an hour more" @click="change(HALF)">+</button>
        <button type="button" class="act next" @click="say(line.tanks)">That is right</button>
      </div>
    </div>
    <p>
      <strong>{{ plural(today.sharpOnTruck.length, 'loop') }}</strong> sharp on the truck
      <span class="soft figures">{{ today.sharpOnTruck.map(({ tag }) => tag).join(', ') }}</span>
    </p>
  </section>
</template>

<style scoped>
.saw {
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.what {
  flex: 1;
}
</style>
