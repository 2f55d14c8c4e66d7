<script setup lang="ts">
import { ACTION_WORDS, writeMoney, type ShedEffect } from '@undercliff/core'
import { computed } from 'vue'
import Panel from './Panel.vue'

/** What a change of the rules would do to the whole shed, before it is saved. */
const props = defineProps<{ effect: ShedEffect; currency: string; odd: readonly string[]; busy: boolean }>()
const emit = defineEmits<{ save: []; close: [] }>()
const SHOWN = 12
const shown = computed(() => props.effect.turned.slice(0, SHOWN))
const money = (minor: number): string => writeMoney(minor, props.currency)
const rows = computed(() => {
  const { minutes, costMinor, unfit } = props.effect
  return [
    { name: 'Work that is due', before: `${minutes.before} min`, after: `${minutes.after} min` },
    { name: 'What it costs', before: money(costMinor.before), after: money(costMinor.after) },
    { name: 'Must not cut', before: String(unfit.before), after: String(unfit.after) },
  ]
})
const title = computed(() => {
  const { turned, loops } = props.effect
  if (turned.length === 0) return 'No verdict turns'
  return `${turned.length} of ${loops} verdicts ${turned.length === 1 ? 'turns' : 'turn'}`
})
</script>

<template>
  <Panel :title="title" :width="560" @close="emit('close')">
    <p v-for="one in odd" :key="one" class="caution" role="alert">{{ one }}</p>
    <dl class="fact-list">
      <template v-for="{ name, before, after } in rows" :key="name">
        <dt>{{ name }}</dt>
        <dd class="figures">
          {{ before }}<template v-if="before !== after"> → <strong>{{ after }}</strong></template
          ><span v-else class="soft"> as before</span>
        </dd>
      </template>
    </dl>
    <ul v-if="shown.length > 0" class="turned">
      <li v-for="{ tag, from, to } in shown" :key="tag">
        <strong class="figures">{{ tag }}</strong> {{ ACTION_WORDS[from] }} → <strong>{{ ACTION_WORDS[to] }}</strong>
      </li>
    </ul>
    <p v-if="effect.turned.length > shown.length" class="soft">And {{ effect.turned.length - shown.length }} more.</p>
    <p class="row">
      <button type="button" class="act next" :disabled="busy" @click="emit('save')">Let it hold</button>
      <button type="button" class="act" @click="emit('close')">Leave it as it is</button>
    </p>
  </Panel>
</template>

<style scoped>
.turned {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 2;
}
.turned li {
  padding: 2px 0;
}
@media (max-width: 700px) {
  .turned {
    columns: 1;
  }
}
</style>
