<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import {
  acceptedWithOthers,
  ACTION_WORDS,
  actionInWords,
  briefMinutes,
  sayReason,
  sayWayOut,
  SHELF_NAMES,
  triage,
  TRIAGE_GROUPS,
  writeMoney,
  type LoopCard,
  type NewEntry,
  type TriageGroup,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { computed, ref } from 'vue'
import FirstHint from '../../parts/FirstHint.vue'
import TonightList from '../../parts/TonightList.vue'
import ToothSign from '../../parts/ToothSign.vue'
import { isTyping } from '../../parts/typing'
import VerdictMark from '../../parts/VerdictMark.vue'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import { useWriting } from '../../remote/writing'
import ShedAway from '../../parts/ShedAway.vue'

/** Every loop that needs something, by what matters before the next job; verdicts are accepted in one go. */
const shed = useShed()
const session = useSession()
const writing = useWriting()
void shed.look()

const GROUP_WORDS: Record<TriageGroup, string> = {
  mustNotCut: 'Must not cut as it is',
  beforeTheNextJob: 'Before the next job',
  whenThereIsTime: 'When there is time',
}
const STEP = 30
const shownOf = ref<Record<TriageGroup, number>>({ mustNotCut: STEP, beforeTheNextJob: STEP, whenThereIsTime: STEP })
const parted = computed(() => triage(shed.loops))
const groups = computed(() =>
  TRIAGE_GROUPS.map((group) => ({
    group,
    loops: parted.value[group],
    shown: parted.value[group].slice(0, shownOf.value[group]),
  })).filter(({ loops }) => loops.length > 0),
)
const all = computed(() => groups.value.flatMap(({ loops }) => loops))
const open = computed(() => all.value.filter(({ settled }) => !settled))
const chosen = ref(new Set<string>())
const busy = ref(false)
const wrong = ref('')
const picked = computed(() => open.value.filter(({ loopId }) => chosen.value.has(loopId)))
const sum = (loops: readonly LoopCard[]): number => loops.reduce((minutes, loop) => minutes + loop.minutes.likely, 0)
const cost = (loops: readonly LoopCard[]): number => loops.reduce((minor, { costMinor }) => minor + (costMinor ?? 0), 0)
const money = (minor: number): string => writeMoney(minor, shed.figures.currency)

function toggle(loopId: string): void {
  const next = new Set(chosen.value)
  if (!next.delete(loopId)) next.add(loopId)
  chosen.value = next
}
/** What is grave is chosen one by one. */
function choose(loops: readonly LoopCard[]): void {
  const ids = loops.filter((loop) => !loop.settled && acceptedWithOthers(loop)).map(({ loopId }) => loopId)
  const every = ids.every((id) => chosen.value.has(id))
  const next = new Set(chosen.value)
  for (const id of ids)
    if (every) next.delete(id)
    else next.add(id)
  chosen.value = next
}
const where = ({ place }: LoopCard): string =>
  place.at === 'saw'
    ? `on ${shed.sawName(place.sawId)}`
    : place.at === 'shop'
      ? 'at a shop'
      : place.at === 'retired'
        ? ''
        : SHELF_NAMES[place.at]

/** Minutes and money of what a verdict calls for; of its way out where it calls for nothing but to leave it alone. */
function costLine({ action, minutes, costMinor, wayOut }: LoopCard): string {
  const out = action === 'stop' ? wayOut : null
  const likely = out?.minutes ?? 0
  const time = out === null ? minutes : { low: likely, likely, high: likely }
  const minor = out?.costMinor ?? costMinor ?? 0
  return [briefMinutes(time), minor === 0 ? '' : money(minor)].filter(Boolean).join(' · ') || '–'
}

/** How a loop that is not to be used at all comes back to work; every other verdict is its own way out. */
const outOf = ({ action, wayOut }: LoopCard): string =>
  action === 'stop' && wayOut !== null ? sayWayOut(wayOut, shed.figures) : ''

const entryOf = ({ loopId, action, advised }: LoopCard, happenedAt: string): NewEntry => ({
  id: nanoid(),
  loopId,
  happenedAt,
  personId: session.me?.personId ?? null,
  kind: 'decided',
  action,
  advised,
  rulesVersion: shed.rules.version,
})

/** Accepts the verdicts of those chosen, with one undo. */
async function accept(): Promise<void> {
  if (picked.value.length === 0 || busy.value) return
  busy.value = true
  const happenedAt = new Date().toISOString()
  const entries = picked.value.map((card) => entryOf(card, happenedAt))
  const said = (taken: number): string => `${taken} ${taken === 1 ? 'verdict' : 'verdicts'} accepted`
  wrong.value = (await writing.write(entries, said)) ?? ''
  chosen.value = new Set()
  busy.value = false
}
onKeyStroke(['x', 'a', 'ArrowDown', 'ArrowUp'], (event) => {
  if (isTyping(event) && !(event.target instanceof HTMLInputElement && event.target.type === 'checkbox')) return
  const rows = [...document.querySelectorAll<HTMLElement>('[data-triage-link]')]
  const here = rows.findIndex(
    (row) => row === document.activeElement || row.closest('li')?.contains(document.activeElement) === true,
  )
  if (event.key === 'a') void accept()
  else if (event.key === 'x') {
    const loopId = rows[here]?.dataset.triageLink
    if (loopId === undefined) return
    toggle(loopId)
  } else rows[Math.min(rows.length - 1, Math.max(0, here + (event.key === 'ArrowDown' ? 1 : -1)))]?.focus()
  event.preventDefault()
})
</script>

<template>
  <ShedAway v-if="shed.answer === null" />
  <div v-else class="triage">
    <header class="top">
      <div>
        <h1>
          {{
            all.length === 0
              ? 'Nothing waits to be settled'
              : `${open.length} of ${all.length} loops wait to be settled`
          }}
        </h1>
        <p v-if="all.length > 0" class="soft">
          About {{ Math.round(sum(all)) }} minutes and {{ money(cost(all)) }} of work in all, metal and new loops
          counted in.
        </p>
      </div>
      <RouterLink v-if="all.length === 0" class="act small no-print" :to="{ name: 'tools' }">Tools</RouterLink>
      <div v-else class="row no-print">
        <RouterLink class="act small" :to="{ name: 'tools' }">Tools</RouterLink>
        <button type="button" class="act small" @click="choose(all)">Choose all</button>
        <button type="button" class="act next" :disabled="picked.length === 0 || busy" @click="accept">
          Accept {{ picked.length === 0 ? 'those chosen' : picked.length }} <kbd class="keys-only">a</kbd>
        </button>
      </div>
    </header>
    <p v-if="picked.length > 0" class="soft" role="status">
      Chosen: about {{ Math.round(sum(picked)) }} minutes, {{ money(cost(picked)) }}.
    </p>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <FirstHint v-if="all.length > 0" id="triage">
      Choose what you agree with and accept it: that makes tonight’s list, and each job leads on to the next. What is
      grave is chosen one by one.
    </FirstHint>
    <TonightList />
    <section v-for="{ group, loops, shown } in groups" :key="group" class="sheet" :aria-label="GROUP_WORDS[group]">
      <h2>
        {{ GROUP_WORDS[group] }} <span class="soft">{{ loops.length }}, about {{ Math.round(sum(loops)) }} min</span>
        <button type="button" class="act small no-print" @click="choose(loops)">Choose these</button>
      </h2>
      <ol>
        <li v-for="loop in shown" :key="loop.loopId" :class="{ picked: chosen.has(loop.loopId) }">
          <span class="print-only box" aria-hidden="true" />
          <label class="tick no-print"
            ><input
              type="checkbox"
              :checked="chosen.has(loop.loopId)"
              :disabled="loop.settled"
              :aria-label="`Choose ${loop.tag}`"
              @change="toggle(loop.loopId)"
          /></label>
          <ToothSign class="sign" :tooth="loop.tooth" />
          <RouterLink class="go" :data-triage-link="loop.loopId" :to="{ name: 'decide', params: { tag: loop.tag } }"
            ><strong class="figures">{{ loop.tag }}</strong><span class="soft">{{ where(loop) }}</span></RouterLink
          >
          <div class="what">
            <p>
              <VerdictMark :action="loop.action" />{{ ' ' }}
              <strong :class="{ 'stop-text': !loop.fitForUse }"
                >{{ ACTION_WORDS[loop.action]
                }}<template v-for="also in loop.also" :key="also"> and {{ actionInWords(also) }}</template></strong
              ><span v-if="loop.settled" class="settled">{{
                loop.action === loop.advised ? 'accepted' : 'overruled'
              }}</span>
            </p>
            <p class="why">{{ loop.reason ? sayReason(loop.reason, shed.figures) : '' }}</p>
            <p v-if="outOf(loop)" class="why"><strong>Way out:</strong> {{ outOf(loop) }}.</p>
          </div>
          <p class="cost figures">
            {{ costLine(loop)
            }}<small v-if="loop.runnerUp"
              >else {{ actionInWords(loop.runnerUp.action) }}, {{ money(loop.runnerUp.byMinor) }}/h dearer</small
            >
          </p>
        </li>
      </ol>
      <p v-if="shown.length < loops.length">
        <button type="button" class="act small" @click="shownOf[group] += STEP">
          Show {{ Math.min(STEP, loops.length - shown.length) }} more
        </button>
      </p>
    </section>
    <p v-if="all.length === 0" class="sheet">
      {{ shed.loops.length === 0 ? 'There are no loops yet.' : 'Every loop in the shed can run on.' }}
      <RouterLink :to="{ name: 'shed' }">Back to the shed</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.triage {
  display: grid;
  gap: 14px;
  grid-template-columns: minmax(0, 1fr);
}
.top {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 14px;
  align-items: center;
  position: sticky;
  top: 0;
  background: var(--ground);
  padding: 8px 0;
  z-index: 2;
}
h2 {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
h2 .soft {
  font-weight: 400;
  font-size: 0.92rem;
}
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 48px 72px minmax(84px, 120px) minmax(0, 1fr) minmax(150px, 230px);
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding: 4px 0;
}
.picked {
  background: color-mix(in srgb, var(--work) 22%, transparent);
}
.tick {
  display: grid;
  place-items: center;
  min-height: var(--target);
  cursor: pointer;
}
.tick input {
  width: 24px;
  height: 24px;
  accent-color: var(--ink);
}
.sign {
  width: 72px;
}
.go {
  display: grid;
  align-content: center;
  min-height: var(--target);
  text-decoration: none;
  line-height: 1.2;
}
.go strong {
  font-size: 1.15rem;
  text-decoration: underline;
  text-underline-offset: 4px;
  text-decoration-color: var(--rule-strong);
}
.go span {
  font-size: 0.85rem;
}
.why {
  font-size: 0.92rem;
  line-height: 1.3;
}
.settled {
  font-size: 0.78rem;
  font-weight: 700;
  border: 1.5px solid var(--ink-soft);
  border-radius: 2px;
  padding: 0 6px;
  margin-left: 8px;
}
.cost {
  text-align: right;
  font-weight: 700;
}
.cost small {
  display: block;
  font: 400 0.8rem/1.25 var(--text);
  color: var(--ink-soft);
}
@media (max-width: 800px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
  }
  .top .soft {
    display: none;
  }
  li {
    grid-template-columns: 48px 60px minmax(0, 1fr);
    gap: 4px 10px;
  }
  .sign {
    width: 60px;
  }
  .what {
    grid-column: 1 / 4;
  }
  .cost {
    grid-column: 1 / 4;
    text-align: left;
  }
}
/* On paper each job has a box to tick. */
@media print {
  .box {
    width: 14px;
    height: 14px;
    border: 1.5px solid var(--ink);
    justify-self: center;
  }
  .top {
    position: static;
  }
  li {
    grid-template-columns: 20px 56px 80px minmax(0, 1fr) 150px;
    padding: 2px 0;
  }
  .sign {
    width: 56px;
  }
  .go {
    min-height: 0;
  }
  .what,
  .cost {
    grid-column: auto;
  }
  .cost {
    text-align: right;
  }
}
</style>
