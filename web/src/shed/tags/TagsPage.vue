<script setup lang="ts">
import { LABEL_SHEET_NAMES, LABEL_SHEETS, type LabelSheet } from '@undercliff/contract'
import { PITCH_PROFILES, writeMm } from '@undercliff/core'
import { saveFile } from '../../parts/saveFile'
import { keptRef } from '../../remote/keptRef'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useChosen } from '../../parts/chosenStore'
import { postTags } from '../../remote/api'
import { useShed } from '../../remote/shedStore'
import SelectField from '../../parts/SelectField.vue'

/** Tags to print, on a sheet of labels. */
const shed = useShed()
const chosen = useChosen()
const route = useRoute()
void shed.look()
const live = computed(() =>
  shed.loops.filter(({ retired }) => !retired).sort((a, b) => a.tag.localeCompare(b.tag, undefined, { numeric: true })),
)
const byAddress = typeof route.query.tag === 'string' ? route.query.tag : null
const picked = ref<ReadonlySet<string> | null>(route.query.only === 'chosen' ? new Set(chosen.ids) : null)
const isPicked = (loopId: string, tag: string): boolean =>
  picked.value === null ? byAddress === null || tag === byAddress : picked.value.has(loopId)
const loops = computed(() => live.value.filter(({ loopId, tag }) => isPicked(loopId, tag)))
function toggle(loopId: string): void {
  const next = new Set(loops.value.map((loop) => loop.loopId))
  if (!next.delete(loopId)) next.add(loopId)
  picked.value = next
}
const sheet = keptRef<LabelSheet>('undercliff:labelSheet', 'a4-3x8')
const skip = keptRef('undercliff:labelSkip', 0)
const sheets = LABEL_SHEETS.map((value) => ({ value, label: LABEL_SHEET_NAMES[value] }))
const wrong = ref('')
const busy = ref(false)
async function print(): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    const blob = await postTags({
      loopIds: loops.value.map(({ loopId }) => loopId),
      sheet: sheet.value,
      skip: Math.max(0, Math.min(29, Math.round(skip.value) || 0)),
    })
    saveFile(blob, 'undercliff-tags.pdf')
  } catch (error) {
    wrong.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="desk">
    <section class="sheet stack">
      <h1>Tags to print <span class="soft figures">{{ loops.length }}</span></h1>
      <p class="row">
        <button type="button" class="act small" @click="picked = new Set(live.map(({ loopId }) => loopId))">All</button
        ><button type="button" class="act small" @click="picked = new Set()">None</button>
      </p>
      <div class="choice" role="group" aria-label="Loops to print tags for">
        <button
          v-for="loop in live"
          :key="loop.loopId"
          type="button"
          class="act small"
          :aria-pressed="isPicked(loop.loopId, loop.tag)"
          @click="toggle(loop.loopId)"
        >
          <strong class="figures">{{ loop.tag }}</strong
          ><span class="spec"
            >{{ PITCH_PROFILES[loop.spec.pitchClass].name }} · {{ writeMm(loop.spec.gaugeUm, 1) }} ·
            {{ loop.spec.driveLinks }}</span
          >
        </button>
      </div>
    </section>
    <form class="sheet log-form side" @submit.prevent="print">
      <div class="field">
        <span class="legend">Labels</span><SelectField v-model="sheet" :options="sheets" aria-label="Labels" />
      </div>
      <div class="field">
        <label for="skip">Labels of the first sheet that are used up</label
        ><input id="skip" v-model.number="skip" class="plain" type="number" min="0" max="29" />
      </div>
      <p class="soft">Print at actual size, without fitting to the page.</p>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <button type="submit" class="act next save" :disabled="busy || loops.length === 0">
        {{ loops.length === 1 ? 'Make the tag' : `Make ${loops.length} tags` }}
      </button>
    </form>
  </div>
</template>

<style scoped>
.choice {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 6px;
}
.choice .act {
  flex-direction: column;
  gap: 2px;
}
.spec {
  font-weight: 400;
  font-size: 0.82rem;
}
</style>
