<script setup lang="ts">
import { readLength, sayRefusal, writeCaliperLine } from '@undercliff/core'
import { onUnmounted, ref } from 'vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import { STAND_IN_CHANNEL } from '../../parts/caliper/caliper'

/** A stand-in for a caliper with a cable: it sends the same lines to the other tabs of this browser. */
const channel = new BroadcastChannel(STAND_IN_CHANNEL)
onUnmounted(() => {
  channel.close()
})
const between = ref('8.24')
const unit = ref<'mm' | 'inch'>('mm')
const noiseUm = ref<number>(0)
const low = ref(false)
const slips = ref(false)
const dropsOut = ref(false)
const display = ref('')
const wrong = ref('')
const UNITS = [
  { value: 'mm', label: 'mm' },
  { value: 'inch', label: 'inch' },
] as const
const NOISE: readonly { value: number; label: string }[] = [
  { value: 0, label: 'none' },
  { value: 20, label: '0.02 mm' },
  { value: 60, label: '0.06 mm' },
]
/** How far the jaws are off once they have slipped. */
const SLIP_UM = 1900
/** Two draws together stray about as a hand does. */
const stray = (): number => (Math.random() + Math.random() - 1) * noiseUm.value

function send(): void {
  const read = readLength(between.value, 'mm')
  if (!read.ok) {
    wrong.value = sayRefusal(read)
    return
  }
  wrong.value = ''
  const um = Math.max(0, Math.round(read.um + stray() + (slips.value ? SLIP_UM : 0)))
  const line = writeCaliperLine(um, unit.value, low.value)
  display.value = line
  const half = Math.floor(line.length / 2)
  // Over a cable a line comes in pieces; one that drops out loses what is in the middle.
  channel.postMessage(line.slice(0, half))
  channel.postMessage(`${line.slice(dropsOut.value ? half + 2 : half)}\r\n`)
}
</script>

<template>
  <section class="sheet stack instrument" aria-labelledby="caliper-title">
    <h1 id="caliper-title">Caliper stand-in</h1>
    <p>
      It sends what it reads to the other tabs of this browser, as a caliper with a cable does. Choose
      <em>Connect the stand-in</em> where a cutter is measured.
    </p>
    <p class="display figures" aria-live="polite">{{ display || '0000.00' }}</p>
    <form class="stack" @submit.prevent="send">
      <div class="field">
        <label for="between">Between its jaws, mm</label
        ><input id="between" v-model="between" class="plain figures" inputmode="decimal" autocomplete="off" />
      </div>
      <div class="field">
        <span class="legend">It shows</span><RadioChoice v-model="unit" label="It shows" :options="UNITS" small />
      </div>
      <div class="field">
        <span class="legend">The hand strays by</span
        ><RadioChoice v-model="noiseUm" label="The hand strays by" :options="NOISE" small />
      </div>
      <div class="row">
        <button type="button" class="act small" :aria-pressed="low" @click="low = !low">Battery low</button>
        <button type="button" class="act small" :aria-pressed="slips" @click="slips = !slips">The jaws slip</button>
        <button type="button" class="act small" :aria-pressed="dropsOut" @click="dropsOut = !dropsOut">
          Drops out in the middle
        </button>
      </div>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <p><button type="submit" class="act next">Send it</button></p>
    </form>
  </section>
</template>

<style scoped>
.instrument {
  max-width: 560px;
}
.display {
  font-size: 2.2rem;
  margin: 0;
  padding: 10px 14px;
  border: 2px solid var(--rule-strong);
  text-align: right;
}
</style>
