<script setup lang="ts">
import { compareEntries, sayDay, sayEntry, struckOutIds, whyNotStrike, type Entry } from '@undercliff/core'
import { computed, ref, shallowRef } from 'vue'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import CorrectPanel from './CorrectPanel.vue'

const props = defineProps<{ entries: readonly Entry[]; waiting: readonly Entry[] }>()
const emit = defineEmits<{ strike: [string] }>()
const shed = useShed()
const session = useSession()
/** A registration stays; a lead strikes out anything else, others what they wrote or did lately. */
const canStrike = (entry: Entry): boolean =>
  entry.kind !== 'registered' && (session.isLead || whyNotStrike(entry, session.asking()) === null)
const SHORT = 8
const all = ref(false)
const correcting = shallowRef<Entry | null>(null)
const struck = computed(() => struckOutIds(props.entries))
const unsent = computed(() => new Set(props.waiting.map(({ id }) => id)))
const lines = computed(() =>
  props.entries
    .filter(({ kind }) => kind !== 'corrected')
    .sort(compareEntries)
    .reverse(),
)
const shown = computed(() => (all.value ? lines.value : lines.value.slice(0, SHORT)))
const dayOf = (instant: string): string => sayDay(instant, shed.dates)
</script>

<template>
  <section>
    <h2>Log <span class="soft figures">{{ lines.length }}</span></h2>
    <ol>
      <li v-for="entry in shown" :key="entry.id" :class="{ struck: struck.has(entry.id) }" :data-entry="entry.kind">
        <time class="figures" :datetime="entry.happenedAt">{{ dayOf(entry.happenedAt) }}</time>
        <div>
          <p>
            {{ sayEntry(entry, shed.figures, shed.sawName)
            }}<span v-if="unsent.has(entry.id)" class="unsent"> (kept here, not sent yet)</span>
          </p>
          <p class="soft">
            {{ entry.personId === null ? '' : shed.nameOf(entry.personId)
            }}<template v-if="entry.note">{{ entry.personId === null ? '' : ': ' }}{{ entry.note }}</template
            ><template v-if="entry.writtenBy && entry.writtenBy !== entry.personId"
              >{{ entry.personId === null && !entry.note ? 'W' : ' · w' }}ritten by
              {{ shed.nameOf(entry.writtenBy) }}</template
            ><template v-if="struck.has(entry.id)"> Struck out.</template>
          </p>
        </div>
        <span v-if="canStrike(entry) && !struck.has(entry.id)" class="row slips no-print">
          <button
            v-if="entry.kind !== 'decided' && !unsent.has(entry.id)"
            type="button"
            class="act small"
            :aria-label="`Put right: ${sayEntry(entry, shed.figures, shed.sawName)}`"
            @click="correcting = entry"
          >
            Put right …
          </button>
          <button
            type="button"
            class="act small"
            :aria-label="`Strike out: ${sayEntry(entry, shed.figures, shed.sawName)}`"
            @click="emit('strike', entry.id)"
          >
            Strike out
          </button>
        </span>
      </li>
    </ol>
    <button v-if="lines.length > SHORT" type="button" class="act small" :aria-expanded="all" @click="all = !all">
      {{ all ? 'Show the latest' : `Show all ${lines.length}` }}
    </button>
    <CorrectPanel v-if="correcting" :entry="correcting" @close="correcting = null" />
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 108px 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
time {
  font-size: 0.85rem;
  color: var(--ink-soft);
}
.struck p:first-child {
  text-decoration: line-through;
}
.unsent {
  font-weight: 700;
}
li .soft {
  font-size: 0.9rem;
}
.slips {
  gap: 6px;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
  time {
    margin-bottom: -8px;
  }
}
</style>
