<script setup lang="ts">
import { BENCH_FIGURES, fileFor, PITCH_PROFILES, specFromProfile, writeFile, writeMm, type FileSchool, type HouseRules } from '@undercliff/core'
import { computed, ref } from 'vue'
import { putRules } from '../remote/api'
import { useNotices } from '../remote/notices'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'

/** Where schools differ, the house chooses; what each trades is said beside it. */
const shed = useShed()
const session = useSession()
const notices = useNotices()
const wrong = ref('')
const rules = computed(() => shed.crew?.rules)
const SPEC_38 = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'fullChisel' })
const [smaller = 0, larger = 0] = PITCH_PROFILES.threeEighths.filesUm.value
/** Length at which the larger file no longer clears, by halving. */
const changesAtUm = (() => {
  let [low, high] = [SPEC_38.markLengthUm, SPEC_38.newLengthUm]
  while (high - low > 10) {
    const middle = (low + high) / 2
    if (fileFor(SPEC_38, middle, 'largerThenSmaller').fileUm === larger) high = middle
    else low = middle
  }
  return Math.round(high / 100) * 100
})()
const FILES: readonly { value: FileSchool; label: string; trade: string }[] = [
  { value: 'oneSize', label: `${writeFile(smaller)} for life`, trade: 'one file in the pouch; sits a little low in a new cutter' },
  { value: 'largerThenSmaller', label: `${writeFile(larger)}, later ${writeFile(smaller)}`, trade: `fuller gullet while new; the larger one would bite the tie strap below about ${writeMm(changesAtUm, 1)} left` },
]
const ANGLES = [
  { value: 25, trade: 'a stouter edge, for hard wood' },
  { value: 30, trade: 'quicker in soft wood' },
]
async function change(part: Partial<HouseRules>): Promise<void> {
  if (rules.value === undefined) return
  try {
    await putRules({ ...rules.value, ...part })
    await shed.load()
    wrong.value = ''
    notices.say('Changed; every loop is worked out again.')
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
const [least, most] = BENCH_FIGURES.filePartAbove.value
</script>

<template>
  <section v-if="rules" class="stack" aria-labelledby="rules-title">
    <h2 id="rules-title">How this crew files</h2>
    <fieldset>
      <legend>File for 3/8"</legend>
      <div class="row" role="radiogroup" aria-label="File for 3/8 inch">
        <button v-for="one in FILES" :key="one.value" type="button" class="act school" role="radio" :aria-checked="rules.fileSchool === one.value" :disabled="!session.isLead" @click="change({ fileSchool: one.value })"><span>{{ one.label }}<br /><small>{{ one.trade }}</small></span></button>
      </div>
    </fieldset>
    <fieldset>
      <legend>Top plate angle on full chisel</legend>
      <div class="row" role="radiogroup" aria-label="Top plate angle on full chisel">
        <button v-for="one in ANGLES" :key="one.value" type="button" class="act school" role="radio" :aria-checked="rules.chiselAngleDeg === one.value" :disabled="!session.isLead" @click="change({ chiselAngleDeg: one.value })"><span>{{ one.value }}°<br /><small>{{ one.trade }}</small></span></button>
      </div>
    </fieldset>
    <p class="soft">A value that the box or a measurement gave a loop wins over both. A round file stands {{ Math.round(least * 100) }} to {{ Math.round(most * 100) }} % of its diameter above the top plate; how high the plate stands is worked out, not measured.</p>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
.row { align-items: stretch; }
.school { text-align: left; flex: 1 1 260px; justify-content: flex-start; }
small { font-weight: 400; }
.school:disabled { opacity: 1; }
</style>
