<script setup lang="ts">
import { useIntervalFn, useMediaQuery } from '@vueuse/core'
import { watch, computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import ShedAway from '../../parts/ShedAway.vue'
import { useShed } from '../../remote/shedStore'
import DayChoice from './DayChoice.vue'
import { useField } from './field'
import NoSaw from './NoSaw.vue'
import SawInHand from './SawInHand.vue'
import SawRow from './SawRow.vue'
import TodayStrip from './TodayStrip.vue'
import { useSight } from './sight'

/** Out there: the saws that somebody has in hand, and what is logged of them by a tap or two, with gloves on. */
const shed = useShed()
const route = useRoute()
const field = useField()
const sight = useSight()
/** What somebody else logs is seen here within so many milliseconds. */
const FRESH_MS = 4000
useIntervalFn(shed.keepFresh, FRESH_MS)
/** A tag that was scanned is the loop in hand. */
const scanned = computed(() => (typeof route.query.tag === 'string' ? shed.loopByTag(route.query.tag) : undefined))
watch(
  scanned,
  (card) => {
    if (card?.sawId != null) field.take(card.sawId)
  },
  { immediate: true },
)
/** Elsewhere no browser keeps the application for when nothing answers. */
const secure = window.isSecureContext
const FEW = 5
const wide = useMediaQuery('(min-width: 760px)')
const handFirst = computed(() => !wide.value || sight.leftHand)
const all = ref(false)
const rest = computed(() => field.saws.value.filter(({ id }) => id !== field.saw.value?.id))
const shown = computed(() => (all.value ? rest.value : rest.value.slice(0, FEW)))
</script>

<template>
  <ShedAway v-if="shed.answer === null" />
  <div v-else class="wood" :class="{ left: sight.leftHand }">
    <h1 class="hidden-text">In the wood</h1>
    <!-- What is read first is seen first: on a phone, and for a left hand, that is the saw in hand. -->
    <SawInHand
      v-if="field.saw.value && handFirst"
      :key="field.saw.value.id"
      :field="field"
      :saw="field.saw.value"
      class="hand"
    />
    <NoSaw v-else-if="handFirst" class="hand" />
    <div class="stack looks">
      <DayChoice v-model="field.day.value" />
      <p v-if="!secure" class="caution" role="status">
        At this address Undercliff does not open out of range: it is not a secure one. Whoever runs it can give it one
        (<RouterLink :to="{ name: 'phones' }">House, Phones</RouterLink>).
      </p>
      <p v-if="scanned && scanned.sawId === null" class="caution" role="status">
        {{ scanned.tag }} is on no saw. Take the saw, tap <em>Another loop</em>, or open
        <RouterLink :to="{ name: 'loop', params: { tag: scanned.tag } }">{{ scanned.tag }}</RouterLink>.
      </p>
      <nav v-if="rest.length > 0" class="stack saws" aria-label="Saws">
        <SawRow v-for="saw in shown" :key="saw.id" :saw="saw" @take="field.take(saw.id)" />
        <button v-if="rest.length > FEW" type="button" class="act big" @click="all = !all">
          {{ all ? 'Fewer saws' : `All ${rest.length + 1} saws` }}
        </button>
      </nav>
      <TodayStrip @hours="field.hoursSaid" />
      <div class="row sight">
        <button type="button" class="act big" :aria-pressed="sight.leftHand" @click="sight.leftHand = !sight.leftHand">
          Left hand
        </button>
        <button type="button" class="act big" :aria-pressed="sight.sun" @click="sight.sun = !sight.sun">
          Sunlight
        </button>
        <RouterLink class="act big" :to="{ name: 'scan', query: { to: 'wood' } }">Scan a tag</RouterLink>
      </div>
    </div>
    <SawInHand
      v-if="field.saw.value && !handFirst"
      :key="field.saw.value.id"
      :field="field"
      :saw="field.saw.value"
      class="hand"
    />
    <NoSaw v-else-if="!handFirst" class="hand" />
  </div>
</template>

<style scoped>
.wood {
  --target: 56px;
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
  align-items: start;
}
.looks {
  align-content: start;
}
@media (min-width: 760px) {
  .wood {
    grid-template-columns: minmax(0, 1fr) minmax(360px, 520px);
  }
  .wood.left {
    grid-template-columns: minmax(360px, 520px) minmax(0, 1fr);
  }
}
.big {
  min-height: 56px;
}
.sight {
  justify-content: flex-end;
}
.left .sight {
  justify-content: flex-start;
}
</style>
