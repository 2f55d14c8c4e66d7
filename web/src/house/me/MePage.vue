<script setup lang="ts">
import type { SessionListed } from '@undercliff/contract'
import { sayMoment } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { onMounted, ref } from 'vue'
import { fetchSessions, putPassword, revokeSession } from '../../remote/api'
import { useNotices } from '../../remote/notices'
import { usePhotos } from '../../remote/photoStore'
import { useOutbox } from '../../remote/outbox'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'

/** One's own sign-in: password, PIN, where one is signed in, and this device. */
const session = useSession()
const shed = useShed()
const outbox = useOutbox()
const photos = usePhotos()
const notices = useNotices()
const sessions = ref<readonly SessionListed[]>([])
const current = ref('')
const next = ref('')
const pin = ref('')
const wrong = ref('')

async function attempt(work: () => Promise<unknown>, said: string): Promise<void> {
  wrong.value = ''
  try {
    await work()
    notices.say(said)
    sessions.value = (await fetchSessions()).sessions
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
onMounted(async () => {
  try {
    sessions.value = (await fetchSessions()).sessions
  } catch (error) {
    wrong.value = (error as Error).message
  }
})
const changePassword = (): Promise<void> =>
  attempt(async () => {
    await putPassword({ current: current.value, next: next.value })
    current.value = next.value = ''
  }, 'The password is changed; you are signed out everywhere else.')
const changePin = (to: string | null): Promise<void> =>
  attempt(
    async () => {
      await session.changePin(to)
      pin.value = ''
    },
    to === null ? 'The PIN is gone.' : 'The PIN is set.',
  )
async function leave(): Promise<void> {
  await outbox.flush()
  await attempt(() => session.signOut(), 'Signed out.')
}
const dayOf = (instant: string): string => sayMoment(new Date(instant), shed.dates)
</script>

<template>
  <div v-if="session.me" class="mine">
    <section class="sheet stack">
      <h1>{{ session.me.name }}</h1>
      <p>
        {{
          session.me.role === 'lead'
            ? 'Lead: everything, money and rules included.'
            : session.me.byPin
              ? 'Here by PIN, to log work.'
              : 'Sawyer: logs work.'
        }}
      </p>
      <p class="row"><button type="button" class="act" @click="leave">Sign out</button></p>
      <p v-if="outbox.keptHere > 0" class="caution">
        {{ outbox.keptHere === 1 ? '1 entry waits' : `${outbox.keptHere} entries wait` }} on this device to be sent. It
        stays here until whoever wrote it signs in again.
      </p>
      <p v-if="photos.waiting.length > 0" class="caution">
        {{ photos.waiting.length === 1 ? 'A photograph waits' : `${photos.waiting.length} photographs wait` }} on this
        device to be sent, and stays here in the same way.
      </p>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <template v-if="session.isLead">
        <h2>This device</h2>
        <p class="row">
          <button
            type="button"
            class="act"
            :aria-pressed="session.me.shared"
            @click="
              attempt(
                () => session.share(!session.me?.shared),
                session.me.shared ? 'This device is yours alone again.' : 'The crew can take turns here by PIN.',
              )
            "
          >
            Shared at the bench
          </button>
        </p>
        <p class="soft">
          On a shared device people take turns by PIN, with a tap on the name at the top. Whoever comes by PIN logs work
          as a sawyer.
        </p>
      </template>
    </section>
    <form v-if="!session.me.byPin" class="sheet stack" @submit.prevent="changePassword">
      <h2>Password</h2>
      <div class="field">
        <label for="current">The present one</label
        ><NInput
          v-model:value="current"
          type="password"
          :input-props="{ id: 'current', autocomplete: 'current-password' }"
          placeholder=""
        />
      </div>
      <div class="field">
        <label for="next">The new one, at least 10 characters</label
        ><NInput
          v-model:value="next"
          type="password"
          :input-props="{ id: 'next', autocomplete: 'new-password' }"
          placeholder=""
        />
      </div>
      <button type="submit" class="act">Change the password</button>
    </form>
    <form v-if="!session.me.byPin" class="sheet stack" @submit.prevent="changePin(pin)">
      <h2>PIN for a shared bench device</h2>
      <div class="field">
        <label for="pin">{{ session.me.hasPin ? 'Another PIN' : 'PIN' }}, 4 to 8 digits</label
        ><NInput
          v-model:value="pin"
          type="password"
          :maxlength="8"
          :input-props="{ id: 'pin', inputmode: 'numeric', autocomplete: 'off' }"
          placeholder=""
        />
      </div>
      <p class="row">
        <button type="submit" class="act">Set the PIN</button
        ><button v-if="session.me.hasPin" type="button" class="act" @click="changePin(null)">Take it away</button>
      </p>
    </form>
    <section class="sheet stack">
      <h2>Signed in</h2>
      <ul class="list">
        <li v-for="one in sessions" :key="one.id">
          <p>
            <strong>{{ one.name }}</strong> · {{ one.device }}{{ one.shared ? ', shared' : ''
            }}{{ one.current ? ' · here' : '' }}<br /><span class="soft figures"
              >since {{ dayOf(one.startedAt) }}, last seen {{ dayOf(one.seenAt) }}</span
            >
          </p>
          <button
            v-if="!one.current"
            type="button"
            class="act small"
            :aria-label="`End: ${one.name}, ${one.device}`"
            @click="attempt(() => revokeSession(one.id), 'That session is over.')"
          >
            End it
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.mine {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 14px;
  align-items: start;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
@media (max-width: 900px) {
  .mine {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
