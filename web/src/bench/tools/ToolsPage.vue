<script setup lang="ts">
import {
  KIT_DUE_WORDS,
  KIT_GONE_WORDS,
  KIT_KIND_WORDS,
  KIT_KINDS,
  kitOf,
  sayDay,
  sayKitItem,
  sayKitUse,
  plural,
  type KitGone,
  type KitItem,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, ref } from 'vue'
import ShedAway from '../../parts/ShedAway.vue'
import { useKit } from '../../remote/kitStore'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import KitForm from './KitForm.vue'
import MountedOn from './MountedOn.vue'

/** What the crew sharpens and measures with: how far each thing is used up, and what calls for something. */
const kit = useKit()
const shed = useShed()
const notices = useNotices()
void kit.load()
/** What the form is open for; undefined while it is closed, null for a new thing. */
const open = ref<KitItem | null | undefined>(undefined)
const groups = computed(() =>
  KIT_KINDS.map((kind) => ({ kind, items: kitOf<typeof kind>(kit.kit, kind) })).filter(({ items }) => items.length > 0),
)
const calling = computed(() => kit.kit.filter(({ id }) => kit.due.has(id)))
const lasts = ({ kind }: KitItem): number => (kind === 'wheel' ? kit.loopsLast : kit.strokesLast)
const use = (item: KitItem): string => sayKitUse(item, kit.usageOf(item.id), lasts(item))
const now = (): string => new Date().toISOString()
async function change(item: KitItem, part: object, said: string): Promise<void> {
  if (await kit.put({ ...item, ...part })) notices.say(`${said}.`, () => kit.put(item))
}
const gone = (item: KitItem, how: KitGone): Promise<void> =>
  change(item, { gone: how }, `${item.name}: ${KIT_GONE_WORDS[how]}`)
/** One out of the pack goes into use. */
async function openOne(item: Extract<KitItem, { kind: 'stock' }>): Promise<void> {
  const { fileUm, left } = item
  const opened = await kit.put({
    id: nanoid(),
    kind: 'file',
    name: `File ${(fileUm / 1000).toFixed(1)}, ${sayDay(now(), shed.dates)}`,
    fileUm,
    openedAt: now(),
  })
  if (opened) await change(item, { left: left - 1 }, `One opened; ${left - 1} left`)
}
const day = (at: string): string => sayDay(at, shed.dates)
</script>

<template>
  <ShedAway v-if="shed.answer === null" />
  <div v-else class="stack">
    <header class="row head">
      <h1>Tools</h1>
      <span class="soft">{{
        calling.length === 0 ? 'Nothing calls for anything.' : `${plural(calling.length, 'thing')} to see to`
      }}</span>
      <button v-if="open === undefined" type="button" class="act small add" @click="open = null">Add to the kit</button>
    </header>
    <p v-if="kit.away" class="soft">
      As this device last heard of it, {{ shed.age() }}. Tools are changed once the shed answers.
    </p>
    <p v-else-if="kit.wrong" class="stop-text" role="alert">{{ kit.wrong }}</p>
    <KitForm v-if="open !== undefined" :key="open?.id ?? 'new'" :item="open" @done="open = undefined" />
    <p v-if="kit.kit.length === 0 && open === undefined" class="sheet">
      Nothing is written down yet. Add the file that is in use, the wheels with the speed that is marked on them, and
      the gauge plates: a sharpening then uses them up, and says when a fresh one pays.
    </p>
    <section v-for="{ kind, items } in groups" :key="kind" class="sheet" :aria-labelledby="`kit-${kind}`">
      <h2 :id="`kit-${kind}`">{{ KIT_KIND_WORDS[kind].all }}</h2>
      <ul>
        <li v-for="item in items" :key="item.id" data-kit-item>
          <div class="what">
            <strong>{{ item.name }}</strong>, {{ sayKitItem(item, shed.figures) }}
            <p v-if="use(item)" class="soft">{{ use(item) }}</p>
            <p v-if="item.kind === 'wheel' && (item.rungAt || item.dressedAt)" class="soft">
              <template v-if="item.rungAt">rang clear {{ day(item.rungAt) }}</template
              ><template v-if="item.rungAt && item.dressedAt">, </template
              ><template v-if="item.dressedAt">dressed {{ day(item.dressedAt) }}</template>
            </p>
            <p v-for="one in kit.due.get(item.id) ?? []" :key="one" class="caution">{{ KIT_DUE_WORDS[one] }}.</p>
            <MountedOn v-if="item.kind === 'grinder'" :grinder="item" />
          </div>
          <div class="row acts">
            <template v-if="item.kind === 'wheel'">
              <button
                type="button"
                class="act small"
                @click="change(item, { rungAt: now() }, `${item.name} rang clear`)"
              >
                Rang clear
              </button>
              <button
                type="button"
                class="act small"
                @click="change(item, { dressedAt: now(), glazed: false }, `${item.name} is dressed`)"
              >
                Dressed
              </button>
              <button
                v-if="item.glazed !== true"
                type="button"
                class="act small"
                @click="change(item, { glazed: true }, `${item.name} is glazed`)"
              >
                Glazed
              </button>
            </template>
            <template v-if="item.kind === 'stock'">
              <button type="button" class="act small" :disabled="item.left === 0" @click="openOne(item)">
                Open one
              </button>
              <button
                type="button"
                class="act small"
                @click="change(item, { left: item.left + 1 }, `${item.left + 1} left`)"
              >
                One more
              </button>
            </template>
            <button
              v-if="item.kind === 'file' || item.kind === 'wheel'"
              type="button"
              class="act small"
              @click="gone(item, 'usedUp')"
            >
              Used up
            </button>
            <button type="button" class="act small" @click="open = item">
              Change<span class="hidden-text"> {{ item.name }}</span>
            </button>
            <button type="button" class="act small" @click="gone(item, 'lost')">
              Gone<span class="hidden-text">: {{ item.name }}</span>
            </button>
          </div>
        </li>
      </ul>
    </section>
    <p class="soft">
      How long files and wheels last is learned from those that were used up; until then it is common practice, about
      2000 strokes for a file.
    </p>
  </div>
</template>

<style scoped>
.head {
  align-items: baseline;
}
.add {
  margin-left: auto;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px 14px;
  align-items: start;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}
.what p {
  margin: 2px 0 0;
}
.acts {
  justify-content: flex-end;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
  .acts {
    justify-content: flex-start;
  }
}
</style>
