<script setup lang="ts">
import type { AccountAnswer } from '@undercliff/contract'
import type { Role } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { NInput } from 'naive-ui'
import { onMounted, ref } from 'vue'
import { deleteAccount, fetchAccounts, postPerson, putAccount } from '../../remote/api'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import RadioChoice from '../../parts/RadioChoice.vue'

/** The people of the crew, for a lead: who can sign in, as what. */
const shed = useShed()
const notices = useNotices()
const accounts = ref<readonly AccountAnswer[]>([])
const open = ref<string | null>(null)
const login = ref('')
const password = ref('')
const role = ref<Role>('sawyer')
const name = ref('')
const wrong = ref('')
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
    if (said !== '') notices.say(said)
    open.value = null
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
onMounted(() => attempt(() => Promise.resolve(), ''))
function edit(personId: string, personName: string, personRole: Role): void {
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
  role.value = personRole
}
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
      <li v-for="person in shed.people" :key="person.id">
        <p>
          <strong>{{ person.name }}</strong>, {{ person.role }}<br /><span class="soft">{{
            accountOf(person.id)
              ? `signs in as ${accountOf(person.id)?.login}${accountOf(person.id)?.hasPin ? ', has a PIN' : ''}`
              : 'cannot sign in; work is logged for them'
          }}</span>
        </p>
        <button
          type="button"
          class="act small"
          :aria-expanded="open === person.id"
          :aria-label="`${open === person.id ? 'Leave it: sign-in' : 'Sign-in'} of ${person.name}`"
          @click="edit(person.id, person.name, person.role)"
        >
          {{ open === person.id ? 'Leave it' : 'Sign-in' }}
        </button>
        <form v-if="open === person.id" class="editor stack" @submit.prevent="save(person.id, person.name)">
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
              }}</label><NInput
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
            <button type="submit" class="act next">Save</button
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
