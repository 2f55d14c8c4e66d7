<script setup lang="ts">
import type { AccountAnswer, Person } from '@undercliff/contract'
import { HANDS, type Hand, type Role } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { NInput } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { deleteAccount, fetchAccounts, postPerson, putAccount, putPerson, putPinOf } from '../../remote/api'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import RadioChoice from '../../parts/RadioChoice.vue'

/** The people of the crew, for a lead: who they are, who can sign in, as what, and who left. */
const shed = useShed()
const notices = useNotices()
const accounts = ref<readonly AccountAnswer[]>([])
const open = ref<string | null>(null)
const login = ref('')
const password = ref('')
const role = ref<Role>('sawyer')
const name = ref('')
const called = ref('')
const weakSide = ref<Hand | 'unsaid'>('unsaid')
const pin = ref('')
const wrong = ref('')
const WEAK_CHOICES = [
  { value: 'unsaid', label: 'Not said' },
  ...HANDS.map((value) => ({ value, label: value === 'left' ? 'Left cutters' : 'Right cutters' })),
] as const
/** Who left stands at the end: what they did stays theirs. */
const everybody = computed(() => [...shed.people].sort((a, b) => Number(a.gone ?? false) - Number(b.gone ?? false)))
const ROLE_CHOICES = [
  { value: 'sawyer', label: 'Sawyer: logs work' },
  { value: 'lead', label: 'Lead: everything' },
] as const
const accountOf = (personId: string): AccountAnswer | undefined =>
  accounts.value.find((one) => one.personId === personId)

async function attempt(work: () => Promise<unknown>, said: string): Promise<void> {
  wrong.value = ''
  try {
    await work()
    accounts.value = (await fetchAccounts()).accounts
    await shed.load()
    notices.say(said)
    open.value = null
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
onMounted(async () => {
  try {
    accounts.value = (await fetchAccounts()).accounts
  } catch (error) {
    wrong.value = (error as Error).message
  }
})
function edit({ id: personId, name: personName, role: personRole, weakSide: weak }: Person): void {
  open.value = open.value === personId ? null : personId
  wrong.value = ''
  login.value =
    accountOf(personId)?.login ??
    personName
      .toLowerCase()
      .split(/\s+/)[0]
      ?.replace(/[^a-z0-9._-]/g, '') ??
    ''
  password.value = ''
  pin.value = ''
  called.value = personName
  weakSide.value = weak ?? 'unsaid'
  role.value = personRole
}
const describe = (personId: string): Promise<void> =>
  attempt(
    () =>
      putPerson(personId, { name: called.value.trim(), weakSide: weakSide.value === 'unsaid' ? null : weakSide.value }),
    `${called.value.trim()} is written so.`,
  )
const leave = ({ id, name: who, gone }: Person): Promise<void> =>
  attempt(
    () => putPerson(id, { gone: gone !== true }),
    gone === true ? `${who} is on the crew again.` : `${who} left. What they did stays theirs.`,
  )
const setPin = (personId: string, personName: string): Promise<void> =>
  attempt(() => putPinOf(personId, pin.value), `${personName} takes over at a shared bench with this PIN.`)
const save = (personId: string, personName: string): Promise<void> =>
  attempt(
    () =>
      putAccount(personId, {
        login: login.value.trim().toLowerCase(),
        role: role.value,
        ...(password.value === '' ? {} : { password: password.value }),
      }),
    `${personName} can sign in as ${login.value.trim().toLowerCase()}.`,
  )
const add = (): Promise<void> =>
  attempt(async () => {
    await postPerson({ id: nanoid(), name: name.value.trim(), role: 'sawyer' })
    name.value = ''
  }, `${name.value.trim()} is on the crew.`)
</script>

<template>
  <section class="stack" aria-labelledby="people-title">
    <h2 id="people-title">People</h2>
    <ul>
      <li v-for="person in everybody" :key="person.id">
        <p>
          <strong>{{ person.name }}</strong>, {{ person.role }}<br /><span class="soft">{{
            person.gone
              ? 'left the crew; what they did stays theirs'
              : accountOf(person.id)
                ? `signs in as ${accountOf(person.id)?.login}${accountOf(person.id)?.hasPin ? ', has a PIN' : ''}`
                : 'cannot sign in; work is logged for them'
          }}</span>
        </p>
        <button
          type="button"
          class="act small"
          :aria-expanded="open === person.id"
          :aria-label="`${open === person.id ? 'Leave as it is' : 'Change'}: ${person.name}`"
          @click="edit(person)"
        >
          {{ open === person.id ? 'Leave as it is' : 'Change' }}
        </button>
        <form v-if="open === person.id" class="editor stack" @submit.prevent="describe(person.id)">
          <div class="field">
            <label :for="`called-${person.id}`">Name</label
            ><NInput
              v-model:value="called"
              :maxlength="40"
              :input-props="{ id: `called-${person.id}`, autocomplete: 'off' }"
              placeholder=""
            />
          </div>
          <p class="soft">Where the file bites less: that side is offered first.</p>
          <RadioChoice
            v-model="weakSide"
            :label="`Where the file bites less in the hands of ${person.name}`"
            :options="WEAK_CHOICES"
            small
          />
          <p class="row">
            <button type="submit" class="act next">Save</button
            ><button type="button" class="act" @click="leave(person)">
              {{ person.gone ? 'Back on the crew' : 'They left the crew' }}
            </button>
          </p>
        </form>
        <form
          v-if="open === person.id && !person.gone"
          class="editor stack"
          @submit.prevent="save(person.id, person.name)"
        >
          <div class="two">
            <div class="field">
              <label :for="`login-${person.id}`">Sign-in name</label
              ><NInput
                v-model:value="login"
                :maxlength="40"
                :input-props="{ id: `login-${person.id}`, autocapitalize: 'none', autocomplete: 'off' }"
                placeholder=""
              />
            </div>
            <div class="field">
              <label :for="`password-${person.id}`">{{
                accountOf(person.id) ? 'New password, or leave it' : 'First password'
              }}</label
              ><NInput
                v-model:value="password"
                type="password"
                show-password-on="click"
                :maxlength="200"
                :input-props="{ id: `password-${person.id}`, autocomplete: 'new-password' }"
                placeholder=""
              />
            </div>
          </div>
          <RadioChoice v-model="role" label="Role" :options="ROLE_CHOICES" />
          <p class="row">
            <button type="submit" class="act next">Save the sign-in</button
            ><button
              v-if="accountOf(person.id)"
              type="button"
              class="act grave"
              @click="
                attempt(() => deleteAccount(person.id), `${person.name} can sign in no longer; what they wrote stays.`)
              "
            >
              Take the sign-in away
            </button>
          </p>
        </form>
        <form
          v-if="open === person.id && accountOf(person.id) && !person.gone"
          class="editor row"
          @submit.prevent="setPin(person.id, person.name)"
        >
          <label :for="`pin-${person.id}`">PIN for a shared bench</label>
          <NInput
            v-model:value="pin"
            class="pin"
            :maxlength="8"
            placeholder=""
            :input-props="{ id: `pin-${person.id}`, inputmode: 'numeric', autocomplete: 'off' }"
          /><button type="submit" class="act" :disabled="pin === ''">Set the PIN</button>
        </form>
      </li>
    </ul>
    <form class="row" @submit.prevent="add">
      <input
        v-model="name"
        class="plain"
        aria-label="Name of somebody new"
        placeholder="Somebody new"
        maxlength="40"
      /><button type="submit" class="act" :disabled="name.trim() === ''">Add to the crew</button>
    </form>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px 10px;
  align-items: center;
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
.editor {
  grid-column: 1 / 3;
}
.pin {
  width: 8em;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
