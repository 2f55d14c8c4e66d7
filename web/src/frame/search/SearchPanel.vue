<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import Panel from '../../parts/Panel.vue'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import type { EarlyKeys } from './earlyKeys'
import { Finder, type Found } from './find'

/** Anything, from anywhere: type its beginning, Enter opens it. */
const props = defineProps<{ early: EarlyKeys }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const shed = useShed()
const session = useSession()
const typed = ref('')
const at = ref(0)
const field = ref<HTMLInputElement | null>(null)
const finder = computed(
  () =>
    new Finder({ loops: shed.loops, saws: shed.saws, people: shed.people, isLead: session.isLead, dates: shed.dates }),
)
const found = computed(() => finder.value.find(typed.value))
watch(typed, () => (at.value = 0))
onMounted(async () => {
  await nextTick()
  field.value?.focus()
  const before = props.early.take()
  typed.value = before.text
  if (before.entered) open(found.value[0])
})

function go(by: number): void {
  if (found.value.length === 0) return
  at.value = (at.value + by + found.value.length) % found.value.length
  document.getElementById(`found-${at.value}`)?.scrollIntoView({ block: 'nearest' })
}
function open(one: Found | undefined): void {
  if (one === undefined) return
  emit('close')
  void router.push(one.to)
}
</script>

<template>
  <Panel title="Search" :width="620" @close="emit('close')">
    <input
      ref="field"
      v-model="typed"
      type="search"
      role="combobox"
      class="plain"
      aria-label="Search loops, saws, people, screens and words"
      aria-controls="found"
      aria-autocomplete="list"
      :aria-expanded="found.length > 0"
      :aria-activedescendant="found.length > 0 ? `found-${at}` : undefined"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      @keydown.down.prevent="go(1)"
      @keydown.up.prevent="go(-1)"
      @keydown.enter.prevent="open(found[at])"
    />
    <ul id="found" role="listbox" aria-label="Found">
      <li
        v-for="(one, i) in found"
        :id="`found-${i}`"
        :key="`${one.kind} ${one.name}`"
        role="option"
        :aria-selected="i === at"
        @click="open(one)"
        @pointermove="at = i"
      >
        <strong>{{ one.name }}</strong> <span class="soft">{{ one.about }}</span>
      </li>
    </ul>
    <p v-if="found.length === 0" role="status">
      Nothing begins with that. A tag, a saw, a name, a screen or a word of the trade is found.
    </p>
  </Panel>
</template>

<style scoped>
.plain {
  width: 100%;
  min-height: 56px;
  font-size: 1.15rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: min(60vh, 460px);
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(90px, max-content) minmax(0, 1fr);
  gap: 14px;
  align-items: center;
  min-height: var(--target);
  padding: 4px 12px;
  border-left: 6px solid transparent;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
}
li span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
li[aria-selected='true'] {
  border-left-color: var(--work);
  background: var(--ground);
}
</style>
