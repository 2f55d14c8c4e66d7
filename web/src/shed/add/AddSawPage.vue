<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { GAUGES_UM, PITCH_CLASSES, PITCH_PROFILES, writeMm, type PitchClass } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { postSaw } from '../../remote/api'
import { useShed } from '../../remote/shedStore'
import type { Saw } from '@undercliff/contract'
import BarStampField from '../stamps/BarStampField.vue'
import { useDriveLinks } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import SelectField from '../../parts/SelectField.vue'

const router = useRouter()
const shed = useShed()
const form = useSessionStorage('undercliff:addSaw', {
  nickname: '',
  barStamp: '',
  pitchClass: 'threeEighths' as PitchClass,
  gaugeUm: 1500,
  driveLinks: '72',
  nose: 'same' as 'same' | 'solid' | PitchClass,
})
const driveLinks = useDriveLinks(
  computed({
    get: () => form.value.driveLinks,
    set: (text: string) => {
      form.value.driveLinks = text
    },
  }),
)
const wrong = ref('')
const pitches = PITCH_CLASSES.map((value) => ({ value, label: PITCH_PROFILES[value].name }))
const noses = [
  { value: 'same', label: 'as the sprocket' },
  { value: 'solid', label: 'a solid nose, or not looked at' },
  ...pitches,
]
const gauges = GAUGES_UM.map((value) => ({ value, label: writeMm(value, 1) }))

function takeBar({ pitchClass, gaugeUm, driveLinks, nosePitchClass = null }: Saw): void {
  const nose = nosePitchClass === null ? 'solid' : nosePitchClass === pitchClass ? 'same' : nosePitchClass
  form.value = { ...form.value, pitchClass, gaugeUm, driveLinks: String(driveLinks), nose }
}

async function save(): Promise<void> {
  const links = driveLinks.read()
  if (typeof links !== 'number') {
    wrong.value = links ?? 'Say how many drive links its bar takes.'
    return
  }
  wrong.value = ''
  try {
    const { pitchClass, gaugeUm, nose, barStamp } = form.value
    const nosePitchClass = nose === 'solid' ? null : nose === 'same' ? pitchClass : nose
    await postSaw({
      id: nanoid(),
      nickname: form.value.nickname.trim(),
      pitchClass,
      gaugeUm,
      driveLinks: links,
      nosePitchClass,
      ...(barStamp.trim() === '' ? {} : { barStamp: barStamp.trim() }),
    })
    form.value = { ...form.value, nickname: '', barStamp: '' }
    await shed.load()
    await router.push({ name: 'shed' })
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
</script>

<template>
  <form class="sheet stack" style="max-width: 640px" @submit.prevent="save">
    <h1>Add a saw</h1>
    <div class="field">
      <label for="nickname">What the crew calls it</label
      ><NInput v-model:value="form.nickname" :maxlength="40" :input-props="{ id: 'nickname' }" placeholder="" />
    </div>
    <BarStampField
      v-model="form.barStamp"
      field-id="bar-stamp"
      :gauge-um="form.gaugeUm"
      :drive-links="form.driveLinks"
      @take="takeBar"
    />
    <p class="soft">Most bars say what follows as well, if it has not worn off.</p>
    <div class="field">
      <span class="legend">Pitch</span><SelectField v-model="form.pitchClass" :options="pitches" aria-label="Pitch" />
    </div>
    <div class="field">
      <span class="legend">Groove gauge</span
      ><SelectField v-model="form.gaugeUm" :options="gauges" aria-label="Gauge" />
    </div>
    <FigureField id="links" :figure="driveLinks" inputmode="numeric" />
    <div class="field">
      <span class="legend">Nose of the bar</span
      ><SelectField v-model="form.nose" :options="noses" aria-label="Nose of the bar" />
    </div>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <button type="submit" class="act next">Add the saw</button>
  </form>
</template>
