<script setup lang="ts">
import { isOfSaw, type Saw, type SawAnswer } from '@undercliff/contract'
import {
  fitCheck,
  FIT_WORDS,
  GAUGES_UM,
  grooveBounds,
  GROOVE_DEPTH_BOUNDS,
  PITCH_CLASSES,
  PITCH_PROFILES,
  SAW_DUE_WORDS,
  SAW_FIGURES,
  admitSaw,
  isFlip,
  sawEntriesThatCount,
  saySawEntry,
  FIT_FIELD_NAMES,
  saySawFit,
  unreadOf,
  writeLength,
  writeMm,
  whyNotStrikeOfSaw,
  type NewSawEntry,
  type SawEntryBodies,
  type PitchClass,
  type SawEntry,
  sayDay,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, ref, shallowRef, watch } from 'vue'
import { useDriveLinks, useFigure } from '../../parts/figure'
import FigureField from '../../parts/FigureField.vue'
import SawItself from './SawItself.vue'
import { useRouter } from 'vue-router'
import FitMark from '../../parts/FitMark.vue'
import OvertakenLine from '../../parts/OvertakenLine.vue'
import LoopTile from '../../parts/LoopTile.vue'
import { fetchSaw, ServerAway } from '../../remote/api'
import { keepSaw, keptSaw } from '../../remote/keptLogs'
import { useOutbox } from '../../remote/outbox'
import { useMoves } from '../../move/moveStore'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import { useWriting } from '../../remote/writing'
import BarStampField from '../stamps/BarStampField.vue'
import PlatePhotos from '../../parts/photos/PlatePhotos.vue'
import SelectField from '../../parts/SelectField.vue'

/** A saw's bar, nose and sprocket: what they take, how worn they are, what is due, what was done. */
const props = defineProps<{ nickname: string }>()
const shed = useShed()
const session = useSession()
const outbox = useOutbox()
const writing = useWriting()
const moves = useMoves()
const router = useRouter()
const answer = shallowRef<SawAnswer | null>(null)
/** Whether it is drawn as this device last heard of it. */
const asKept = ref(false)
const missing = ref(false)
const wrong = ref('')
/** Renamed, it stays the one that was opened, until the address follows. */
const sawId = ref<string | null>(null)
const saw = computed(
  () => shed.saws.find(({ nickname }) => nickname === props.nickname) ?? shed.saws.find(({ id }) => id === sawId.value),
)
watch(
  () => props.nickname,
  () => {
    sawId.value = null
  },
  { flush: 'sync' },
)
/** The address follows once the shed has the new name; without a server that is later. */
function follow(name: string): void {
  if (shed.saws.some(({ nickname }) => nickname === name))
    void router.replace({ name: 'saw', params: { nickname: name } })
}
watch(saw, (found) => (sawId.value = found?.id ?? sawId.value), { immediate: true })

/** The log as it is being fetched: what is written next is checked against nothing older. */
let fetching: Promise<void> = Promise.resolve()
function load(): Promise<void> {
  fetching = fetchIt()
  return fetching
}
async function fetchIt(): Promise<void> {
  if (saw.value === undefined) await shed.load()
  missing.value = saw.value === undefined && shed.loaded
  if (saw.value === undefined) return
  try {
    answer.value = await fetchSaw(saw.value.id)
    asKept.value = false
    wrong.value = ''
    void keepSaw(answer.value, JSON.stringify(saw.value))
  } catch (error) {
    const kept = error instanceof ServerAway ? await keptSaw(saw.value.id) : null
    asKept.value = kept !== null
    if (kept !== null) answer.value = kept.answer
    else wrong.value = (error as Error).message
  }
}
watch(
  () => [props.nickname, shed.answer],
  () => void load(),
  { immediate: true },
)

type Body<T> = T extends NewSawEntry ? Omit<T, 'id' | 'sawId' | 'happenedAt' | 'personId'> : never
/** Writes an entry, checked here as the server checks it, kept on this device until it is sent. */
async function write(body: Body<NewSawEntry>, said: string): Promise<boolean> {
  await fetching
  if (saw.value === undefined || answer.value === null) return false
  const entry: NewSawEntry = {
    id: nanoid(),
    sawId: saw.value.id,
    happenedAt: new Date().toISOString(),
    personId: session.me?.personId ?? null,
    ...body,
  }
  const [problem] = admitSaw(entry, answer.value.entries, answer.value.saw, Date.now())
  wrong.value = problem?.message ?? (await writing.write([entry], said)) ?? ''
  if (wrong.value !== '') return false
  // The shed may say the same of it as before.
  await load()
  return true
}
async function strikeOut(entry: SawEntry): Promise<void> {
  await writing.strikeOut([entry])
  await load()
}

const form = ref<'none' | 'check' | 'bar' | 'sprocket' | 'read'>('none')
const width = useFigure('Width', () => grooveBounds(saw.value?.gaugeUm ?? null))
const depth = useFigure('Depth', () => GROOVE_DEPTH_BOUNDS)
const burrs = ref<boolean | null>(null)
async function saveCheck(): Promise<void> {
  const lengths: { grooveWidthUm?: number; grooveDepthUm?: number } = {}
  for (const [field, figure] of [
    ['grooveWidthUm', width],
    ['grooveDepthUm', depth],
  ] as const) {
    const um = figure.read()
    if (typeof um === 'string') {
      wrong.value = um
      return
    }
    if (um !== null) lengths[field] = um
  }
  if (Object.keys(lengths).length === 0 && burrs.value === null) {
    wrong.value = 'Nothing was looked at yet.'
    return
  }
  if (
    await write(
      { kind: 'barChecked', ...lengths, ...(burrs.value === null ? {} : { burrs: burrs.value }) },
      'The bar is checked',
    )
  )
    form.value = 'none'
}
const pitches = PITCH_CLASSES.map((value) => ({ value, label: PITCH_PROFILES[value].name }))
const noses = [...pitches, { value: 'solid', label: 'a solid nose' }]
const gauges = GAUGES_UM.map((value) => ({ value, label: writeMm(value, 1) }))
const bar = ref<{ stamp: string; gaugeUm: number | null; driveLinks: string; nose: PitchClass | 'solid' | null }>({
  stamp: '',
  gaugeUm: null,
  driveLinks: '',
  nose: null,
})
const barLinks = useDriveLinks(
  computed({
    get: () => bar.value.driveLinks,
    set: (text: string) => {
      bar.value.driveLinks = text
    },
  }),
)
const sprocket = ref<PitchClass | null>(null)
function open(which: typeof form.value): void {
  form.value = form.value === which ? 'none' : which
  wrong.value = ''
  if (saw.value === undefined) return
  // Another bar is another: nothing of it is known by the one before. What is read off is what stands.
  const { gaugeUm, driveLinks, nosePitchClass, barStamp = '', pitchClass } = saw.value
  bar.value =
    which === 'read'
      ? { stamp: barStamp, gaugeUm, driveLinks: String(driveLinks ?? ''), nose: nosePitchClass ?? null }
      : { stamp: '', gaugeUm: null, driveLinks: '', nose: null }
  // A sprocket is renewed by one like it.
  sprocket.value = pitchClass
}
function takeBar({ gaugeUm, driveLinks, nosePitchClass }: Saw): void {
  bar.value = { ...bar.value, gaugeUm, driveLinks: String(driveLinks ?? ''), nose: nosePitchClass ?? 'solid' }
}
/** What the form says that the saw does not have yet; a sentence where it cannot be read. */
function readOff(): SawEntryBodies['fitRead'] | string {
  if (saw.value === undefined) return ''
  const links = barLinks.read()
  if (typeof links === 'string') return links
  const { stamp, gaugeUm, nose } = bar.value
  const { nosePitchClass = null, barStamp, ...was } = saw.value
  const noseRead = nose === 'solid' ? null : nose
  return {
    ...(sprocket.value === null || sprocket.value === was.pitchClass ? {} : { pitchClass: sprocket.value }),
    ...(gaugeUm === null || gaugeUm === was.gaugeUm ? {} : { gaugeUm }),
    ...(links === null || links === was.driveLinks ? {} : { driveLinks: links }),
    ...(nose === null || noseRead === nosePitchClass ? {} : { nosePitchClass: noseRead }),
    ...(stamp.trim() === '' || stamp.trim() === barStamp ? {} : { barStamp: stamp.trim() }),
  }
}
async function saveRead(): Promise<void> {
  const read = readOff()
  if (typeof read === 'string') wrong.value = read
  else if (await write({ kind: 'fitRead', ...read }, 'What it takes is noted')) form.value = 'none'
}
async function saveBar(): Promise<void> {
  const { stamp, gaugeUm, nose } = bar.value
  const driveLinks = barLinks.read()
  if (gaugeUm === null || typeof driveLinks !== 'number' || nose === null) {
    wrong.value =
      gaugeUm === null
        ? 'Say which gauge its groove takes.'
        : typeof driveLinks === 'string'
          ? driveLinks
          : driveLinks === null
            ? 'Say how many drive links it takes.'
            : 'Say what its nose takes, or that it is a solid one.'
    return
  }
  const nosePitchClass = nose === 'solid' ? null : nose
  const barStamp = stamp.trim() === '' ? {} : { barStamp: stamp.trim() }
  if (await write({ kind: 'barFitted', gaugeUm, driveLinks, nosePitchClass, ...barStamp }, 'Another bar is on'))
    form.value = 'none'
}
async function saveSprocket(): Promise<void> {
  if (sprocket.value === null) wrong.value = 'Say which pitch it takes.'
  else if (await write({ kind: 'sprocketRenewed', pitchClass: sprocket.value }, 'The sprocket is new'))
    form.value = 'none'
}

const unread = computed(() => (saw.value === undefined ? [] : unreadOf(saw.value)))
const on = computed(() => (saw.value === undefined ? undefined : shed.loopOn(saw.value.id)))
/** Loops of which two people say that they are on this saw and on another. */
const setAside = computed(() =>
  shed.loops.filter(
    ({ overtaken, sawId }) => overtaken != null && (overtaken.sawId === saw.value?.id || sawId === saw.value?.id),
  ),
)
const candidates = computed(() => {
  const { value } = saw
  if (value === undefined) return []
  return shed.loops
    .filter(({ retired, sawId }) => !retired && sawId !== value.id)
    .map((loop) => ({ loop, check: fitCheck(loop.spec, value, value, loop.fitForUse) }))
    .filter(({ check }) => check.level !== 'mustNot')
    .sort((a, b) => (a.check.level === b.check.level ? 0 : a.check.level === 'fits' ? -1 : 1))
})
/** What waits on this device to be sent is part of the log. */
const log = computed((): readonly SawEntry[] => {
  if (answer.value === null) return []
  const told = answer.value.entries
  const known = new Set(told.map(({ id }) => id))
  const unsent = outbox.waiting
    .flatMap((parcel) => parcel.entries)
    .filter((entry) => isOfSaw(entry))
    .filter(({ id, sawId: of }) => of === saw.value?.id && !known.has(id))
  return [...told, ...unsent.map((entry) => ({ ...entry, writtenAt: entry.happenedAt, writtenBy: entry.personId }))]
})
const waits = computed(() => {
  const known = new Set(answer.value?.entries.map(({ id }) => id))
  return new Set(log.value.filter(({ id }) => !known.has(id)).map(({ id }) => id))
})
const entries = computed(() => [...log.value].filter(({ kind }) => kind !== 'sawCorrected').reverse())
const counted = computed(() => new Set(sawEntriesThatCount(log.value).map(({ id }) => id)))
const dayOf = (instant: string): string => sayDay(instant, shed.dates)
const [, WORN_OUT] = SAW_FIGURES.loopsPerSprocket.value
</script>

<template>
  <section v-if="missing" class="sheet stack">
    <h1>No saw is called {{ nickname }}</h1>
    <p><RouterLink class="act next" :to="{ name: 'shed' }">To the shed</RouterLink></p>
  </section>
  <p v-else-if="!saw || !answer" class="sheet">
    Fetching {{ nickname }} … <span v-if="wrong" class="stop-text">{{ wrong }}</span>
  </p>
  <div v-else class="stack">
    <header class="top">
      <div>
        <h1>{{ saw.nickname }}</h1>
        <p>
          <strong>{{ saySawFit(saw) }}</strong> ·
          {{ saw.nosePitchClass ? `nose ${PITCH_PROFILES[saw.nosePitchClass].name}` : 'solid nose, or not looked at' }}
        </p>
      </div>
      <p v-if="saw.gone" class="due">
        {{
          saw.gone.how === 'retired' ? 'It is done with.' : `It is lent out${saw.gone.to ? ` to ${saw.gone.to}` : ''}.`
        }}
      </p>
      <ul v-else-if="saw.due.length > 0" class="due" aria-label="Due on this saw">
        <li v-for="one in saw.due" :key="one">{{ SAW_DUE_WORDS[one] }}</li>
      </ul>
      <p v-else class="soft">Nothing is due on its bar or sprocket.</p>
      <RouterLink
        v-if="session.isLead"
        class="act small no-print"
        :to="{ name: 'addLoop', query: { saw: saw.nickname } }"
        >A loop for this saw</RouterLink
      >
    </header>
    <p v-if="unread.length > 0" class="caution row" role="status">
      <span
        >Nobody has said {{ unread.map((field) => FIT_FIELD_NAMES[field]).join(', ') }}. No loop goes on before it is
        read off: the bar says most of it, if it has not worn off.</span
      >
      <button
        v-if="session.isLead"
        type="button"
        class="act small next"
        :aria-expanded="form === 'read'"
        @click="open('read')"
      >
        Read off …
      </button>
    </p>
    <p v-if="asKept" class="soft">Bar, sprocket and log as this device last heard of them, {{ shed.age() }}.</p>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <OvertakenLine v-for="one in setAside" :key="one.loopId" :loop="one" />

    <div class="two">
      <section class="sheet stack">
        <h2>Bar</h2>
        <dl class="fact-list">
          <template v-if="saw.barStamp"
            ><dt>Stamped</dt>
            <dd class="figures">{{ saw.barStamp }}</dd></template
          >
          <dt>Groove</dt>
          <dd>
            <strong>{{ saw.gaugeUm === null ? 'not known' : writeMm(saw.gaugeUm, 1) }}</strong
            >{{
              answer.state.bar.grooveWidthUm === null
                ? ', wear not measured'
                : `, measured ${writeLength(answer.state.bar.grooveWidthUm, shed.lengths)}`
            }}{{
              answer.state.bar.grooveDepthUm === null
                ? ''
                : `, ${writeLength(answer.state.bar.grooveDepthUm, shed.lengths)} deep`
            }}
          </dd>
          <dt>Rails</dt>
          <dd>{{ answer.state.bar.burrs ? 'burred' : 'no burrs known' }}</dd>
          <dt>Flipped</dt>
          <dd>
            {{ answer.state.bar.flippedAt ? dayOf(answer.state.bar.flippedAt) : 'not since the log began' }}, about
            {{ answer.state.bar.hoursSinceFlip }} h ago by tanks
          </dd>
          <dt>Run</dt>
          <dd>about {{ answer.state.bar.hours }} h</dd>
        </dl>
        <p class="row">
          <button
            type="button"
            class="act"
            :class="{ next: saw.due.some(isFlip) }"
            @click="write({ kind: 'barFlipped' }, 'The bar is flipped')"
          >
            Flipped
          </button>
          <button
            type="button"
            class="act"
            :class="{ next: saw.due.includes('burrs') }"
            @click="write({ kind: 'railsDressed' }, 'The rails are dressed')"
          >
            Rails dressed
          </button>
          <button type="button" class="act" :aria-expanded="form === 'check'" @click="open('check')">Checked …</button>
          <button v-if="session.isLead" type="button" class="act" :aria-expanded="form === 'bar'" @click="open('bar')">
            Another bar …
          </button>
          <button
            v-if="session.isLead && unread.length === 0"
            type="button"
            class="act"
            :aria-expanded="form === 'read'"
            @click="open('read')"
          >
            Put right …
          </button>
        </p>
        <form v-if="form === 'check'" class="stack inner" @submit.prevent="saveCheck">
          <p class="caution">Engine off and cold or battery out, chain off, gloves on: burrs are sharp.</p>
          <FigureField id="width" :figure="width">Groove width</FigureField>
          <FigureField id="depth" :figure="depth">Groove depth</FigureField>
          <p class="row">
            <button
              type="button"
              class="act"
              :aria-pressed="burrs === true"
              @click="burrs = burrs === true ? null : true"
            >
              Burrs</button
            ><button
              type="button"
              class="act"
              :aria-pressed="burrs === false"
              @click="burrs = burrs === false ? null : false"
            >
              No burrs</button
            ><button type="submit" class="act next">Save</button>
          </p>
        </form>
        <form
          v-if="form === 'bar' || form === 'read'"
          class="stack inner"
          @submit.prevent="form === 'bar' ? saveBar() : saveRead()"
        >
          <p class="soft">
            {{
              form === 'bar'
                ? 'Another bar: hours and wear begin anew.'
                : 'The same bar and sprocket as before: their hours and wear stay.'
            }}
          </p>
          <BarStampField
            v-model="bar.stamp"
            field-id="new-bar-stamp"
            :gauge-um="bar.gaugeUm"
            :drive-links="bar.driveLinks"
            @take="takeBar"
          />
          <div class="field">
            <span class="legend">Groove</span
            ><SelectField v-model="bar.gaugeUm" :options="gauges" aria-label="Groove" />
          </div>
          <FigureField id="bar-links" :figure="barLinks" inputmode="numeric" />
          <div class="field">
            <span class="legend">Nose</span><SelectField v-model="bar.nose" :options="noses" aria-label="Nose" />
          </div>
          <div v-if="form === 'read'" class="field">
            <span class="legend">Sprocket</span
            ><SelectField v-model="sprocket" :options="pitches" aria-label="Pitch of the sprocket" />
          </div>
          <button type="submit" class="act next">
            {{ form === 'bar' ? 'It has this bar now' : 'That is what it takes' }}
          </button>
        </form>
      </section>
      <section class="sheet stack">
        <h2>Sprocket</h2>
        <dl class="fact-list">
          <dt>Pitch</dt>
          <dd>
            <strong>{{ saw.pitchClass === null ? 'not known' : PITCH_PROFILES[saw.pitchClass].name }}</strong>
          </dd>
          <dt>Since</dt>
          <dd>{{ answer.state.sprocket.since ? dayOf(answer.state.sprocket.since) : 'before the log began' }}</dd>
          <dt>Run</dt>
          <dd>
            about {{ answer.state.sprocket.hours }} h, {{ answer.state.sprocket.loops }}
            {{ answer.state.sprocket.loops === 1 ? 'loop' : 'loops' }}
          </dd>
          <dt>Loops worn out on it</dt>
          <dd>
            <strong>{{ answer.state.sprocket.loopsWorn }}</strong> of
            {{ SAW_FIGURES.loopsPerSprocket.value.join(' to ') }}
          </dd>
        </dl>
        <svg
          class="worn"
          viewBox="0 0 300 14"
          preserveAspectRatio="none"
          role="img"
          :aria-label="`${answer.state.sprocket.loopsWorn} of ${WORN_OUT} loops worn out`"
        >
          <rect width="300" height="14" class="room" />
          <rect :width="Math.min(1, answer.state.sprocket.loopsWorn / WORN_OUT) * 300" height="14" class="gone" />
          <path d="M200 0V14" class="tick" />
        </svg>
        <p class="soft">
          Common practice: a sprocket goes with two to three loops worn out, so rotate loops on one. Hours are worked
          out from tanks.
        </p>
        <p v-if="session.isLead" class="row">
          <button
            type="button"
            class="act"
            :class="{ next: saw.due.includes('sprocketNow') }"
            :aria-expanded="form === 'sprocket'"
            @click="open('sprocket')"
          >
            Renewed …
          </button>
        </p>
        <form v-if="form === 'sprocket'" class="stack inner" @submit.prevent="saveSprocket">
          <div class="field">
            <span class="legend">Pitch</span
            ><SelectField v-model="sprocket" :options="pitches" aria-label="Pitch of the sprocket" />
          </div>
          <button type="submit" class="act next">It has a new sprocket</button>
        </form>
      </section>
    </div>

    <section id="others" class="sheet stack">
      <h2>{{ on ? 'On it, and what else could be' : 'No loop on it; these could be' }}</h2>
      <div class="loops">
        <div v-if="on" class="one"><LoopTile :loop="on" /><span class="soft">on it now</span></div>
        <div v-for="{ loop, check } in candidates" :key="loop.loopId" class="one">
          <LoopTile :loop="loop" /><span
            ><FitMark :level="check.level" />
            {{ check.level === 'fits' ? FIT_WORDS.fits : `${FIT_WORDS.but} ${check.parts[0]?.reason}` }}</span
          ><button type="button" class="act small" @click="moves.ask([loop.loopId], saw.id)">Put on</button>
        </div>
      </div>
      <p v-if="candidates.length === 0" class="soft">No other loop fits.</p>
    </section>
    <SawItself v-if="session.isLead" :saw="saw" :on-tag="on?.tag ?? null" :write="write" @renamed="follow" />
    <PlatePhotos
      class="sheet"
      :subject="{ sawId: saw.id }"
      :suggestions="['Stamp of the bar', 'Plate of the saw', 'Sprocket']"
    />
    <section class="sheet">
      <h2>Log <span class="soft figures">{{ entries.length }}</span></h2>
      <ol class="log">
        <li v-for="entry in entries" :key="entry.id" :class="{ struck: !counted.has(entry.id) }">
          <time class="figures soft" :datetime="entry.happenedAt">{{ dayOf(entry.happenedAt) }}</time>
          <p>
            {{ saySawEntry(entry, shed.lengths)
            }}<span class="soft">
              {{ entry.personId ? shed.nameOf(entry.personId) : '' }}{{ entry.note ? `: ${entry.note}` : ''
              }}{{ waits.has(entry.id) ? ' · waits on this device' : '' }}</span
            >
          </p>
          <button
            v-if="counted.has(entry.id) && (session.isLead || whyNotStrikeOfSaw(entry, session.asking()) === null)"
            type="button"
            class="act small"
            :aria-label="`Strike out: ${saySawEntry(entry, shed.lengths)}`"
            @click="strikeOut(entry)"
          >
            Strike out
          </button>
        </li>
      </ol>
      <p v-if="entries.length === 0" class="soft">Nothing was logged of its bar or sprocket yet.</p>
    </section>
  </div>
</template>

<style scoped>
.top {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  align-items: center;
}
.top h1 {
  font-size: 2.2rem;
}
.due {
  list-style: none;
  margin: 0;
  padding: 6px 12px;
  border-left: 6px solid var(--work);
  font-weight: 700;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  align-items: start;
}
.fact-list dd {
  font-weight: 400;
}
.inner {
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.worn {
  width: 100%;
  height: 14px;
}
.room {
  fill: none;
  stroke: var(--rule-strong);
  stroke-width: 2;
}
.gone {
  fill: var(--steel);
}
.tick {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 3 2;
}
.loops {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 10px;
}
.one {
  display: grid;
  gap: 4px;
  align-content: start;
  font-size: 0.9rem;
}
.log {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
.log li {
  display: grid;
  grid-template-columns: 108px 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.log .act {
  min-height: var(--target);
}
.struck p {
  text-decoration: line-through;
}
time {
  font-size: 0.85rem;
}
@media (max-width: 900px) {
  .top,
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .log li {
    grid-template-columns: 1fr auto;
  }
  time {
    grid-column: 1 / 3;
    margin-bottom: -8px;
  }
}
</style>
