<script setup lang="ts">
import {
  CUTTER_TYPES,
  CUTTER_TYPE_NAMES,
  ENTERED_ORIGINS,
  freshTag,
  isGiven,
  GAUGES_UM,
  ORIGIN_WORDS,
  originOf,
  PITCH_CLASSES,
  PITCH_PROFILES,
  markBounds,
  settingBounds,
  specLengthBounds,
  LINK_KIND_NAMES,
  LINK_KINDS,
  SEQUENCES,
  SEQUENCE_NAMES,
  saySpecValue,
  SPEC_FIELD_NAMES,
  START_MARKS,
  writeFile,
  writeMm,
  type Origin,
  type SpecField,
  type SpecValues,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { useDriveLinks, useFigure } from '../../parts/figure'
import LoopAway from '../../parts/LoopAway.vue'
import { postProfile } from '../../remote/api'
import { useNotices } from '../../remote/notices'
import { useOpenLoop } from '../../remote/openLoop'
import { useSession } from '../../remote/sessionStore'
import SelectField from '../../parts/SelectField.vue'

/** Every value of a loop with where it comes from; a lead replaces any of them. */
const props = defineProps<{ tag: string }>()
const { loop, shed } = useOpenLoop(() => props.tag)
const session = useSession()
const notices = useNotices()
const state = computed(() => loop.state)
const FIELDS: readonly SpecField[] = [
  'pitchClass',
  'gaugeUm',
  'driveLinks',
  'cutterType',
  'sequence',
  'firstHand',
  'newLengthUm',
  'markLengthUm',
  'settingUm',
  'fileUm',
  'topPlateAngleDeg',
  'downAngleDeg',
  'headTiltDeg',
  'startMark',
  'links',
  'stamp',
]
const editing = ref<SpecField | null>(null)
const typed = ref('')
const picked = ref<string | number | null>(null)
const origin = ref<(typeof ENTERED_ORIGINS)[number]>('box')
const wrong = ref('')

type Option = { value: string | number; label: string }
const named = <T extends string>(values: readonly T[], names: (value: T) => string): Option[] =>
  values.map((value) => ({ value, label: names(value) }))
/** What a value is chosen from; one that has nothing here is typed. */
const CHOICES: Partial<Record<SpecField, () => Option[]>> = {
  pitchClass: () => named(PITCH_CLASSES, (value) => PITCH_PROFILES[value].name),
  cutterType: () => named(CUTTER_TYPES, (value) => CUTTER_TYPE_NAMES[value]),
  sequence: () => named(SEQUENCES, (value) => SEQUENCE_NAMES[value]),
  firstHand: () => named(['left', 'right'] as const, (value) => value),
  startMark: () => named(START_MARKS, (value) => value),
  links: () => named(LINK_KINDS, (value) => LINK_KIND_NAMES[value]),
  gaugeUm: () => GAUGES_UM.map((value) => ({ value, label: writeMm(value, 1) })),
  fileUm: () =>
    [...new Set(PITCH_CLASSES.flatMap((pitch) => PITCH_PROFILES[pitch].filesUm.value))]
      .sort((a, b) => a - b)
      .map((value) => ({ value, label: writeFile(value) })),
}
const choicesOf = (field: SpecField): Option[] | null => CHOICES[field]?.() ?? null
const ANGLES: ReadonlySet<SpecField> = new Set<SpecField>(['topPlateAngleDeg', 'downAngleDeg', 'headTiltDeg'])
function edit(field: SpecField): void {
  editing.value = editing.value === field ? null : field
  wrong.value = ''
  typed.value = ''
  picked.value = state.value?.spec[field] ?? null
}
function readValue(field: SpecField): string | number | null {
  if (choicesOf(field) !== null) return picked.value
  if (field === 'driveLinks') return driveLinks.read()
  if (ANGLES.has(field)) return /^\d+(\.\d+)?$/.test(typed.value.trim()) ? Number(typed.value) : null
  if (field === 'stamp') return typed.value.trim() === '' ? null : typed.value.trim()
  return length.read()
}
/** A figure far from what it was, or from what such a chain has, is asked about once. */
const length = useFigure(
  'Length',
  () => {
    const { settingUm = 650, markLengthUm = 1000, newLengthUm = 9000 } = state.value?.spec ?? {}
    if (editing.value === 'settingUm') return settingBounds({ settingUm })
    return editing.value === 'markLengthUm' ? markBounds(markLengthUm, newLengthUm) : specLengthBounds(newLengthUm)
  },
  typed,
)
const driveLinks = useDriveLinks(typed)
async function save(field: SpecField): Promise<void> {
  const value = readValue(field)
  if (typeof value === 'string' && field !== 'stamp' && choicesOf(field) === null) {
    wrong.value = value
    return
  }
  if (value === null) {
    wrong.value = `That is not a ${SPEC_FIELD_NAMES[field]}.`
    return
  }
  const changes = { [field]: value } as Partial<SpecValues>
  const refused = await loop.write(
    { kind: 'specChanged', changes, origin: origin.value, personId: session.me?.personId ?? null },
    `${props.tag}: ${SPEC_FIELD_NAMES[field]} ${saySpecValue(changes, field, shed.lengths)}`,
  )
  // Somebody quick is at another value by now: what is said there stays.
  if (editing.value !== field) {
    if (refused !== null) notices.say(`${props.tag}: ${SPEC_FIELD_NAMES[field]} stays. ${refused}`)
    return
  }
  wrong.value = refused ?? ''
  if (refused === null) editing.value = null
}

const newTag = ref('')
async function retag(): Promise<void> {
  const tag = newTag.value.trim()
  wrong.value =
    (await loop.write(
      { kind: 'retagged', tag, personId: session.me?.personId ?? null },
      `${props.tag} is ${tag} now`,
    )) ?? ''
  // The tag in the address is that of before; the shed is on its way with the new one.
  if (wrong.value === '')
    window.history.replaceState(window.history.state, '', `/loops/${encodeURIComponent(tag)}/spec`)
}
const make = (): void => {
  newTag.value = freshTag(new Set(shed.loops.map(({ tag }) => tag)), Math.random()) ?? ''
}
const profileName = ref('')
async function keepProfile(): Promise<void> {
  if (state.value === null) return
  const {
    driveLinks: _links,
    firstHand: _hand,
    startMark: _mark,
    stamp: _stamp,
    origins: _origins,
    ...values
  } = state.value.spec
  try {
    await postProfile({ id: nanoid(), name: profileName.value.trim(), values })
    await shed.load()
    notices.say(`${profileName.value.trim()} is a profile of the crew's now.`)
    profileName.value = ''
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
const originOptions = ENTERED_ORIGINS.map((value: Origin) => ({ value, label: ORIGIN_WORDS[value] }))
</script>

<template>
  <LoopAway v-if="state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <div v-else class="desk">
    <section class="sheet stack">
      <h1><span class="figures">{{ state.tag }}</span> · what it is</h1>
      <p class="soft">
        The box or the maker's sheet wins over common practice, and a measurement over both. A change holds for the
        loop's whole life: everything is worked out again.
      </p>
      <p v-if="wrong && editing === null" class="stop-text" role="alert">{{ wrong }}</p>
      <dl>
        <template v-for="field in FIELDS" :key="field">
          <dt>{{ SPEC_FIELD_NAMES[field] }}</dt>
          <dd>
            <strong>{{ saySpecValue({ links: 'plain', ...state.spec }, field, shed.lengths) || 'none' }}</strong>
            <span class="origin" :class="originOf(state.spec, field)">{{
              isGiven(state.spec, field) ? '' : ORIGIN_WORDS[originOf(state.spec, field)]
            }}</span>
            <button
              v-if="session.isLead"
              type="button"
              class="act small"
              :aria-expanded="editing === field"
              :aria-label="`${editing === field ? 'Leave it:' : 'Change'} ${SPEC_FIELD_NAMES[field]}`"
              @click="edit(field)"
            >
              {{ editing === field ? 'Leave it' : 'Change' }}
            </button>
          </dd>
          <dd v-if="editing === field" class="editor">
            <form class="row" @submit.prevent="save(field)">
              <SelectField
                v-if="choicesOf(field)"
                v-model="picked"
                class="value"
                :options="choicesOf(field) ?? []"
                :aria-label="SPEC_FIELD_NAMES[field]"
              />
              <NInput
                v-else
                v-model:value="typed"
                autofocus
                class="value"
                :input-props="{ 'aria-label': SPEC_FIELD_NAMES[field], inputmode: 'decimal' }"
                :placeholder="saySpecValue(state.spec, field, shed.lengths)"
              />
              <SelectField v-model="origin" class="value" :options="originOptions" aria-label="Where it comes from" />
              <button type="submit" class="act next">Save</button>
            </form>
            <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
          </dd>
        </template>
      </dl>
    </section>
    <aside class="stack side">
      <RouterLink class="act" :to="{ name: 'loop', params: { tag: state.tag } }">Back to {{ state.tag }}</RouterLink>
      <form v-if="session.isLead" class="sheet stack" @submit.prevent="retag">
        <h2>Another tag</h2>
        <div class="field">
          <label for="new-tag">Tag</label
          ><NInput
            v-model:value="newTag"
            :maxlength="12"
            :input-props="{ id: 'new-tag', autocapitalize: 'characters' }"
            placeholder=""
          />
        </div>
        <p class="row">
          <button type="button" class="act small" @click="make">Make one</button
          ><button type="submit" class="act small" :disabled="newTag.trim() === ''">Give it this tag</button>
        </p>
        <p class="soft">A made tag has no 0 or O, 1 or I, and its last character catches a slip.</p>
      </form>
      <section class="sheet stack">
        <h2>Print its tag</h2>
        <RouterLink class="act small" :to="{ name: 'tags', query: { tag: state.tag } }">Tag with QR code</RouterLink>
      </section>
      <form v-if="session.isLead" class="sheet stack" @submit.prevent="keepProfile">
        <h2>Keep as a profile</h2>
        <div class="field">
          <label for="profile-name">Call it</label
          ><NInput v-model:value="profileName" :maxlength="40" :input-props="{ id: 'profile-name' }" placeholder="" />
        </div>
        <button type="submit" class="act small" :disabled="profileName.trim() === ''">
          Keep it for the next loop of the kind
        </button>
      </form>
    </aside>
  </div>
</template>

<style scoped>
dl {
  margin: 0;
  display: grid;
  grid-template-columns: 170px 1fr;
}
dt,
dd {
  border-top: 1px solid var(--rule);
  padding: 4px 0;
  margin: 0;
  min-height: 56px;
  display: flex;
  align-items: center;
}
dt {
  color: var(--ink-soft);
}
dd {
  gap: 12px;
}
dd .act {
  margin-left: auto;
}
.editor {
  grid-column: 1 / 3;
  border-top: 0;
  display: grid;
  gap: 6px;
}
.value {
  width: 230px;
  max-width: 100%;
}
.origin {
  font-size: 0.88rem;
  color: var(--ink-soft);
}
.origin.assumed {
  border-bottom: 2px dashed var(--rule-strong);
}
.side {
  align-content: start;
}
@media (max-width: 700px) {
  dl {
    grid-template-columns: 92px 1fr;
  }
  dd:not(.editor) {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 8px;
  }
  .origin {
    grid-row: 2;
  }
  dd .act {
    grid-row: 1 / 3;
    grid-column: 2;
  }
}
</style>
