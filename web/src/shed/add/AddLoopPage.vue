<script setup lang="ts">
import {
  CUTTER_TYPES,
  CUTTER_TYPE_NAMES,
  fitCheck,
  freshTag,
  GAUGES_UM,
  layoutLoop,
  PITCH_CLASSES,
  PITCH_PROFILES,
  pitchUmOf,
  readLength,
  sayRefusal,
  LINK_KIND_NAMES,
  LINK_KINDS,
  markBounds,
  SEQUENCES,
  SEQUENCE_NAMES,
  SHELF_NAMES,
  SHELVES,
  specFromProfile,
  specLengthBounds,
  specLine,
  START_MARKS,
  writeFile,
  writeMm,
  type LoopSpec,
  type NewEntry,
  type Origin,
  type Shelf,
  type SpecField,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { NInput } from 'naive-ui'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDriveLinks, useFigure } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import RadioChoice from '../../parts/RadioChoice.vue'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import { useWriting } from '../../remote/writing'
import { addLoopForm, type AddLoopForm } from './addLoopForm'
import KeptLine from './KeptLine.vue'
import LeftField from './LeftField.vue'
import { nextTag } from './nextTag'
import { knownByStamp } from '../stamps/stamps'
import SelectField from '../../parts/SelectField.vue'

const router = useRouter()
const route = useRoute()
const shed = useShed()
const writing = useWriting()
const session = useSession()
const { form, returned, beginAgain } = addLoopForm()
/** It comes with what was measured of it: nothing that somebody left. */
if (form.value.measured.length > 0) returned.value = false
const wrong = ref('')
/** What is common practice for its pitch; of no pitch, what a field that is not there yet would be held against. */
const profile = computed(() => PITCH_PROFILES[form.value.pitchClass ?? 'threeEighths'])
const options = <T extends string>(values: readonly T[], names: Record<T, string>) =>
  values.map((value) => ({ value, label: names[value] }))
const pitches = PITCH_CLASSES.map((value) => ({ value, label: PITCH_PROFILES[value].name }))
const gauges = GAUGES_UM.map((value) => ({ value, label: writeMm(value, 1) }))
const files = computed(() =>
  [...new Set([...profile.value.filesUm.value, ...(form.value.fileUm === null ? [] : [form.value.fileUm])])].map(
    (value) => ({ value, label: writeFile(value) }),
  ),
)
const file = computed(
  () => files.value.find(({ value }) => value === form.value.fileUm)?.value ?? files.value[0]?.value ?? null,
)

const profileOptions = computed(() => [
  { value: '', label: 'the trade’s common practice' },
  ...shed.profiles.map(({ id, name }) => ({ value: id, label: name })),
])
const own = computed(() => shed.profiles.find(({ id }) => id === form.value.profileId))
function startFrom(id: string): void {
  const found = shed.profiles.find((one) => one.id === id)
  form.value = { ...form.value, profileId: found?.id ?? null, measured: [], newLength: '', markLength: '' }
  if (found === undefined) return
  const { pitchClass, gaugeUm, cutterType, sequence, fileUm } = found.values
  form.value = { ...form.value, pitchClass, gaugeUm, cutterType, sequence, fileUm }
}
const usualNewLength = computed(() => {
  const { value, origin } = profile.value.newLengthUm
  return `${writeMm(value)}, ${origin === 'assumed' ? 'assumed' : 'common practice'}`
})
const marks = START_MARKS.map((value) => ({ value, label: value }))
const makeTag = (): void => {
  form.value.tag = freshTag(new Set(shed.loops.map(({ tag }) => tag)), Math.random()) ?? ''
}
/** Values that the box or the crew gave, and those that came from measuring. */
function originsOf(typed: readonly SpecField[]): LoopSpec['origins'] {
  const origins: Partial<Record<SpecField, Origin>> = {}
  if (own.value !== undefined)
    for (const field of ['newLengthUm', 'markLengthUm', 'settingUm', 'fileUm', 'topPlateAngleDeg'] as const)
      origins[field] = 'crew'
  if (form.value.fileUm !== null && form.value.fileUm !== files.value[0]?.value) origins.fileUm = 'crew'
  for (const field of typed) origins[field] = 'box'
  for (const field of form.value.measured) origins[field] = 'measured'
  return origins
}

const textOf = (field: 'newLength' | 'markLength') =>
  computed({
    get: () => form.value[field],
    set: (text: string) => {
      form.value[field] = text
    },
  })
const newLength = useFigure('New cutter', () => specLengthBounds(profile.value.newLengthUm.value), textOf('newLength'))
const markLength = useFigure(
  'Reading at the mark',
  () => markBounds(profile.value.markLengthUm.value, profile.value.newLengthUm.value),
  textOf('markLength'),
)
const driveLinks = useDriveLinks(
  computed({
    get: () => form.value.driveLinks,
    set: (text: string) => {
      form.value.driveLinks = text
    },
  }),
)
/** What has to be said before it is a loop at all, each with where it is said. */
const unsaid = computed(() => {
  const { pitchClass, gaugeUm, cutterType, sequence } = form.value
  const all = [
    { at: 'pitch', said: pitchClass !== null, say: 'Say its pitch.' },
    { at: 'gauge', said: gaugeUm !== null, say: 'Say its gauge.' },
    { at: 'links', said: form.value.driveLinks.trim() !== '', say: 'Say how many drive links it has.' },
    { at: 'cutters', said: cutterType !== null, say: 'Say what cutters it has.' },
    { at: 'sequence', said: sequence !== null, say: 'Say whether it is a full complement or skips.' },
  ]
  return all.filter(({ said }) => !said)
})
/** What was typed of a new cutter and of the mark; a sentence where it cannot be read. */
function lengthsTyped(): Partial<Record<'newLengthUm' | 'markLengthUm', number>> | string {
  const lengths: Partial<Record<'newLengthUm' | 'markLengthUm', number>> = {}
  for (const [field, { text, name }] of [
    ['newLengthUm', newLength],
    ['markLengthUm', markLength],
  ] as const) {
    if (text.value.trim() === '') continue
    const reading = readLength(text.value, shed.bareUnit)
    if (!reading.ok) return `${name}: ${sayRefusal(reading)}`
    lengths[field] = reading.um
  }
  return lengths
}
function specOf(): LoopSpec | string {
  const { pitchClass, gaugeUm, cutterType, sequence } = form.value
  const [first] = unsaid.value
  if (first !== undefined) return first.say
  const lengths = lengthsTyped()
  if (typeof lengths === 'string') return lengths
  if (pitchClass === null || gaugeUm === null || cutterType === null || sequence === null) return ''
  const typed = Object.keys(lengths) as SpecField[]
  const startMark = form.value.startMark === 'none' ? {} : { startMark: form.value.startMark }
  const origins = originsOf(typed)
  const named = origins === undefined || Object.keys(origins).length === 0 ? {} : { origins }
  return specFromProfile({
    ...own.value?.values,
    pitchClass,
    gaugeUm,
    driveLinks: Number(form.value.driveLinks),
    cutterType,
    sequence,
    ...(file.value === null ? {} : { fileUm: file.value }),
    ...lengths,
    ...startMark,
    ...(form.value.links === 'plain' ? {} : { links: form.value.links }),
    ...(form.value.stamp.trim() === '' ? {} : { stamp: form.value.stamp.trim() }),
    ...named,
  })
}
/** What the crew's own loops with such a stamp are; null where it has none. */
const known = computed(() => {
  const found = knownByStamp(form.value.stamp, shed.loops)
  if (found === null) return null
  const { pitchClass, gaugeUm, cutterType, sequence } = form.value
  const same =
    found.pitchClass === pitchClass &&
    found.gaugeUm === gaugeUm &&
    found.cutterType === cutterType &&
    found.sequence === sequence
  return same ? null : found
})
function takeKnown(): void {
  if (known.value === null) return
  const { pitchClass, gaugeUm, cutterType, sequence } = known.value
  form.value = { ...form.value, pitchClass, gaugeUm, cutterType, sequence, fileUm: null }
}
const CAME = [
  { value: 'new', label: 'New' },
  { value: 'used', label: 'Used' },
] as const
/** What the cutters have between new and the mark, by the form as it stands. */
const span = computed(() => {
  const spec = specOf()
  if (typeof spec !== 'string') return { newUm: spec.newLengthUm, markUm: spec.markLengthUm }
  return { newUm: profile.value.newLengthUm.value, markUm: profile.value.markLengthUm.value }
})

/** Saws that such a loop fits in every part and that have none on them. */
const freeSaws = computed(() => {
  const { pitchClass, gaugeUm } = form.value
  if (pitchClass === null || gaugeUm === null) return []
  const fit = { pitchClass, gaugeUm, driveLinks: Number(form.value.driveLinks) }
  return shed.saws.filter((saw) => shed.loopOn(saw.id) === undefined && fitCheck(fit, saw, saw).level === 'fits')
})
const places = computed(() => [
  ...freeSaws.value.map(({ id, nickname }) => ({ value: id, label: `on ${nickname}` })),
  ...SHELVES.map((value) => ({ value, label: SHELF_NAMES[value] })),
])
/** A place that the form no longer offers is the bench. */
const place = computed({
  get: () => (places.value.some(({ value }) => value === form.value.place) ? form.value.place : 'bench'),
  set: (value: string) => {
    form.value.place = value
  },
})
/** A loop for a saw: what its bar takes, and onto it. */
const begun = ref(false)
watch(
  () => shed.saws.find(({ nickname }) => nickname === route.query.saw),
  (saw) => {
    if (saw === undefined || begun.value) return
    begun.value = true
    const { pitchClass, gaugeUm, driveLinks, id } = saw
    const other = form.value.pitchClass === pitchClass ? {} : { fileUm: null }
    form.value = { ...form.value, ...other, pitchClass, gaugeUm, driveLinks: String(driveLinks ?? ''), place: id }
  },
  { immediate: true },
)

const preview = computed(() => {
  const spec = specOf()
  if (typeof spec === 'string') return ''
  try {
    const { cutters, joint, lengthUm } = layoutLoop({ ...spec, pitchUm: pitchUmOf(spec) })
    const regular = joint.regular ? 'regular' : 'irregular'
    return `${cutters.length} cutters on ${writeMm(lengthUm, 0)} of chain; the joint is ${regular}.`
  } catch (error) {
    return (error as Error).message
  }
})

/** The entries that the form makes; a sentence where it cannot be read. */
function entriesOf(tag: string): NewEntry[] | string {
  const { came, leftUm, leftWithinUm, leftWrong } = form.value
  if (tag === '') return 'Give it a tag.'
  const odd = [driveLinks, newLength, markLength].map((one) => one.read()).find((read) => typeof read === 'string')
  if (odd !== undefined) return odd
  if (came === null) return 'Say whether it is new or used.'
  const spec = specOf()
  if (typeof spec === 'string') return spec
  if (came === 'used' && leftWrong !== '') return `What is left: ${leftWrong}`
  const at = Date.now()
  const loopId = nanoid()
  const base = (after: number) => ({
    id: nanoid(),
    loopId,
    happenedAt: new Date(at + after).toISOString(),
    personId: session.me?.personId ?? null,
  })
  const wide = leftWithinUm === null ? {} : { withinUm: leftWithinUm }
  const used = came === 'new' ? {} : { used: leftUm === null ? {} : { aboutUm: leftUm, ...wide } }
  const registered: NewEntry = { ...base(0), kind: 'registered', tag, spec, ...used }
  if (place.value === 'bench') return [registered]
  const saw = freeSaws.value.find(({ id }) => id === place.value)
  if (saw === undefined) return [registered, { ...base(1), kind: 'moved', to: place.value as Shelf }]
  return [registered, { ...base(1), kind: 'fitted', sawId: saw.id }]
}

/** What comes after it is added: its page, its measuring, or another like it. */
type Then = 'look' | 'measure' | 'another'
let saving = false
async function save(then: Then): Promise<void> {
  // A second press says nothing new while the first is under way.
  if (saving) return
  saving = true
  try {
    await add(then)
  } finally {
    saving = false
  }
}
/** What was said of one loop's cutters is no fact of the next. */
const NOTHING_LEFT_SAID = { leftUm: null, leftWithinUm: null, leftWrong: '' } as const
/** What was typed while the network was slow is of the next one, and stays. */
const typedSince = (sent: Readonly<Record<string, unknown>>): Partial<AddLoopForm> =>
  Object.fromEntries(Object.entries(form.value).filter(([field, value]) => value !== sent[field]))
async function add(then: Then): Promise<void> {
  const tag = form.value.tag.trim()
  const entries = entriesOf(tag)
  if (typeof entries === 'string') {
    wrong.value = entries
    const [first] = unsaid.value
    const at = tag === '' ? '#tag' : form.value.came === null ? '#came [role=radio]' : first ? `#${first.at}` : null
    if (at !== null) document.querySelector<HTMLElement>(at)?.focus()
    return
  }
  const sent = { ...form.value }
  wrong.value = (await writing.write(entries, `${tag} is in the shed`)) ?? ''
  if (wrong.value !== '') return
  const typed = typedSince(sent)
  const known = shed.loopByTag(tag) !== undefined
  if (then === 'another') {
    const tags = [...shed.loops.map((loop) => loop.tag), tag]
    const next = { tag: nextTag(tag, tags), measured: [], place: 'bench' }
    form.value = { ...form.value, ...NOTHING_LEFT_SAID, ...next, ...typed }
    await nextTick()
    document.getElementById('tag')?.focus()
    return
  }
  beginAgain()
  if (Object.keys(typed).length > 0) {
    form.value = { ...form.value, ...typed }
    return
  }
  await router.push(known ? { name: then === 'measure' ? 'measure' : 'loop', params: { tag } } : { name: 'shed' })
}
</script>

<template>
  <form class="sheet form" @submit.prevent="save('look')">
    <h1>Add a loop</h1>
    <KeptLine v-if="returned" class="wide" @begin-again="beginAgain" />
    <p class="wide">
      <RouterLink :to="{ name: 'identify' }">Not sure which chain it is? Measure it first.</RouterLink>
    </p>
    <div class="field">
      <label for="tag">Tag</label>
      <div class="tag">
        <NInput
          v-model:value="form.tag"
          autofocus
          :maxlength="12"
          :input-props="{ id: 'tag', autocapitalize: 'characters' }"
          placeholder="the crew's own, or"
        /><button type="button" class="act small" @click="makeTag">Make one</button>
      </div>
    </div>
    <div class="field">
      <span id="came-label" class="legend">It is</span>
      <RadioChoice id="came" v-model="form.came" labelledby="came-label" :options="CAME" />
    </div>
    <div class="field wide">
      <label for="stamp">Stamped on the links, or on the box <span class="soft">(if you can read it)</span></label
      ><NInput v-model:value="form.stamp" :maxlength="40" :input-props="{ id: 'stamp' }" placeholder="" />
      <p v-if="known" class="row" role="status">
        <span
          >{{ known.stamp }} was {{ specLine(known) }}, {{ CUTTER_TYPE_NAMES[known.cutterType] }}, on
          {{ known.tags.join(', ') }}.</span
        >
        <button type="button" class="act small" @click="takeKnown">It is the same</button>
      </p>
    </div>
    <div v-if="shed.profiles.length > 0" class="field">
      <span class="legend">Start from</span
      ><SelectField
        :model-value="form.profileId ?? ''"
        :options="profileOptions"
        aria-label="Start from"
        @update:model-value="startFrom"
      />
    </div>
    <div class="field">
      <span class="legend">Pitch</span
      ><SelectField id="pitch" v-model="form.pitchClass" :options="pitches" aria-label="Pitch" />
    </div>
    <div class="field">
      <span class="legend">Gauge</span
      ><SelectField id="gauge" v-model="form.gaugeUm" :options="gauges" aria-label="Gauge" />
    </div>
    <FigureField id="links" :figure="driveLinks" inputmode="numeric" />
    <div class="field">
      <span class="legend">Cutters</span
      ><SelectField
        id="cutters"
        v-model="form.cutterType"
        :options="options(CUTTER_TYPES, CUTTER_TYPE_NAMES)"
        aria-label="Cutter type"
      />
    </div>
    <div class="field">
      <span class="legend">Sequence</span
      ><SelectField
        id="sequence"
        v-model="form.sequence"
        :options="options(SEQUENCES, SEQUENCE_NAMES)"
        aria-label="Sequence"
      />
    </div>
    <LeftField
      v-if="form.came === 'used' && form.pitchClass !== null"
      v-model="form.leftUm"
      v-model:within="form.leftWithinUm"
      v-model:wrong="form.leftWrong"
      class="wide"
      :new-um="span.newUm"
      :mark-um="span.markUm"
      :unit="shed.bareUnit"
    />
    <p v-else-if="form.came === 'used'" class="soft wide">How much is left is asked once its pitch is said.</p>
    <div v-if="form.pitchClass !== null" class="field">
      <span class="legend">File</span
      ><SelectField :model-value="file" :options="files" aria-label="File" @update:model-value="form.fileUm = $event" />
    </div>
    <div class="field">
      <span class="legend">Where it is</span><SelectField v-model="place" :options="places" aria-label="Where it is" />
    </div>
    <div class="field">
      <span class="legend">Start mark</span
      ><SelectField v-model="form.startMark" :options="marks" aria-label="Start mark" />
    </div>
    <div class="field">
      <span class="legend">Links</span
      ><SelectField v-model="form.links" :options="options(LINK_KINDS, LINK_KIND_NAMES)" aria-label="Links" />
    </div>
    <template v-if="form.pitchClass !== null">
      <FigureField id="new" :figure="newLength" :placeholder="usualNewLength">New cutter, edge to mark</FigureField>
      <FigureField id="mark" :figure="markLength" placeholder="0, when you measure to the mark"
        >Reading at the mark</FigureField
      >
    </template>
    <p class="soft wide" aria-live="polite">
      {{ preview || 'Say its pitch, gauge, drive links and cutters.' }} The box or the maker's sheet wins over these
      figures.
    </p>
    <p v-if="wrong" class="stop-text wide" role="alert">{{ wrong }}</p>
    <div class="row wide">
      <button type="submit" class="act next">Add the loop</button>
      <button type="button" class="act" @click="save('another')">Add, and another like it</button>
      <button type="button" class="act" @click="save('measure')">Add, and measure it</button>
    </div>
  </form>
</template>

<style scoped>
.tag {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  max-width: 860px;
}
h1,
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .form {
    grid-template-columns: 1fr;
  }
}
</style>
