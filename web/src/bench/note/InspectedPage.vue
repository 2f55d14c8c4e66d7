<script setup lang="ts">
import {
  capital,
  CUTTER_DAMAGE,
  CUTTER_DAMAGE_KINDS,
  damageName,
  PART_DAMAGE_KINDS,
  sayDamage,
  URGENCY_WORDS,
  type CutterDamage,
  type CutterDamageKind,
  type CutterReading,
  type PartDamage,
  type PartDamageKind,
} from '@undercliff/core'
import { NInput } from 'naive-ui'
import { ref, watch } from 'vue'
import { readTyped } from '../../parts/readTyped'
import { useLoop } from '../../remote/loopStore'
import { useShed } from '../../remote/shedStore'
import { readCutterNumbers } from './cutterNumbers'
import NoteForm from './NoteForm.vue'
import type { NoteBody } from './noteBody'
import SelectField from '../../parts/SelectField.vue'

/** What a look at the whole loop found: damaged cutters, and straps, drive links and rivets. */
defineProps<{ tag: string }>()
const loop = useLoop()
const shed = useShed()
const wrong = ref('')
const damageKind = ref<CutterDamageKind>('chipped')
const damageCutters = ref('')
const damageDepth = ref('')
const found = ref<{ numbers: number[]; damage: CutterDamage }[]>([])
const partKind = ref<PartDamageKind>('strapCut')
const parts = ref<PartDamage[]>([])
watch(
  () => loop.state?.parts,
  (known) => {
    parts.value = [...(known ?? [])]
  },
  { immediate: true },
)
const cutterOptions = CUTTER_DAMAGE_KINDS.map((value) => ({ value, label: damageName(value) }))
const partOptions = PART_DAMAGE_KINDS.map((value) => ({ value, label: damageName(value) }))

/** Takes what stands in the fields; says what is wrong with it, or nothing. */
function takeFound(): string {
  const numbers = readCutterNumbers(damageCutters.value, loop.state?.cutters.length ?? 0)
  if (typeof numbers === 'string') return numbers
  const reaches = CUTTER_DAMAGE[damageKind.value].effect === 'depth'
  const depthUm = reaches ? readTyped(damageDepth.value, 'Depth', shed.bareUnit) : null
  if (typeof depthUm === 'string') return depthUm
  found.value = [...found.value, { numbers, damage: { kind: damageKind.value, depthUm } }]
  damageCutters.value = ''
  damageDepth.value = ''
  return ''
}
const addFound = (): void => {
  wrong.value = takeFound()
}

/** What was found, added to what was known of each cutter. */
function readings(): CutterReading[] {
  const byCutter = new Map<number, CutterDamage[]>()
  for (const { numbers, damage } of found.value) {
    for (const number of numbers) {
      const before = byCutter.get(number) ?? [...(loop.state?.cutters[number - 1]?.damage ?? [])]
      byCutter.set(number, [...before.filter(({ kind }) => kind !== damage.kind), damage])
    }
  }
  return [...byCutter].map(([cutter, damage]) => ({ cutter, damage }))
}

function body(): NoteBody | string {
  // What was typed and not added yet is meant too.
  const unread = damageCutters.value.trim() === '' ? '' : takeFound()
  return unread === '' ? { kind: 'inspected', readings: readings(), parts: parts.value } : unread
}
</script>

<template>
  <NoteForm :tag="tag" title="Log an inspection of" save="Log the inspection" :body="body">
    <p class="caution">
      Engine off or battery out, brake on, gloves on. Look at working corners first, then straps, rivets, drive links
      and bumpers. A sharp edge throws no light.
    </p>
    <fieldset class="stack">
      <legend>Damaged cutters</legend>
      <ul v-if="found.length > 0">
        <li v-for="({ numbers, damage }, i) in found" :key="i">
          {{ sayDamage(damage, shed.lengths) }} on
          {{ numbers.join(', ') }}
          <button type="button" class="act small" @click="found.splice(i, 1)">Remove</button>
        </li>
      </ul>
      <div class="abreast">
        <SelectField v-model="damageKind" :options="cutterOptions" aria-label="Kind of damage" />
        <NInput
          v-model:value="damageCutters"
          placeholder="Cutters: 5-9, 12"
          :input-props="{ 'aria-label': 'Damaged cutters' }"
        />
        <NInput
          v-if="CUTTER_DAMAGE[damageKind].effect === 'depth'"
          v-model:value="damageDepth"
          placeholder="Depth, if measured"
          :input-props="{ 'aria-label': 'Depth' }"
        />
        <button type="button" class="act small" @click="addFound">Add</button>
      </div>
      <p class="soft">
        {{ capital(damageName(damageKind)) }}: {{ URGENCY_WORDS[CUTTER_DAMAGE[damageKind].urgency]
        }}{{ CUTTER_DAMAGE[damageKind].fileBites ? '' : '; a file skates on it'
        }}{{ CUTTER_DAMAGE[damageKind].effect === 'depth' ? '; the edge has to be taken back behind it' : '' }}.
      </p>
    </fieldset>
    <fieldset class="stack">
      <legend>Straps, drive links, rivets</legend>
      <ul v-if="parts.length > 0">
        <li v-for="(part, i) in parts" :key="i">
          {{ damageName(part.kind) }}
          <button type="button" class="act small" @click="parts.splice(i, 1)">Remove</button>
        </li>
      </ul>
      <p v-else class="soft">Nothing found</p>
      <div class="abreast">
        <SelectField v-model="partKind" :options="partOptions" aria-label="Damage to a part" /><button
          type="button"
          class="act small"
          @click="parts.push({ kind: partKind, nearCutter: null })"
        >
          Add
        </button>
      </div>
    </fieldset>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
  </NoteForm>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 1.1em;
}
</style>
