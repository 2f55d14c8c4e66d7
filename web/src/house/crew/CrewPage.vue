<script setup lang="ts">
import {
  CUTTER_TYPE_NAMES,
  DATE_ORDERS,
  LENGTH_PREFERENCES,
  PITCH_PROFILES,
  sayDay,
  SEQUENCE_NAMES,
  writeLength,
  type DateOrder,
  type LengthPreference,
} from '@undercliff/core'
import type { CrewChange } from '@undercliff/contract'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { deleteProfile, postBackup, putCrew } from '../../remote/api'
import { useNotices } from '../../remote/notices'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import AsidePanel from './AsidePanel.vue'
import PeoplePanel from './PeoplePanel.vue'
import { heldTexts } from '../../parts/heldTexts'
import RadioChoice from '../../parts/RadioChoice.vue'

const shed = useShed()
const notices = useNotices()
const wrong = ref('')
const session = useSession()
const EXAMPLE_UM = 650
const LABELS: Record<LengthPreference, string> = { mm: 'Millimetres', inch: 'Inches', both: 'Both' }
const DATE_LABELS: Record<DateOrder, string> = {
  dayFirst: 'Day first',
  monthFirst: 'Month first',
  yearFirst: 'Year first',
}
const dateChoices = DATE_ORDERS.map((value) => ({ value, label: DATE_LABELS[value] }))
const lengthChoices = LENGTH_PREFERENCES.map((value) => ({ value, label: LABELS[value] }))
const held = heldTexts(() => ({ name: shed.crew?.name ?? '' }))
const name = computed({
  get: () => held.texts.value.name ?? '',
  set: (text) => (held.texts.value.name = text),
})

const TABLES = [
  { name: 'loops', label: 'Loops' },
  { name: 'saws', label: 'Saws' },
  { name: 'people', label: 'People' },
  { name: 'profiles', label: 'Profiles' },
  { name: 'log', label: 'The log' },
  { name: 'saw-log', label: 'Log of the saws' },
]
const empty = computed(() => shed.loops.length === 0 && shed.saws.length === 0 && shed.people.length <= 1)
const router = useRouter()
/** Backups that were brought back on this page: what they left aside is asked for anew. */
const restored = ref(0)

async function restore(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  if (file === undefined) return
  try {
    const aside = await postBackup(await file.text())
    await shed.load()
    const odd = aside?.rows.length ?? 0
    const but = odd === 1 ? ', but for one row that is set aside' : `, but for ${odd} rows that are set aside`
    notices.say(`The backup is in the shed${odd === 0 ? '' : but}.`)
    await router.push({ name: odd === 0 ? 'shed' : 'crew' })
    restored.value += 1
  } catch (error) {
    wrong.value = (error as Error).message
  } finally {
    input.value = ''
  }
}

async function removeProfile(id: string, called: string): Promise<void> {
  try {
    await deleteProfile(id)
    await shed.load()
    notices.say(`${called} is gone; loops made from it keep their values.`)
  } catch (error) {
    wrong.value = (error as Error).message
  }
}

async function change({
  lengths = shed.lengths,
  dates = shed.dates,
}: Partial<Omit<CrewChange, 'name'>>): Promise<void> {
  try {
    await putCrew({ name: name.value.trim(), lengths, dates })
    await shed.load()
    wrong.value = ''
    notices.say('Changed for the whole crew.')
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
</script>

<template>
  <div v-if="shed.crew" class="crew">
    <div class="stack">
      <form class="sheet stack" @submit.prevent="change({})">
        <h1>{{ shed.crew.name }}</h1>
        <template v-if="session.isLead">
          <div class="field">
            <label for="crew-name">Name</label
            ><NInput v-model:value="name" :maxlength="60" :input-props="{ id: 'crew-name' }" placeholder="" />
          </div>
          <p>
            <button type="submit" class="act small" :disabled="name.trim() === shed.crew.name || name.trim() === ''">
              Save the name
            </button>
          </p>
        </template>
        <fieldset>
          <legend>Lengths are read in</legend>
          <RadioChoice
            v-slot="{ option }"
            label="Lengths are read in"
            :model-value="shed.lengths"
            :options="lengthChoices"
            :disabled="!session.isLead"
            manual
            @update:model-value="(wanted) => wanted && change({ lengths: wanted })"
          >
            {{ option.label }} <span class="figures">{{ writeLength(EXAMPLE_UM, option.value) }}</span>
          </RadioChoice>
          <p class="soft">
            A number typed without a unit is taken in {{ shed.bareUnit === 'inch' ? 'inches' : 'millimetres' }}; a
            fraction is always inches.
          </p>
        </fieldset>
        <fieldset>
          <legend>Days are written</legend>
          <RadioChoice
            v-slot="{ option }"
            label="Days are written"
            :model-value="shed.dates"
            :options="dateChoices"
            :disabled="!session.isLead"
            manual
            @update:model-value="(wanted) => wanted && change({ dates: wanted })"
          >
            {{ option.label }} <span class="figures">{{ sayDay(new Date(), option.value) }}</span>
          </RadioChoice>
        </fieldset>
        <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      </form>
      <section class="sheet stack">
        <h2>How this crew works</h2>
        <p>
          Files, gauges, guides, limits and prices: what the house chooses where crews disagree, shown on one of your
          own loops.
        </p>
        <p class="row">
          <RouterLink class="act small" :to="{ name: 'house' }"
            >House rules <span class="figures">v{{ shed.crew.rules.version }}</span></RouterLink
          ><RouterLink class="act small" :to="{ name: 'wear' }">What wears</RouterLink
          ><RouterLink class="act small" :to="{ name: 'phones' }">Phones</RouterLink>
        </p>
      </section>
    </div>
    <div class="stack">
      <div class="sheet">
        <PeoplePanel v-if="session.isLead" /><template v-else
          ><h2>People</h2>
          <p v-for="person in shed.people" :key="person.id">{{ person.name }}, {{ person.role }}</p></template
        >
      </div>
      <section v-if="shed.profiles.length > 0" class="sheet stack">
        <h2>Profiles of the crew's own</h2>
        <p v-for="profile in shed.profiles" :key="profile.id" class="profile">
          <span
            ><strong>{{ profile.name }}</strong><br /><span class="soft"
              >{{ PITCH_PROFILES[profile.values.pitchClass].name }} ·
              {{ CUTTER_TYPE_NAMES[profile.values.cutterType] }}, {{ SEQUENCE_NAMES[profile.values.sequence] }}</span
            ></span
          ><button
            v-if="session.isLead"
            type="button"
            class="act small"
            :aria-label="`Take away the profile ${profile.name}`"
            @click="removeProfile(profile.id, profile.name)"
          >
            Take away
          </button>
        </p>
      </section>
      <AsidePanel v-if="session.isLead" :key="restored" />
      <section class="sheet stack">
        <h2>In and out</h2>
        <p v-if="session.isLead" class="row">
          <RouterLink class="act small" :to="{ name: 'import' }">Bring in a spreadsheet</RouterLink
          ><a class="act small" href="/api/backup" download>Everything, as one file</a>
        </p>
        <p class="row">
          <a
            v-for="{ name: table, label } in TABLES"
            :key="table"
            class="act small"
            :href="`/api/tables/${table}.csv`"
            download
            >{{ label }} as CSV</a
          >
        </p>
        <p class="soft">Passwords and PINs are in none of these.</p>
        <p v-if="!empty" class="soft" data-back>
          Everything comes back into an empty shed alone, so that nothing here is ever overwritten: start Undercliff on
          a new folder (<code class="command">./start --empty --data</code> and its name), set up, and choose the file
          on this page there.
        </p>
        <div v-if="empty && session.isLead" class="field">
          <label for="backup">Bring back a backup into this empty shed</label>
          <input id="backup" class="plain" type="file" accept="application/json,.json" @change="restore" />
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.crew {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}
.profile {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
@media (max-width: 900px) {
  .crew {
    grid-template-columns: minmax(0, 1fr);
  }
}
.command {
  white-space: nowrap;
}
</style>
