<script setup lang="ts">
import { saySpan } from '@undercliff/core'
import { onKeyStroke, useElementSize } from '@vueuse/core'
import { computed, defineAsyncComponent, ref, watchEffect } from 'vue'
import { clockAheadMs } from '../remote/api'
import { mayKeep, wasCleared } from '../remote/device'
import { useOutbox } from '../remote/outbox'
import { photosOfOthers } from '../remote/photosOfOthers'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'
import { isTyping } from '../parts/typing'
import PlaceBar from './PlaceBar.vue'
import { useEarlyKeys } from './search/earlyKeys'
import { useUpdate } from './update'

const SwitchPanel = defineAsyncComponent(() => import('./session/SwitchPanel.vue'))
const SetAsidePanel = defineAsyncComponent(() => import('./setAside/SetAsidePanel.vue'))
const OthersPanel = defineAsyncComponent(() => import('./setAside/OthersPanel.vue'))
const HelpPanel = defineAsyncComponent(() => import('./help/HelpPanel.vue'))
const SearchPanel = defineAsyncComponent(() => import('./search/SearchPanel.vue'))
const shed = useShed()
const outbox = useOutbox()
const session = useSession()
const update = useUpdate()
const states = ref<HTMLElement | null>(null)
const { height: statesHeight } = useElementSize(states, { width: 0, height: 0 }, { box: 'border-box' })
/** On a phone it stands at the foot: nothing under a thumb moves when it comes. */
watchEffect(() => {
  document.documentElement.style.setProperty('--states', `${statesHeight.value}px`)
})
const asideShown = ref(false)
const othersShown = ref(false)
/** Entries and photographs that somebody else left on this device. */
const leftByOthers = computed(() => outbox.others + photosOfOthers.value)
const helpShown = ref(false)
const searching = ref(false)
const early = useEarlyKeys(searching)
const switching = ref(false)
onKeyStroke(['?', 'F1'], (event) => {
  if (event.key !== 'F1' && isTyping(event)) return
  event.preventDefault()
  helpShown.value = !helpShown.value
})
onKeyStroke('/', (event) => {
  if (isTyping(event)) return
  event.preventDefault()
  searching.value = true
})
</script>

<template>
  <header class="bar no-print">
    <RouterLink :to="{ name: 'shed' }" class="name">Undercliff</RouterLink>
    <PlaceBar class="middle" />
    <div ref="states" class="states">
      <span v-if="outbox.keptHere > 0" class="state" role="status">
        {{ outbox.keptHere }} kept on this device, waiting to be sent
      </span>
      <span v-else-if="shed.away" class="state" role="status"
        >The shed does not answer; this is it as it was {{ shed.age() }}</span
      >
      <span v-if="update.waits" class="state" role="status"
        >A new version waits until nothing is half typed
        <button type="button" class="act small" @click="update.take()">Take it now</button></span
      >
      <span v-if="leftByOthers > 0" class="state" role="status"
        >{{ leftByOthers }} of somebody else's wait until they sign in
        <button v-if="session.isLead" type="button" class="act small" @click="othersShown = true">
          See them
        </button></span
      >
    </div>
    <button type="button" class="act small" @click="searching = true">Search <kbd class="keys-only">/</kbd></button>
    <RouterLink :to="{ name: 'scan' }" class="act small" aria-label="Scan a tag"
      ><span class="long">Scan a tag</span><span class="short">Scan</span></RouterLink
    >
    <button
      v-if="session.me?.shared"
      type="button"
      class="act small"
      :aria-label="session.me.name"
      @click="switching = true"
    >
      <span class="long">{{ session.me.name }}</span><span class="short">{{ session.me.name.split(' ')[0] }}</span>
    </button>
    <RouterLink v-else :to="{ name: 'me' }" class="act small" :aria-label="session.me?.name"
      ><span class="long">{{ session.me?.name }}</span
      ><span class="short">{{ session.me?.name.split(' ')[0] }}</span></RouterLink
    >
    <button type="button" class="act small" aria-label="Help for this page" @click="helpShown = !helpShown">?</button>
  </header>
  <div v-if="outbox.heldHere > 0" class="refused" role="alert">
    {{ outbox.heldHere }} NOT kept, since
    {{ mayKeep === false ? 'this browser keeps nothing' : 'this device is full' }}. Leave this page open until the shed
    answers.
  </div>
  <div v-else-if="mayKeep === false" class="refused warn" role="status">
    This browser keeps nothing for this page: what you log while the shed does not answer is lost when you close it.
  </div>
  <div v-if="wasCleared" class="refused warn" role="status">
    <span
      >What this device kept was cleared by the browser. What this page has is kept anew; for the rest, stay a minute
      where the shed answers.</span
    >
    <button type="button" class="act small" @click="wasCleared = false">Understood</button>
  </div>
  <div v-if="clockAheadMs !== 0" class="refused warn" role="status">
    The clock of this device is {{ saySpan(clockAheadMs) }} {{ clockAheadMs > 0 ? 'fast' : 'slow' }}. Times of entries
    are put right by the shed; what it showed is kept beside them.
  </div>
  <div v-if="outbox.awayBecause" class="refused" role="alert">{{ outbox.awayBecause }}</div>
  <div v-if="shed.fault" class="refused" role="alert">
    <span>{{ shed.fault }}</span>
    <button type="button" class="act small" @click="shed.load()">Try again</button>
  </div>
  <div v-if="outbox.refused.length > 0" class="refused" role="alert">
    <span>Not taken: {{ outbox.refused[0]?.refused }}</span>
    <button type="button" class="act small" @click="asideShown = true">See what it held</button>
  </div>
  <SetAsidePanel v-if="asideShown" @close="asideShown = false" />
  <OthersPanel v-if="othersShown" @close="othersShown = false" />
  <SwitchPanel v-if="switching" @close="switching = false" />
  <HelpPanel v-if="helpShown" @close="helpShown = false" />
  <SearchPanel v-if="searching" :early="early" @close="searching = false" />
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  max-width: 1280px;
  margin: 0 auto;
  padding: 6px 20px;
  min-height: 56px;
  border-bottom: 3px double var(--rule-strong);
}
.name {
  font: 700 1.25rem/1 var(--text);
  letter-spacing: -0.02em;
  text-decoration: none;
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
}
.middle {
  margin-right: auto;
}
.state {
  border-left: 6px solid var(--work);
  padding-left: 8px;
  font-weight: 700;
}
.states {
  display: contents;
}
.refused {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  justify-content: center;
  padding: 6px;
  border-bottom: 2px solid var(--stop);
  color: var(--stop);
  font-weight: 700;
}
.refused.warn {
  border-bottom-color: var(--work);
  color: var(--ink);
}
.short {
  display: none;
}
@media (max-width: 700px), (max-height: 500px) {
  .long {
    display: none;
  }
  .short {
    display: inline;
  }
  .bar .act {
    padding: 6px 9px;
    font-size: 0.86rem;
  }
  .bar {
    padding: 2px 12px;
    gap: 4px 8px;
  }
  .name {
    margin-right: auto;
  }
}
@media (max-width: 700px), (max-height: 500px) {
  .states {
    display: block;
    position: fixed;
    inset: auto 0 calc(var(--places) + env(safe-area-inset-bottom));
    z-index: 15;
    background: var(--sheet);
  }
  .state {
    display: block;
    padding: 4px 12px 4px 8px;
    border-top: 1px solid var(--rule-strong);
  }
}
</style>
