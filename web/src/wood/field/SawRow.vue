<script setup lang="ts">
import type { Saw } from '@undercliff/contract'
import { ACTION_WORDS } from '@undercliff/core'
import { computed } from 'vue'
import ToothSign from '../../parts/ToothSign.vue'
import VerdictMark from '../../parts/VerdictMark.vue'
import { useShed } from '../../remote/shedStore'

/** A saw that is not in hand: its loop, its tooth and one line. One tap takes it in hand. */
const props = defineProps<{ saw: Saw }>()
const emit = defineEmits<{ take: [] }>()
const shed = useShed()
const loop = computed(() => shed.loopOn(props.saw.id))
</script>

<template>
  <button
    type="button"
    class="saw-row"
    :class="{ unfit: loop?.fitForUse === false }"
    data-saw-row
    @click="emit('take')"
  >
    <ToothSign v-if="loop" class="sign" :tooth="loop.tooth" :retired="false" />
    <span v-else class="sign" aria-hidden="true"></span>
    <span>
      <strong>{{ saw.nickname }}</strong> <span v-if="loop" class="figures tag">{{ loop.tag }}</span>
      <span v-if="loop" class="line"><VerdictMark :action="loop.action" /> {{ ACTION_WORDS[loop.action] }}</span>
      <span v-else class="line soft">no loop on it</span>
    </span>
  </button>
</template>

<style scoped>
.saw-row {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  min-height: 60px;
  padding: 4px 12px;
  text-align: left;
  font: inherit;
  color: inherit;
  border: 2px solid var(--rule);
  border-radius: 4px;
  background: var(--sheet);
  cursor: pointer;
}
.unfit {
  border-left: 8px solid var(--stop);
  padding-left: 6px;
}
.unfit .line {
  color: var(--stop);
  font-weight: 700;
}
.sign {
  width: 64px;
}
.tag {
  margin-left: 6px;
}
.line {
  display: block;
}
</style>
