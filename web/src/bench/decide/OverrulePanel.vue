<script setup lang="ts">
import { ACTION_WORDS, actionInWords, type Action } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { ref } from 'vue'
import Panel from '../../parts/Panel.vue'

/** A lead settles on something else than the verdict, and says why. */
defineProps<{ tag: string; action: Action; advised: Action; busy: boolean; wrong: string }>()
const emit = defineEmits<{ close: []; overrule: [string] }>()
const reason = ref('')
const LEAST = 3
</script>

<template>
  <Panel :title="`${ACTION_WORDS[action]} ${tag}, against the verdict`" :width="620" @close="emit('close')">
    <form class="stack" @submit.prevent="emit('overrule', reason.trim())">
      <p>
        The verdict is <strong>{{ actionInWords(advised) }}</strong>. What you settle on stands beside it in the log,
        with your reason, until something happens to the loop.
      </p>
      <div class="field">
        <label for="overrule-reason">Why</label
        ><NInput
          v-model:value="reason"
          type="textarea"
          :autosize="{ minRows: 2, maxRows: 4 }"
          :maxlength="2000"
          :input-props="{ id: 'overrule-reason' }"
          placeholder=""
        />
      </div>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <button type="submit" class="act next" :disabled="busy || reason.trim().length < LEAST">
        {{ ACTION_WORDS[action] }} all the same
      </button>
    </form>
  </Panel>
</template>
