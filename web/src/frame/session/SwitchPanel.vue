<script setup lang="ts">
import { NInput } from 'naive-ui'
import { computed, nextTick, ref } from 'vue'
import Panel from '../../parts/Panel.vue'
import { useOutbox } from '../../remote/outbox'
import { useSession } from '../../remote/sessionStore'
import RadioChoice from '../../parts/RadioChoice.vue'

/** Another person takes over a shared bench device: a tap on a name, then the PIN. */
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const outbox = useOutbox()
const chosen = ref<string | null>(null)
const people = computed(() =>
  (session.me?.switchable ?? []).map(({ personId, name }) => ({ value: personId, label: name })),
)
const pin = ref('')
const wrong = ref('')
async function choose(personId: string): Promise<void> {
  chosen.value = personId
  pin.value = ''
  wrong.value = ''
  await nextTick()
  document.getElementById('switch-pin')?.focus()
}
async function enter(): Promise<void> {
  if (chosen.value === null) return
  await outbox.flush()
  try {
    await session.switchTo({ personId: chosen.value, pin: pin.value })
    emit('close')
  } catch (error) {
    wrong.value = (error as Error).message
    pin.value = ''
  }
}
</script>

<template>
  <Panel title="Who takes over?" :width="520" @close="emit('close')">
    <form class="stack" @submit.prevent="enter">
      <RadioChoice
        label="Who takes over"
        :model-value="chosen"
        :options="people"
        @update:model-value="(personId) => personId && choose(personId)"
      />
      <p v-if="session.me?.switchable.length === 0">Nobody has a PIN yet. Each sets their own on their page.</p>
      <div v-if="chosen" class="field">
        <label for="switch-pin">PIN</label
        ><NInput
          v-model:value="pin"
          type="password"
          :maxlength="8"
          :input-props="{ id: 'switch-pin', inputmode: 'numeric', autocomplete: 'off' }"
          placeholder=""
        />
      </div>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <div class="row">
        <button v-if="chosen" type="submit" class="act next">Take over</button
        ><RouterLink class="act" :to="{ name: 'me' }" @click="emit('close')">My page</RouterLink>
      </div>
    </form>
  </Panel>
</template>
