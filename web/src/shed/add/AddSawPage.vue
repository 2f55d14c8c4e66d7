<script setup lang="ts">
import { GAUGES_UM, PITCH_CLASSES, PITCH_PROFILES, saySawFit, writeMm, type PitchClass } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { postSaw } from '../../remote/api'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import type { NewSaw, Saw } from '@undercliff/contract'
import BarStampField from '../stamps/BarStampField.vue'
import { useDriveLinks } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import SelectField from '../../parts/SelectField.vue'
import { useKeptForm } from './keptForm'
import KeptLine from './KeptLine.vue'

const router = useRouter()
const shed = useShed()
const notices = useNotices()
/** Nothing of a saw is a fact before somebody says it; that nobody knows it is an answer too. */
const EMPTY_SAW = {
  nickname: '',
  barStamp: '',
  pitchClass: null as PitchClass | 'unknown' | null,
  gaugeUm: null as number | 'unknown' | null,
  driveLinks: '',
  linksUnknown: false,
  nose: 'solid' as 'same' | 'solid' | PitchClass,
}
const { form, returned, beginAgain } = useKeptForm('undercliff:addSaw', EMPTY_SAW)
const driveLinks = useDriveLinks(
  computed({
    get: () => form.value.driveLinks,
    set: (text: string) => {
      form.value.driveLinks = text
      if (text.trim() !== '') form.value.linksUnknown = false
    },
  }),
)
function noLinks(): void {
  form.value.linksUnknown = !form.value.linksUnknown
  if (form.value.linksUnknown) form.value.driveLinks = ''
}
const wrong = ref('')
const sending = ref(false)
const UNKNOWN = { value: 'unknown', label: "don't know yet" } as const
const pitches = PITCH_CLASSES.map((value) => ({ value, label: PITCH_PROFILES[value].name }))
const noses = [
  { value: 'solid', label: 'a solid nose, or not looked at' },
  { value: 'same', label: 'as the sprocket' },
  ...pitches,
]
const gauges = GAUGES_UM.map((value) => ({ value, label: writeMm(value, 1) }))

function takeBar({ pitchClass, gaugeUm, driveLinks: links, nosePitchClass = null }: Saw): void {
  const nose = nosePitchClass === null ? 'solid' : nosePitchClass === pitchClass ? 'same' : nosePitchClass
  form.value = { ...form.value, pitchClass, gaugeUm, driveLinks: String(links ?? ''), nose }
}

/** The saw that the form says, or where it does not say enough, with the id of the field. */
function sawOf(): NewSaw | { readonly at: string; readonly say: string } {
  const { pitchClass, gaugeUm, nose, linksUnknown } = form.value
  const nickname = form.value.nickname.trim()
  if (nickname === '') return { at: 'nickname', say: 'Say what the crew calls it.' }
  if (pitchClass === null) return { at: 'pitch', say: "Say the pitch of its sprocket, or that you don't know it yet." }
  if (gaugeUm === null) return { at: 'gauge', say: "Say the gauge of its groove, or that you don't know it yet." }
  const links = driveLinks.read()
  if (typeof links === 'string') return { at: 'links', say: links }
  if (links === null && !linksUnknown)
    return { at: 'links', say: "Say how many drive links its bar takes, or that you don't know it yet." }
  const known = pitchClass === 'unknown' ? null : pitchClass
  const barStamp = form.value.barStamp.trim()
  return {
    id: nanoid(),
    nickname,
    pitchClass: known,
    gaugeUm: gaugeUm === 'unknown' ? null : gaugeUm,
    driveLinks: links,
    nosePitchClass: nose === 'solid' ? null : nose === 'same' ? known : nose,
    ...(barStamp === '' ? {} : { barStamp }),
  }
}

async function save(): Promise<void> {
  // A second press says nothing new while the first is under way.
  if (sending.value) return
  const saw = sawOf()
  if ('say' in saw) {
    wrong.value = saw.say
    document.getElementById(saw.at)?.focus()
    return
  }
  wrong.value = ''
  sending.value = true
  const sent = JSON.stringify(form.value)
  try {
    await postSaw(saw)
  } catch (error) {
    wrong.value = (error as Error).message
    return
  } finally {
    sending.value = false
  }
  notices.say(`${saw.nickname} is in the shed: ${saySawFit(saw)}.`)
  void shed.load()
  // What was typed while the network was slow is of the next one, and stays.
  if (JSON.stringify(form.value) !== sent) return
  beginAgain()
  await router.push({ name: 'shed' })
}
</script>

<template>
  <form class="sheet stack" style="max-width: 640px" @submit.prevent="save">
    <h1>Add a saw</h1>
    <KeptLine v-if="returned" @begin-again="beginAgain" />
    <div class="field">
      <label for="nickname">What the crew calls it</label
      ><NInput
        v-model:value="form.nickname"
        autofocus
        :maxlength="40"
        :input-props="{ id: 'nickname' }"
        placeholder=""
      />
    </div>
    <BarStampField
      v-model="form.barStamp"
      field-id="bar-stamp"
      :gauge-um="form.gaugeUm === 'unknown' ? null : form.gaugeUm"
      :drive-links="form.driveLinks"
      @take="takeBar"
    />
    <p class="soft">
      Most bars say what follows as well, if it has not worn off. What you don't know yet can be read off later; no loop
      goes on before.
    </p>
    <div class="field">
      <span class="legend">Pitch</span
      ><SelectField id="pitch" v-model="form.pitchClass" :options="[...pitches, UNKNOWN]" aria-label="Pitch" />
    </div>
    <div class="field">
      <span class="legend">Groove gauge</span
      ><SelectField id="gauge" v-model="form.gaugeUm" :options="[...gauges, UNKNOWN]" aria-label="Gauge" />
    </div>
    <div class="links">
      <FigureField id="links" :figure="driveLinks" inputmode="numeric" />
      <button type="button" class="act small" :aria-pressed="form.linksUnknown" @click="noLinks">Don't know yet</button>
    </div>
    <div class="field">
      <span class="legend">Nose of the bar</span
      ><SelectField v-model="form.nose" :options="noses" aria-label="Nose of the bar" />
    </div>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <button type="submit" class="act next" :aria-disabled="sending">
      {{ sending ? 'Sending …' : 'Add the saw' }}
    </button>
  </form>
</template>

<style scoped>
.links {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: end;
}
</style>
