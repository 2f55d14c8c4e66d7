<script setup lang="ts">
import { sayDay } from '@undercliff/core'
import { useIntervalFn } from '@vueuse/core'
import { defineAsyncComponent, nextTick, onMounted, ref, watch } from 'vue'
import AppBar from './frame/AppBar.vue'
import { titleOf } from './frame/places'
import NoticeBar from './frame/NoticeBar.vue'
import DueOnSaws from './frame/DueOnSaws.vue'
import { useNotices } from './remote/notices'
import { fetchAhead } from './frame/fetchAhead'
import { useUpdate } from './frame/update'
import { useEarlyMoveKeys } from './move/earlyKeys'
import { useMoves } from './move/moveStore'
import { useOutbox } from './remote/outbox'
import { useSession } from './remote/sessionStore'
import { useShed } from './remote/shedStore'
import { router } from './router'
import { whenIdle } from './parts/whenIdle'
import { useWedge } from './shed/scan/useWedge'

const SignInPage = defineAsyncComponent(() => import('./frame/session/SignInPage.vue'))
const Themed = defineAsyncComponent(() => import('./theme/Themed.vue'))
const MovePanel = defineAsyncComponent({
  loader: () => import('./move/MovePanel.vue'),
  onError: (_error, _again, fail) => {
    // Nothing may wait for a panel that does not come.
    moves.close()
    notices.say('A loop cannot be moved from here while the shed does not answer.')
    fail()
  },
})
const shed = useShed()
const outbox = useOutbox()
const notices = useNotices()
const session = useSession()
const moves = useMoves()
const update = useUpdate()
useWedge()
useEarlyMoveKeys()
/** A screen that was not fetched yet: either nothing answers, or this page is older than what does. */
router.onError(async () => {
  await session.ask()
  notices.say(
    session.away
      ? 'That screen cannot be opened while the shed does not answer.'
      : 'Undercliff was updated since this page was opened. Load it again; nothing that is kept is lost.',
  )
})
const main = ref<HTMLElement | null>(null)
const announced = ref('')
/** The day that stands on paper. */
const dayNow = (): string => sayDay(new Date(), shed.dates)
/** Said when it is printed: until then nobody sees it, and a phone takes its time to write a day. */
const today = ref('')
/** Every page says its title to who listens; focus goes with it unless the page puts it somewhere. */
router.afterEach(async (to, from, failure) => {
  update.takeIfQuiet()
  if (failure !== undefined || to.path === from.path || from.matched.length === 0) return
  announced.value = titleOf(to)
  await nextTick()
  if (main.value?.contains(document.activeElement) !== true) main.value?.focus({ preventScroll: true })
})
/** Another person on this device: what they see and what they left to be sent is theirs. */
watch(
  () => [session.state, session.me?.personId, session.me?.crewId] as const,
  ([state, , crewId], before) => {
    if (state !== 'signedIn') {
      shed.forget()
      return
    }
    if (before !== undefined && before[2] !== undefined && before[2] !== crewId) shed.forget()
    void shed.look()
    void outbox.flush()
  },
  { immediate: true },
)
/** Photographs follow the entries, whenever the shed answers again. */
watch(
  () => shed.loaded && !shed.away && session.state === 'signedIn',
  async (answers) => {
    if (!answers) return
    await outbox.flush()
    // Where it cannot be fetched, nothing answers again: another time.
    const store = await import('./remote/photoStore').catch(() => null)
    await store?.usePhotos().send()
  },
)
/** What others log is seen here within this many milliseconds. */
const FRESH_MS = 5000
useIntervalFn(shed.keepFresh, FRESH_MS)
/** On a slow line what somebody opens first has it for itself, for so many milliseconds. */
const AHEAD_MS = 4000
onMounted(() => {
  window.addEventListener('beforeprint', () => (today.value = dayNow()))
  outbox.watchDevice(window)
  window.addEventListener('online', shed.hurry)
  document.addEventListener('visibilitychange', shed.keepFresh)
  void session.ask()
  const firstPage = router.isReady().catch(() => undefined)
  void firstPage.then(() => {
    whenIdle(update.begin)
    whenIdle(() => void fetchAhead(), AHEAD_MS)
  })
})
</script>

<template>
  <template v-if="session.state === 'signedIn'">
    <a class="skip act" href="#page" @click.prevent="main?.focus()">To the page</a>
    <AppBar />
    <p class="hidden-text" aria-live="polite">{{ announced }}</p>
    <p class="print-only print-head">
      <strong>{{ shed.crew?.name }}</strong> <span>{{ titleOf($route) }}</span>
      <time>{{ today }}</time>
    </p>
    <main id="page" ref="main" class="page" tabindex="-1">
      <DueOnSaws class="no-print" />
      <!-- Before the address is resolved there is nothing to show, and no library is fetched for it. -->
      <RouterView v-if="$route.meta.plain || $route.matched.length === 0" :key="$route.path" />
      <Themed v-else><RouterView :key="$route.path" /></Themed>
    </main>
    <MovePanel v-if="moves.asked" />
    <NoticeBar />
  </template>
  <main v-else class="page">
    <Themed><SignInPage /></Themed>
  </main>
</template>

<style scoped>
.skip {
  position: absolute;
  left: 12px;
  top: -80px;
  z-index: 30;
  background: var(--sheet);
}
.skip:focus {
  top: 6px;
}
/* It holds the focus for who listens; there is nothing to press on it. */
main:focus {
  outline: none;
}
</style>
