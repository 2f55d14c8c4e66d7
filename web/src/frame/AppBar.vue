<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { defineAsyncComponent, ref } from 'vue'
import { mayKeep } from '../remote/device'
import { useOutbox } from '../remote/outbox'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'
import { isTyping } from '../parts/typing'

const SwitchPanel = defineAsyncComponent(() => import('./session/SwitchPanel.vue'))
const SetAsidePanel = defineAsyncComponent(() => import('./setAside/SetAsidePanel.vue'))
const KeyList = defineAsyncComponent(() => import('./KeyList.vue'))
const shed = useShed()
const outbox = useOutbox()
const session = useSession()
const asideShown = ref(false)
const keysShown = ref(false)
const switching = ref(false)
onKeyStroke('?', (event) => {
  if (isTyping(event)) return
  event.preventDefault()
  keysShown.value = !keysShown.value
})
</script>

<template>
  <header class="bar no-print">
    <RouterLink :to="{ name: 'shed' }" class="name">Undercliff</RouterLink>
    <RouterLink :to="{ name: 'crew' }" class="crew">{{ shed.crew?.name }}</RouterLink>
    <span v-if="outbox.keptHere > 0" class="state" role="status">
      {{ outbox.keptHere }} kept on this device, waiting to be sent
    </span>
    <span v-else-if="shed.away" class="state" role="status">The shed does not answer; trying again</span>
    <span v-if="outbox.others > 0" class="state" role="status"
      >{{ outbox.others }} of somebody else's wait until they sign in</span
    >
    <RouterLink :to="{ name: 'scan' }" class="act small">Scan a tag</RouterLink>
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
    <button type="button" class="act small keys-only" aria-label="List of keys" @click="keysShown = !keysShown">
      <kbd>?</kbd>
    </button>
  </header>
  <div v-if="outbox.heldHere > 0" class="refused" role="alert">
    {{ outbox.heldHere }} NOT kept, since
    {{ mayKeep === false ? 'this browser keeps nothing' : 'this device is full' }}. Leave this page open until the shed
    answers.
  </div>
  <div v-else-if="mayKeep === false" class="refused warn" role="status">
    This browser keeps nothing for this page: what you log while the shed does not answer is lost when you close it.
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
  <SwitchPanel v-if="switching" @close="switching = false" />
  <KeyList v-if="keysShown" @close="keysShown = false" />
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
.crew {
  color: var(--ink-soft);
  margin-right: auto;
  display: inline-flex;
  align-items: center;
  min-height: var(--target);
  text-underline-offset: 4px;
  text-decoration-color: var(--rule-strong);
}
.state {
  border-left: 6px solid var(--work);
  padding-left: 8px;
  font-weight: 700;
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
@media (max-width: 700px) {
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
  .crew {
    flex: 1 1 60px;
    min-width: 0;
    display: block;
    line-height: var(--target);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
}
</style>
