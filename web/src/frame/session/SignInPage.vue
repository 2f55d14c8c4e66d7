<script setup lang="ts">
import type { DemoSignIn } from '@undercliff/contract'
import { NInput } from 'naive-ui'
import { ref } from 'vue'
import { useOutbox } from '../../remote/outbox'
import { useSession } from '../../remote/sessionStore'

/** Stands in place of every screen until somebody is signed in. */
const session = useSession()
const outbox = useOutbox()
const login = ref('')
const password = ref('')
const crewName = ref('')
const name = ref('')
const wrong = ref('')
const busy = ref(false)

async function attempt(work: () => Promise<void>): Promise<void> {
  if (busy.value) return
  busy.value = true
  wrong.value = ''
  try {
    await work()
  } catch (error) {
    wrong.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
const enter = (): Promise<void> =>
  attempt(() =>
    session.state === 'setUp'
      ? session.setUp({
          crewName: crewName.value.trim(),
          name: name.value.trim(),
          login: login.value.trim().toLowerCase(),
          password: password.value,
        })
      : session.signIn({ login: login.value.trim(), password: password.value }),
  )
const enterDemo = (person: DemoSignIn): Promise<void> =>
  attempt(() => session.signIn({ login: person.login, password: person.password }))
</script>

<template>
  <div class="door">
    <p class="name">Undercliff</p>
    <section v-if="session.state === 'asking'" class="sheet stack">
      <template v-if="session.away">
        <h1>The shed does not answer</h1>
        <p>Is Undercliff running? Nothing that was logged on this device is lost.</p>
        <p><button type="button" class="act next" @click="session.ask()">Try again</button></p>
      </template>
      <p v-else>Opening the shed …</p>
    </section>
    <template v-else>
      <p v-if="outbox.keptHere > 0" class="caution">
        {{ outbox.keptHere === 1 ? '1 entry waits' : `${outbox.keptHere} entries wait` }} on this device: sent once
        whoever wrote it signs in here again, and not lost until then.
      </p>
      <form class="sheet stack" @submit.prevent="enter">
        <template v-if="session.state === 'setUp'">
          <h1>Set up the shed</h1>
          <p>You are its lead: you add people, saws and loops, and set the house rules. Others log their work.</p>
          <div class="field">
            <label for="crew-name">What the crew is called</label
            ><NInput v-model:value="crewName" :maxlength="60" :input-props="{ id: 'crew-name' }" placeholder="" />
          </div>
          <div class="field">
            <label for="your-name">Your name</label
            ><NInput
              v-model:value="name"
              :maxlength="40"
              :input-props="{ id: 'your-name', autocomplete: 'name' }"
              placeholder=""
            />
          </div>
        </template>
        <h1 v-else>Who is at the bench?</h1>
        <div class="field">
          <label for="login">Sign-in name</label
          ><NInput
            v-model:value="login"
            :maxlength="100"
            :input-props="{ id: 'login', autocomplete: 'username', autocapitalize: 'none' }"
            placeholder=""
          />
        </div>
        <div class="field">
          <label for="password">Password</label>
          <NInput
            v-model:value="password"
            type="password"
            show-password-on="click"
            :maxlength="200"
            :input-props="{
              id: 'password',
              autocomplete: session.state === 'setUp' ? 'new-password' : 'current-password',
            }"
            placeholder=""
          />
          <p v-if="session.state === 'setUp'" class="soft">At least 10 characters; a few words do well.</p>
        </div>
        <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
        <button type="submit" class="act next" :disabled="busy">
          {{ session.state === 'setUp' ? 'Open the shed' : 'Sign in' }}
        </button>
      </form>
      <section v-if="session.demo.length > 0" class="sheet stack demo" aria-labelledby="demo-title">
        <h2 id="demo-title">This is the demo</h2>
        <p>An invented crew on an invented island. These two can sign in:</p>
        <div v-for="person in session.demo" :key="person.login" class="person">
          <p>
            <strong>{{ person.name }}</strong>, {{ person.role }}<br /><span class="figures"
              >{{ person.login }} · {{ person.password }}</span
            >
          </p>
          <button type="button" class="act" :disabled="busy" @click="enterDemo(person)">
            Come in as {{ person.name.split(' ')[0] }}
          </button>
        </div>
        <p class="soft">A lead changes specs, people, rules and money; a sawyer logs work.</p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.door {
  max-width: 560px;
  margin: 4vh auto 0;
  display: grid;
  gap: 14px;
}
.name {
  font: 700 1.6rem/1 var(--text);
  letter-spacing: -0.02em;
  padding: 8px 2px;
  border-bottom: 3px double var(--rule-strong);
}
.person {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
@media (max-width: 430px) {
  .person {
    grid-template-columns: 1fr;
  }
}
</style>
