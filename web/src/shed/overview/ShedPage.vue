<script setup lang="ts">
import { onKeyStroke, useMediaQuery } from '@vueuse/core'
import { ACTION_WORDS, ACTIONS, PITCH_PROFILES, placeWord, type Action, type LoopCard } from '@undercliff/core'
import { computed, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useShed } from '../../remote/shedStore'
import ChosenBar from '../../move/ChosenBar.vue'
import { useMoves } from '../../move/moveStore'
import { useChosen } from '../../parts/chosenStore'
import PlaceStrip from '../../move/PlaceStrip.vue'
import VerdictMark from '../../parts/VerdictMark.vue'
import { isTyping } from '../../parts/typing'
import { useSession } from '../../remote/sessionStore'
import LoopTile from '../../parts/LoopTile.vue'
import NextUp from './NextUp.vue'
import OnSaws from './OnSaws.vue'
import { LINES, useOverview } from './overviewStore'
import SawLine from './SawLine.vue'
import ShedAway from '../../parts/ShedAway.vue'

const shed = useShed()
const session = useSession()
const moves = useMoves()
const chosen = useChosen()
const route = useRoute()
const router = useRouter()
const overview = useOverview()
/** In the hand what is on the saws comes first, with its quick log. */
const phone = useMediaQuery('(max-width: 700px)')
/** What is known is painted first, and then asked for anew. */
if (shed.answer === null) void shed.look()
else onMounted(() => requestAnimationFrame(() => setTimeout(() => void shed.look())))

const queryText = (key: string): string => (typeof route.query[key] === 'string' ? route.query[key] : '')
/** What is searched and filtered stands in the address, so that Back and a reload keep it. */
const setQuery = (changes: Record<string, string>): void => {
  const query = { ...route.query, ...changes }
  void router.replace({ query: Object.fromEntries(Object.entries(query).filter(([, value]) => value !== '')) })
}
const search = computed({
  get: () => queryText('find'),
  set: (find: string) => {
    setQuery({ find })
  },
})
const only = computed({
  get: () => queryText('verdict'),
  set: (verdict: string) => {
    setQuery({ verdict })
  },
})

const place = computed({
  get: () => queryText('place'),
  set: (at: string) => {
    setQuery({ place: at })
  },
})

const live = computed(() => shed.loops.filter(({ retired }) => !retired))
const counts = computed(() => {
  const counted = new Map<Action, number>()
  for (const { action } of live.value) counted.set(action, (counted.get(action) ?? 0) + 1)
  return ACTIONS.map((action) => ({ action, count: counted.get(action) ?? 0 })).filter(({ count }) => count > 0)
})
/** The gravest verdicts have a button; the rest, and whatever is chosen of them, come with one tap. */
const GRAVEST = 3
const verdicts = computed(() =>
  overview.allFilters
    ? counts.value
    : counts.value.filter(({ action }, i) => (!phone.value && i < GRAVEST) || action === only.value),
)

const words = computed(() => search.value.toLowerCase().split(/\s+/).filter(Boolean))
/** What is searched of each loop, worked out once for each answer of the shed. */
const texts = computed(
  () =>
    new Map(
      live.value.map((loop) => {
        const { spec, tag, sawId, action } = loop
        return [
          loop.loopId,
          [
            tag,
            sawId === null ? '' : shed.sawName(sawId),
            placeWord(loop.place),
            PITCH_PROFILES[spec.pitchClass].name,
            ACTION_WORDS[action],
            String(spec.driveLinks),
          ]
            .join(' ')
            .toLowerCase(),
        ]
      }),
    ),
)
const found = (loop: LoopCard): boolean =>
  (only.value === '' || loop.action === only.value) &&
  (place.value === '' || loop.place.at === place.value) &&
  words.value.every((word) => texts.value.get(loop.loopId)?.includes(word))
const filtering = computed(() => only.value !== '' || place.value !== '' || words.value.length > 0)
const hits = computed(() => (filtering.value ? live.value.filter(found) : live.value))
const grouped = computed(() => shed.grouped)
/** What is drawn: everything, or the lines in which something was found. */
const shownGroups = computed(() => {
  if (!filtering.value) return grouped.value.groups
  const hit = new Set(hits.value.map(({ loopId }) => loopId))
  return grouped.value.groups
    .map((group) => ({
      ...group,
      saws: group.saws.filter(({ loop }) => loop !== null && hit.has(loop.loopId)),
      beside: group.beside.filter(({ loop }) => hit.has(loop.loopId)),
    }))
    .filter((group) => group.saws.length > 0 || group.beside.length > 0)
})
const shownHomeless = computed(() => (filtering.value ? grouped.value.homeless.filter(found) : grouped.value.homeless))
/** Loops drawn beside a saw before somebody asks for the rest, so that a long shed stays quick. */
const BESIDE = 6
/** Lines drawn at once, and then a few with each frame, up to what was asked for. */
const FIRST_LINES = 3
const LINES_A_FRAME = 3
const besideOf = <T>(key: string, loops: readonly T[]): readonly T[] =>
  overview.opened.has(key) ? loops : loops.slice(0, BESIDE)
const linesShown = ref(FIRST_LINES)
let nextFrame = 0
const drawMore = (): void => {
  if (linesShown.value >= overview.lines) return
  linesShown.value += LINES_A_FRAME
  nextFrame = requestAnimationFrame(drawMore)
}
/** The first lines now, the rest once they are painted. */
function drawAnew(): void {
  cancelAnimationFrame(nextFrame)
  linesShown.value = Math.min(linesShown.value, FIRST_LINES)
  nextFrame = requestAnimationFrame(() => {
    nextFrame = requestAnimationFrame(drawMore)
  })
}
const drawFurther = (): void => {
  overview.lines += LINES
  linesShown.value += LINES
}
onMounted(drawAnew)
onUnmounted(() => {
  cancelAnimationFrame(nextFrame)
})
watch([words, only, place], drawAnew)
const choose = (action: Action): void => {
  only.value = only.value === action ? '' : action
}

const searchField = ref<HTMLInputElement | null>(null)
onKeyStroke('f', (event) => {
  if (isTyping(event)) return
  event.preventDefault()
  searchField.value?.focus()
})

/** The tile nearest in a direction, as the eye would go. */
function step(from: HTMLElement, key: string): HTMLElement | undefined {
  const a = from.getBoundingClientRect()
  const across = key === 'ArrowLeft' || key === 'ArrowRight'
  const sign = key === 'ArrowRight' || key === 'ArrowDown' ? 1 : -1
  let best: HTMLElement | undefined
  let least = Infinity
  for (const tile of document.querySelectorAll<HTMLElement>('[data-loop-tile]')) {
    const b = tile.getBoundingClientRect()
    const along = (across ? b.left - a.left : b.top - a.top) * sign
    const aside = Math.abs(across ? b.top - a.top : b.left - a.left)
    if (along < 10 || (across && aside > 30)) continue
    const distance = along + aside * 2
    if (distance < least) {
      least = distance
      best = tile
    }
  }
  return best
}
onKeyStroke('t', (event) => {
  if (isTyping(event) || event.ctrlKey || event.metaKey || moves.asked !== null) return
  event.preventDefault()
  void router.push({ name: 'triage' })
})
/** On a loop: one key chooses it, one asks where it goes. */
onKeyStroke(['p', 'x'], (event) => {
  const here = document.activeElement
  const loopId = here instanceof HTMLElement ? here.dataset.loopId : undefined
  if (isTyping(event) || event.ctrlKey || event.metaKey || moves.asked !== null) return
  if (event.key === 'x' && loopId !== undefined) chosen.toggle(loopId)
  else if (event.key === 'p' && loopId !== undefined) moves.ask(chosen.withOthers(loopId))
  else if (event.key === 'p' && chosen.ids.size > 0) moves.ask([...chosen.ids])
  else return
  event.preventDefault()
})
onKeyStroke(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'], (event) => {
  const here = document.activeElement
  const onTile = here instanceof HTMLElement && here.matches('[data-loop-tile]')
  const fromSearch = here === searchField.value && event.key === 'ArrowDown'
  if (!onTile && !fromSearch && isTyping(event)) return
  const next = onTile ? step(here, event.key) : document.querySelector<HTMLElement>('[data-loop-tile]')
  if (next === undefined || next === null) return
  event.preventDefault()
  next.focus()
})
</script>

<template>
  <ShedAway v-if="shed.answer === null" />
  <div v-else-if="shed.saws.length === 0 && shed.loops.length === 0" class="sheet stack">
    <h1>The shed is empty</h1>
    <template v-if="session.isLead">
      <p>
        Begin with a saw: its bar says which loops fit. Then add the loops that go on it. A list that you keep in a
        spreadsheet comes in all at once.
      </p>
      <p class="row">
        <RouterLink class="act next" :to="{ name: 'addSaw' }">Add a saw</RouterLink
        ><RouterLink class="act" :to="{ name: 'addLoop' }">Add a loop</RouterLink
        ><RouterLink class="act" :to="{ name: 'import' }">Bring in a spreadsheet</RouterLink
        ><RouterLink class="act" :to="{ name: 'crew' }">Bring back a backup</RouterLink>
      </p>
    </template>
    <p v-else>A lead has to add the saws and loops first.</p>
  </div>
  <template v-else>
    <NextUp />
    <OnSaws v-if="phone && !filtering" :groups="grouped.groups" />
    <div class="tools no-print">
      <label class="find"
        ><span class="hidden-text">Find loops in the list</span
        ><input ref="searchField" v-model="search" type="search" placeholder="Find" /><kbd class="keys-only"
          >f</kbd
        ></label
      >
      <div v-if="verdicts.length > 0" class="filters" role="group" aria-label="Filter by verdict">
        <button
          v-for="{ action, count } in verdicts"
          :key="action"
          type="button"
          class="act small"
          :aria-pressed="only === action"
          @click="choose(action)"
        >
          <VerdictMark v-if="only !== action" :action="action" /> {{ ACTION_WORDS[action] }}
          <span class="figures">{{ count }}</span>
        </button>
      </div>
      <button
        type="button"
        class="act small quiet"
        :aria-expanded="overview.allFilters"
        @click="overview.allFilters = !overview.allFilters"
      >
        {{ overview.allFilters ? 'Fewer' : phone ? 'Filter' : 'More' }}
      </button>
      <PlaceStrip
        v-if="!phone || overview.allFilters || place !== ''"
        :loops="live"
        :only="place"
        @choose="place = place === $event ? '' : $event"
      />
      <button
        v-if="!phone || overview.allFilters || chosen.choosing"
        type="button"
        class="act small quiet"
        :aria-pressed="chosen.choosing"
        @click="chosen.choosing ? chosen.clear() : (chosen.choosing = true)"
      >
        Choose …
      </button>
      <p v-if="filtering" class="soft status" role="status">
        {{ hits.length }} of {{ live.length }} loops
        <button type="button" class="act small quiet" @click="setQuery({ find: '', verdict: '', place: '' })">
          Show all
        </button>
        <button type="button" class="act small quiet" @click="chosen.choose(hits.map(({ loopId }) => loopId))">
          Choose these
        </button>
      </p>
    </div>

    <section class="ledger" aria-label="Saws and loops">
      <div class="line head" aria-hidden="true"><span>Saw</span><span>On it</span><span>Fits, beside it</span></div>
      <div v-for="group in shownGroups.slice(0, linesShown)" :key="group.key" class="line">
        <div v-if="phone && !filtering" class="pairs">
          <h2>
            {{ group.saws.map(({ saw }) => saw.nickname).join(', ') }} <span class="soft spec">{{ group.spec }}</span>
          </h2>
        </div>
        <div v-else class="pairs">
          <SawLine v-for="{ saw, loop } in group.saws" :key="saw.id" :saw="saw" :spec="group.spec" :loop="loop" />
        </div>
        <div class="beside">
          <LoopTile
            v-for="{ loop, level } in besideOf(group.key, group.beside)"
            :key="loop.loopId"
            :loop="loop"
            :drawback="level === 'but'"
          />
          <button
            v-if="group.beside.length > BESIDE && !overview.opened.has(group.key)"
            type="button"
            class="act small"
            @click="overview.opened.add(group.key)"
          >
            {{ group.beside.length - BESIDE }} more
          </button>
          <p v-if="group.beside.length === 0" class="bare soft">{{ filtering ? '' : 'No spare' }}</p>
        </div>
      </div>
      <button
        v-if="linesShown >= overview.lines && shownGroups.length > linesShown"
        type="button"
        class="act more"
        @click="drawFurther"
      >
        {{ shownGroups.length - linesShown }} more kinds of saw
      </button>
      <div v-if="shownHomeless.length > 0" class="line">
        <div class="saw"><h2>No saw takes these</h2></div>
        <div class="beside">
          <LoopTile v-for="loop in besideOf('homeless', shownHomeless)" :key="loop.loopId" :loop="loop" />
          <button
            v-if="shownHomeless.length > BESIDE && !overview.opened.has('homeless')"
            type="button"
            class="act small"
            @click="overview.opened.add('homeless')"
          >
            {{ shownHomeless.length - BESIDE }} more
          </button>
        </div>
      </div>
    </section>
    <p class="row foot no-print">
      <RouterLink class="act small" :to="{ name: 'identify' }">Which chain is this?</RouterLink>
      <RouterLink v-if="session.isLead" class="act small" :to="{ name: 'addLoop' }">Add a loop</RouterLink>
      <RouterLink v-if="session.isLead" class="act small" :to="{ name: 'addSaw' }">Add a saw</RouterLink>
      <RouterLink class="act small" :to="{ name: 'tags' }">Print tags</RouterLink>
      <RouterLink v-if="session.isLead" class="act small" :to="{ name: 'import' }">Bring in a spreadsheet</RouterLink>
      <span v-if="grouped.gone.length > 0" class="soft gone"
        >Not here:
        <span v-for="{ saw, loop } in grouped.gone" :key="saw.id"
          ><RouterLink :to="{ name: 'saw', params: { nickname: saw.nickname } }">{{ saw.nickname }}</RouterLink>
          {{ saw.gone?.how === 'retired' ? 'done with' : `lent${saw.gone?.to ? ` to ${saw.gone.to}` : ' out'}`
          }}<template v-if="loop"
            >, with <RouterLink :to="{ name: 'loop', params: { tag: loop.tag } }">{{ loop.tag }}</RouterLink></template
          >
        </span>
      </span>
      <span v-if="grouped.retired.length > 0" class="soft"
        >Retired:
        <RouterLink
          v-for="loop in grouped.retired"
          :key="loop.loopId"
          :to="{ name: 'loop', params: { tag: loop.tag } }"
          >{{ loop.tag }}</RouterLink
        >
      </span>
    </p>
    <ChosenBar />
  </template>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-bottom: 4px;
}
.find {
  position: relative;
  display: flex;
  align-items: center;
  flex: 0 1 120px;
  min-width: 110px;
}
.find input {
  width: 100%;
  min-height: var(--target);
  padding: 4px 12px;
  border: 2px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  font: 400 1rem var(--text);
}
.find kbd {
  position: absolute;
  right: 10px;
}
.filters {
  display: flex;
  gap: 5px;
  flex-wrap: wrap;
}
.filters .act {
  padding: 4px 7px;
  gap: 5px;
  font-size: 0.84rem;
  white-space: nowrap;
  border-width: 1px;
}
.ledger {
  border-top: 2px solid var(--rule-strong);
}
.line > * {
  min-width: 0;
}
.line {
  display: grid;
  grid-template-columns: minmax(420px, 1fr) 2fr;
  gap: 8px 16px;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
.head {
  grid-template-columns: 224px 214px 1fr;
  padding: 3px 0;
  font-size: 0.85rem;
  color: var(--ink-soft);
}
.pairs {
  display: grid;
  gap: 6px;
  align-content: start;
}
.saw h2,
.pairs h2 {
  font-size: 1.1rem;
}
.pairs .spec {
  font-size: 0.82rem;
  font-weight: 400;
}
.quiet {
  padding: 4px 9px;
  font-size: 0.84rem;
  border-width: 1px;
}
.status {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-left: auto;
}
.more {
  width: 100%;
  margin-top: 6px;
}
.beside {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 6px;
  align-content: start;
  border-left: 3px double var(--rule-strong);
  padding-left: 14px;
}
.bare {
  padding: 16px 8px;
}
.foot {
  margin-top: 14px;
}
.foot a:not(.act) {
  display: inline-block;
  padding: 10px 6px;
}
@media (max-width: 900px) {
  .head {
    display: none;
  }
  .line {
    grid-template-columns: 1fr;
  }
  .status {
    margin-left: 0;
    white-space: nowrap;
  }
  .beside {
    grid-template-columns: 1fr 1fr;
    padding-left: 8px;
  }
  .find {
    flex: 1 1 200px;
  }
}
@media (max-width: 430px) {
  .beside {
    grid-template-columns: 1fr;
  }
}
</style>
