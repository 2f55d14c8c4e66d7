<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import {
  BENCH_FIGURES,
  CUTTER_TYPES,
  CUTTER_TYPE_NAMES,
  fileFor,
  fitCheck,
  gaugeCandidates,
  identifyPitch,
  likelyDriveLinks,
  ORIGIN_WORDS,
  originOf,
  PITCH_PROFILES,
  readLength,
  sayCandidate,
  sayFile,
  sayGauge,
  sayNext,
  sayProbability,
  stampedGauge,
  SEQUENCES,
  SEQUENCE_NAMES,
  specFromProfile,
  specLine,
  topPlateAngleFor,
  nameFile,
  writeLength,
  writeMm,
  type Clues,
  type CutterBuild,
  type CutterType,
  type Instrument,
  type Reading,
  type Sequence,
} from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { addLoopForm, EMPTY_LOOP } from '../add/addLoopForm'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import BuildDrawing from './BuildDrawing.vue'
import CornerDrawing from './CornerDrawing.vue'
import MeasuredField from './MeasuredField.vue'
import RadioChoice from '../../parts/RadioChoice.vue'

const BUILDS = [
  { value: 'low', label: 'Low' },
  { value: 'tall', label: 'Tall' },
] as const
const cutterTypes = CUTTER_TYPES.map((value) => ({ value, label: CUTTER_TYPE_NAMES[value] }))
const sequences = SEQUENCES.map((value) => ({ value, label: SEQUENCE_NAMES[value] }))
const SEQUENCE_HINTS: Record<Sequence, string> = {
  full: 'a cutter every second drive link',
  semiSkip: 'gaps take turns',
  fullSkip: 'a cutter every third',
}
const shed = useShed()
const router = useRouter()
const session = useSession()
const EMPTY = {
  span: '',
  spanBy: 'caliper' as Instrument,
  thickness: '',
  thicknessBy: 'caliper' as Instrument,
  build: null as CutterBuild | null,
  links: '',
  bar: '',
  cutterType: null as CutterType | null,
  sequence: 'full' as Sequence,
}
const form = useSessionStorage('undercliff:identify', { ...EMPTY })

function read(text: string, instrument: Instrument): Reading | undefined {
  const reading = readLength(text, shed.bareUnit)
  if (text.trim() === '' || !reading.ok) return undefined
  return { um: reading.um, instrument: reading.fraction ? 'ruler' : instrument }
}
/** What is stamped on links is a gauge by itself, and no thickness that was measured. */
const stamped = computed(() => stampedGauge(form.value.thickness))
const thickness = computed((): Reading | undefined =>
  stamped.value === null
    ? read(form.value.thickness, form.value.thicknessBy)
    : { um: stamped.value, instrument: 'caliper' },
)
const clues = computed((): Clues => {
  const span = read(form.value.span, form.value.spanBy)
  return {
    ...(span === undefined ? {} : { span }),
    ...(thickness.value === undefined ? {} : { thickness: thickness.value }),
    ...(form.value.build === null ? {} : { build: form.value.build }),
  }
})
const pitch = computed(() => identifyPitch(clues.value))
const gauge = computed(() => (thickness.value === undefined ? null : gaugeCandidates(thickness.value)))
const best = computed(() => (pitch.value.ok && pitch.value.likely ? (pitch.value.candidates[0] ?? null) : null))
const byRuler = computed(() => pitch.value.ok && !pitch.value.sure)
/** Both gauges that it may be; which of them the groove says, or whoever knows the bar. */
const either = computed(() =>
  stamped.value === null && gauge.value?.ok === true && !gauge.value.sure && !gauge.value.between
    ? gauge.value.candidates.slice(0, 2).map(({ gaugeUm: um }) => ({ value: um, label: writeMm(um, 1) }))
    : [],
)
const picked = ref<number | null>(null)
const gaugeUm = computed(() => {
  if (stamped.value !== null) return stamped.value
  if (gauge.value?.ok === true && gauge.value.sure) return gauge.value.candidates[0]?.gaugeUm ?? null
  return either.value.some(({ value }) => value === picked.value) ? picked.value : null
})
const links = computed(() => (/^\d{2,3}$/.test(form.value.links.trim()) ? Number(form.value.links) : null))
const likely = computed(() => {
  const bar = read(form.value.bar, 'ruler')
  return bar === undefined || best.value === null
    ? null
    : likelyDriveLinks(bar.um, PITCH_PROFILES[best.value.pitchClass].pitchUm.value)
})
const spec = computed(() =>
  best.value === null || gaugeUm.value === null || links.value === null || links.value < 20 || links.value > 250
    ? null
    : specFromProfile({
        pitchClass: best.value.pitchClass,
        gaugeUm: gaugeUm.value,
        driveLinks: links.value,
        cutterType: form.value.cutterType ?? 'semiChisel',
        sequence: form.value.sequence,
      }),
)
const rules = computed(() => shed.rules)
const file = computed(() =>
  fileFor(
    spec.value ??
      specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' }),
    spec.value?.newLengthUm ?? 0,
    rules.value.fileSchool,
  ),
)
const wheel = computed(() =>
  spec.value === null
    ? ''
    : PITCH_PROFILES[spec.value.pitchClass].wheelUm.value
        .map((um) => writeMm(um, 1))
        .filter((one, i, all) => all.indexOf(one) === i)
        .join(' to '),
)
const saws = computed(() => {
  const { value } = spec
  if (value === null) return []
  return shed.saws
    .map((saw) => ({ saw, check: fitCheck(value, saw, saw) }))
    .filter(({ check }) => check.level !== 'mustNot')
})
const alike = computed(() =>
  shed.loops.filter(
    (loop) =>
      spec.value !== null &&
      !loop.retired &&
      specLine(loop.spec) === specLine(spec.value) &&
      (form.value.cutterType === null || loop.spec.cutterType === form.value.cutterType),
  ),
)
const missing = computed(() => {
  if (best.value === null || gaugeUm.value === null) return sayNext(pitch.value, shed.lengths)
  if (links.value === null) return 'Next: count the drive links.'
  if (spec.value === null) return 'A loop has 20 to 250 drive links.'
  return form.value.cutterType === null ? 'Next: the shape of the corner.' : ''
})

async function add(): Promise<void> {
  if (spec.value === null) return
  const { pitchClass, driveLinks, sequence } = spec.value
  addLoopForm().form.value = {
    ...EMPTY_LOOP,
    pitchClass,
    gaugeUm: spec.value.gaugeUm,
    driveLinks: String(driveLinks),
    cutterType: form.value.cutterType,
    sequence,
    measured: [
      ...(byRuler.value ? [] : ['pitchClass' as const]),
      ...(stamped.value === null ? ['gaugeUm' as const] : []),
      'driveLinks',
    ],
  }
  form.value = { ...EMPTY }
  await router.push({ name: 'addLoop' })
}
</script>

<template>
  <div class="desk">
    <section class="sheet log-form">
      <h1>Which chain is this?</h1>
      <p class="caution">Off the saw, cleaned, gloves on.</p>
      <p v-if="missing" class="next guide">{{ missing }}</p>
      <MeasuredField
        id="span"
        v-model:text="form.span"
        v-model:instrument="form.spanBy"
        label="Span over three rivets"
        hint="Centre of a rivet to the centre of the next but one. One gap is not enough: they are not even."
      />
      <MeasuredField
        id="thickness"
        v-model:text="form.thickness"
        v-model:instrument="form.thicknessBy"
        label="Thickness of a drive link"
        hint="The tang that runs in the bar groove."
      />
      <fieldset v-if="either.length > 0" data-either>
        <legend>Which of them? The groove of its bar tells.</legend>
        <RadioChoice v-model="picked" label="Gauge" :options="either" clearable />
      </fieldset>
      <fieldset>
        <legend>The cutter beside its links</legend>
        <RadioChoice
          v-model="form.build"
          v-slot="{ option }"
          label="The cutter beside its links"
          :options="BUILDS"
          clearable
          option-class="act drawn"
          class="row"
        >
          <BuildDrawing :build="option.value" />{{ option.label }}
        </RadioChoice>
      </fieldset>
      <div class="field">
        <label for="links">Drive links, counted</label>
        <div class="row">
          <NInput
            v-model:value="form.links"
            class="short"
            :input-props="{ id: 'links', inputmode: 'numeric' }"
            placeholder=""
          /><span class="soft">or the bar's cutting length:</span
          ><NInput
            v-model:value="form.bar"
            class="short"
            :input-props="{ 'aria-label': 'Cutting length of the bar', inputmode: 'decimal' }"
            placeholder="20 in"
          />
        </div>
        <p v-if="likely" class="soft">
          A bar like that takes {{ likely.least }} to {{ likely.most }} links at this pitch. Count them all the same.
        </p>
      </div>
      <fieldset>
        <legend>The corner, from in front</legend>
        <RadioChoice
          v-model="form.cutterType"
          v-slot="{ option }"
          label="Cutter type"
          :options="cutterTypes"
          option-class="act drawn"
          class="row"
        >
          <CornerDrawing :type="option.value" />{{ option.label }}
        </RadioChoice>
      </fieldset>
      <fieldset>
        <legend>How the cutters follow each other</legend>
        <RadioChoice v-model="form.sequence" v-slot="{ option }" label="Sequence" :options="sequences">
          <span>{{ option.label }}<br /><small>{{ SEQUENCE_HINTS[option.value] }}</small></span>
        </RadioChoice>
      </fieldset>
    </section>

    <aside class="sheet found" aria-live="polite">
      <h2>
        {{ best ? `${PITCH_PROFILES[best.pitchClass].name}${byRuler ? ', by ruler' : ''}` : 'Not told apart yet' }}
      </h2>
      <p v-if="missing" class="next">{{ missing }}</p>
      <ol v-if="pitch.ok && clues.span">
        <li
          v-for="candidate in pitch.candidates.filter(({ probability }) => probability >= 0.005)"
          :key="candidate.pitchClass"
        >
          <strong>{{ PITCH_PROFILES[candidate.pitchClass].name }}</strong> {{ sayProbability(candidate.probability) }}
          <span class="bar" :style="{ width: `${candidate.probability * 100}%` }" />
          <span class="soft">{{ sayCandidate(candidate, shed.lengths) }}</span>
        </li>
      </ol>
      <p v-if="gauge">
        <strong>{{ sayGauge(gauge) }}</strong>
      </p>
      <template v-if="spec">
        <h3>{{ specLine(spec) }}</h3>
        <dl class="fact-list">
          <dt>File</dt>
          <dd>
            {{ nameFile(file) }}
            <small>{{ ORIGIN_WORDS[originOf(spec, 'fileUm')] }}; {{ sayFile(file) }}</small>
          </dd>
          <dt>Wheel</dt>
          <dd>{{ wheel }} <small>{{ ORIGIN_WORDS[PITCH_PROFILES[spec.pitchClass].wheelUm.origin] }}</small></dd>
          <dt>Top plate</dt>
          <dd>
            {{ topPlateAngleFor(spec, rules.chiselAngleDeg) }}°
            <small>{{
              spec.cutterType === 'fullChisel' ? 'house rule' : ORIGIN_WORDS[originOf(spec, 'topPlateAngleDeg')]
            }}</small>
          </dd>
          <dt>Head tilt</dt>
          <dd>
            {{ BENCH_FIGURES.headTiltDeg.value.join('° or ') }}°
            <small>{{ ORIGIN_WORDS[BENCH_FIGURES.headTiltDeg.origin] }}</small>
          </dd>
          <dt>Gauges</dt>
          <dd>
            {{ writeLength(spec.settingUm, 'both') }} <small>{{ ORIGIN_WORDS[originOf(spec, 'settingUm')] }}</small>
          </dd>
          <dt>Pitch</dt>
          <dd>
            {{ PITCH_PROFILES[spec.pitchClass].name }}
            <small>{{
              byRuler ? 'likely, by ruler: check it with a caliper' : 'worked out from what was measured'
            }}</small>
          </dd>
          <dt>Gauge</dt>
          <dd>
            {{ writeMm(spec.gaugeUm, 1) }}
            <small>{{
              stamped !== null || thickness === undefined
                ? 'stamped'
                : `the nearest to ${writeLength(thickness.um, shed.lengths)} measured`
            }}</small>
          </dd>
          <dt>Links</dt>
          <dd>{{ spec.driveLinks }} <small>counted</small></dd>
        </dl>
        <p class="soft">The box or the maker's sheet wins over common practice.</p>
        <p>
          <strong>Fits</strong>
          {{
            saws.length === 0
              ? 'no saw of yours'
              : saws
                  .map(({ saw, check }) =>
                    check.level === 'fits' ? saw.nickname : `${saw.nickname}, but ${check.parts[0]?.reason}`,
                  )
                  .join('; ')
          }}
        </p>
        <p v-if="alike.length > 0">
          <strong>Is it one of these?</strong>{{ ' ' }}
          <RouterLink
            v-for="loop in alike"
            :key="loop.loopId"
            class="tag figures"
            :to="{ name: 'loop', params: { tag: loop.tag } }"
            >{{ loop.tag }}</RouterLink
          >
        </p>
        <button
          v-if="session.isLead"
          type="button"
          class="act next-step"
          :class="{ next: form.cutterType !== null }"
          @click="add"
        >
          Add it as a new loop
        </button>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.drawn {
  flex-direction: column;
  padding: 8px 12px;
  font-size: 0.92rem;
}
.short {
  max-width: 120px;
}
small {
  font-weight: 400;
}
.found {
  display: grid;
  gap: 10px;
  align-content: start;
}
.next {
  border-left: 6px solid var(--work);
  padding: 4px 10px;
  font-weight: 700;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
.bar {
  display: block;
  height: 8px;
  min-width: 2px;
  background: var(--steel);
  margin: 3px 0;
}
dd small {
  font-weight: 400;
  color: var(--ink-soft);
  font-size: 0.82rem;
  display: block;
  line-height: 1.25;
}
.guide {
  display: none;
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--sheet);
}
@media (max-width: 900px) {
  .guide {
    display: block;
  }
}
.tag {
  display: inline-block;
  padding: 10px 8px;
  font-weight: 700;
}
</style>
