<script setup lang="ts">
import { writeLength } from '@undercliff/core'
import { onUnmounted } from 'vue'
import { useShed } from '../../remote/shedStore'
import { useCaliper, type TakeReading } from './caliper'

/** A caliper that sends what it reads: connects it, and hands its readings to the field on the page. */
const props = defineProps<{ take: TakeReading }>()
const caliper = useCaliper()
const shed = useShed()
const mine: TakeReading = (um) => {
  props.take(um)
}
caliper.taker = mine
onUnmounted(() => {
  if (caliper.taker === mine) caliper.taker = null
})
</script>

<template>
  <details class="caliper" :open="caliper.how !== 'none'">
    <summary>
      <span>Caliper: <span class="soft">{{ caliper.how === 'none' ? 'typed' : 'sends what it reads' }}</span></span>
      <span v-if="caliper.last !== null && caliper.how !== 'none'" class="figures">
        {{ writeLength(caliper.last, shed.lengths) }}</span
      >
    </summary>
    <p v-if="caliper.lowBattery" class="caution" role="status">
      The caliper’s battery is low: it may soon read wrongly.
    </p>
    <div class="row">
      <template v-if="caliper.how === 'none'">
        <button v-if="caliper.canSerial" type="button" class="act small" @click="caliper.connectSerial()">
          Connect by cable
        </button>
        <span v-else class="soft">This browser reads no cable: type, or use a caliper that types.</span>
        <button type="button" class="act small" @click="caliper.connectStandIn()">Connect the stand-in</button>
        <RouterLink :to="{ name: 'caliper' }" target="_blank">Open the stand-in</RouterLink>
      </template>
      <button v-else type="button" class="act small" @click="caliper.disconnect()">Disconnect it</button>
    </div>
    <p v-if="caliper.said" class="stop-text" role="alert">{{ caliper.said }}</p>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  gap: 6px;
  cursor: pointer;
  font-weight: 700;
}
summary .soft {
  font-weight: 400;
}
</style>
