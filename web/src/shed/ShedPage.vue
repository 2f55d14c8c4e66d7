<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { ACTION_WORDS, ACTIONS, PITCH_PROFILES, type Action, type LoopCard } from '@undercliff/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useShed } from '../remote/shedStore'
import VerdictMark from '../parts/VerdictMark.vue'
import { isTyping } from '../parts/typing'
import { groupShed } from './groups'
import LoopTile from './LoopTile.vue'
import NextUp from './NextUp.vue'

const shed = useShed()
const route = useRoute()
const router = useRouter()
void shed.load()

const queryText = (key: string): string => (typeof route.query[key] === 'string' ? route.query[key] : '')
/** What is searched and filtered stands in the address, so that Back and a reload keep it. */
const setQuery = (changes: Record<string, string>): void => {
  const query = { ...route.query, ...changes }
  void router.replace({ query: Object.fromEntries(Object.entries(query).filter(([, value]) => value !== '')) })
}
const search = computed({ get: () => queryText('find'), set: (find: string) => { setQuery({ find }) } })
const only = computed({ get: () => queryText('verdict'), set: (verdict: string) => { setQuery({ verdict }) } })

const grouped = computed(() => groupShed(shed.saws, shed.loops))
const live = computed(() => shed.loops.filter(({ retired }) => !retired))
const counts = computed(() => ACTIONS.map((action) => ({ action, count: live.value.filter((loop) => loop.action === action).length })).filter(({ count }) => count > 0))

const words = computed(() => search.value.toLowerCase().split(/\s+/).filter(Boolean))
const textOf = (loop: LoopCard): string =>
  `${loop.tag} ${loop.sawId === null ? '' : shed.sawName(loop.sawId)} ${PITCH_PROFILES[loop.spec.pitchClass].name} ${ACTION_WORDS[loop.action]} ${loop.spec.driveLinks}`.toLowerCase()
const found = (loop: LoopCard): boolean =>
  (only.value === '' || loop.action === only.value) && words.value.every((word) => textOf(loop).includes(word))
const filtering = computed(() => only.value !== '' || words.value.length > 0)
const hits = computed(() => (filtering.value ? live.value.filter(found).length : live.value.length))
const choose = (action: Action): void => {
  only.value = only.value === action ? '' : action
}

const searchField = ref<HTMLInputElement | null>(null)
onKeyStroke('/', (event) => {
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
onKeyStroke(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'], (event) => {
  const here = document.activeElement
  const onTile = here instanceof HTMLElement && here.matches('[data-loop-tile]')
  const fromSearch = here === searchField.value && event.key === 'ArrowDown'
  if (!onTile && !fromSearch && isTyping(event)) return
  const next = onTile
    ? step(here, event.key)
    : [...document.querySelectorAll<HTMLElement>('[data-loop-tile]')].find((tile) => !tile.classList.contains('dimmed'))
  if (next === undefined) return
  event.preventDefault()
  next.focus()
})
</script>

<template>
  <div v-if="shed.answer === null" class="sheet stack">
    <template v-if="shed.away">
      <h1>The shed does not answer</h1>
      <p>Is Undercliff running? Nothing that you logged on this device is lost.</p>
      <p><button type="button" class="act next" @click="shed.load()">Try again</button></p>
    </template>
    <p v-else>Opening the shed …</p>
  </div>
  <div v-else-if="shed.saws.length === 0 && shed.loops.length === 0" class="sheet stack">
    <h1>The shed is empty</h1>
    <p>Begin with a saw: its bar says which loops fit. Then add the loops that go on it.</p>
    <p class="row"><RouterLink class="act next" to="/add/saw">Add a saw</RouterLink><RouterLink class="act" to="/add/loop">Add a loop</RouterLink><RouterLink class="act" to="/crew">Read a backup</RouterLink></p>
  </div>
  <template v-else>
    <NextUp :loops="shed.loops" />
    <div class="tools">
      <label class="find"><span class="hidden-text">Search loops</span><input ref="searchField" v-model="search" type="search" placeholder="Find" /><kbd class="keys-only">/</kbd></label>
      <div class="filters" role="group" aria-label="Filter by verdict">
        <button v-for="{ action, count } in counts" :key="action" type="button" class="act small" :aria-pressed="only === action" @click="choose(action)">
          <VerdictMark v-if="only !== action" :action="action" /> {{ ACTION_WORDS[action] }} <span class="figures">{{ count }}</span>
        </button>
      </div>
    </div>
    <p v-if="filtering" class="soft" role="status">{{ hits }} of {{ live.length }} loops. <button type="button" class="act small" @click="setQuery({ find: '', verdict: '' })">Show all</button></p>

    <section class="ledger" aria-label="Saws and loops">
      <div class="line head" aria-hidden="true"><span>Saw</span><span>On it</span><span>Fits, beside it</span></div>
      <div v-for="group in grouped.groups" :key="group.key" class="line">
        <div class="pairs">
          <div v-for="{ saw, loop } in group.saws" :key="saw.id" class="pair">
            <div class="saw"><h2>{{ saw.nickname }}</h2><span class="soft spec">{{ group.spec }}</span></div>
            <LoopTile v-if="loop" :loop="loop" :dimmed="filtering && !found(loop)" />
            <p v-else class="bare soft">No loop on it</p>
          </div>
        </div>
        <div class="beside">
          <LoopTile v-for="loop in group.beside" :key="loop.loopId" :loop="loop" :dimmed="filtering && !found(loop)" />
          <p v-if="group.beside.length === 0" class="bare soft">No spare</p>
        </div>
      </div>
      <div v-if="grouped.homeless.length > 0" class="line">
        <div class="saw"><h2>No saw takes these</h2></div>
        <div class="beside"><LoopTile v-for="loop in grouped.homeless" :key="loop.loopId" :loop="loop" :dimmed="filtering && !found(loop)" /></div>
      </div>
    </section>
    <p class="row foot">
      <RouterLink class="act small" to="/identify">Which chain is this?</RouterLink>
      <RouterLink class="act small" to="/add/loop">Add a loop</RouterLink>
      <RouterLink class="act small" to="/add/saw">Add a saw</RouterLink>
      <span v-if="grouped.retired.length > 0" class="soft">Retired:
        <RouterLink v-for="loop in grouped.retired" :key="loop.loopId" :to="`/loops/${encodeURIComponent(loop.tag)}`">{{ loop.tag }}</RouterLink>
      </span>
    </p>
  </template>
</template>

<style scoped>
.tools { display: flex; gap: 8px 10px; align-items: center; margin-bottom: 8px; }
.find { position: relative; display: flex; align-items: center; flex: 0 1 170px; min-width: 130px; }
.find input { width: 100%; min-height: var(--target); padding: 4px 12px; border: 2px solid var(--rule-strong); border-radius: 4px; background: var(--sheet); color: var(--ink); font: 400 1rem var(--text); }
.find kbd { position: absolute; right: 10px; }
.filters { display: flex; gap: 5px; }
.filters .act { padding: 4px 7px; gap: 5px; font-size: 0.84rem; white-space: nowrap; border-width: 1px; }
.ledger { border-top: 2px solid var(--rule-strong); }
.line > * { min-width: 0; }
.line { display: grid; grid-template-columns: minmax(420px, 1fr) 2fr; gap: 8px 16px; padding: 4px 0; border-bottom: 1px solid var(--rule); }
.head { grid-template-columns: 224px 214px 1fr; padding: 3px 0; font-size: 0.85rem; color: var(--ink-soft); }
.pairs { display: grid; gap: 6px; align-content: start; }
.pair { display: grid; grid-template-columns: 216px 1fr; gap: 8px; align-items: center; }
.saw h2 { font-size: 1.1rem; }
.spec { font-size: 0.82rem; white-space: nowrap; }
.beside { display: grid; grid-template-columns: repeat(auto-fill, minmax(190px, 1fr)); gap: 6px; align-content: start; border-left: 3px double var(--rule-strong); padding-left: 14px; }
.bare { padding: 16px 8px; }
.foot { margin-top: 14px; }
.foot a:not(.act) { display: inline-block; padding: 10px 6px; }
@media (max-width: 900px) {
  .head { display: none; }
  .line { grid-template-columns: 1fr; }
  .pair { grid-template-columns: 1fr; gap: 4px; }
  .saw { display: flex; gap: 10px; align-items: baseline; }
  .beside { grid-template-columns: 1fr 1fr; padding-left: 8px; }
  .tools { flex-wrap: wrap; }
  .find { flex-basis: 100%; }
  .filters { overflow-x: auto; max-width: 100%; padding: 4px; margin: -4px; }
  .filters .act { flex: none; }
}
@media (max-width: 430px) {
  .beside { grid-template-columns: 1fr; }
}
</style>
