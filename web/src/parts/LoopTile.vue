<script setup lang="ts">
import { ACTION_WORDS, FIT_WORDS, SHELF_NAMES, briefMinutes, sayWaitingSide, type LoopCard } from '@undercliff/core'
import { computed, useId } from 'vue'
import { useShed } from '../remote/shedStore'
import { useChosen } from './chosenStore'
import FitMark from './FitMark.vue'
import ToothSign from './ToothSign.vue'
import VerdictMark from './VerdictMark.vue'

const props = defineProps<{
  loop: LoopCard
  /** It will run on the saws that it hangs beside, but not without a drawback. */
  drawback?: boolean
}>()
const choice = useChosen()
/** Somebody else changed it while this was looked at. */
const shed = useShed()
const fresh = computed(() => shed.changed.has(props.loop.loopId))
const chosen = computed(() => choice.ids.has(props.loop.loopId))
const where = computed(() => {
  const { place, duty } = props.loop
  if (duty === 'dirty' && place.at !== 'retired') return 'for dirt'
  return place.at === 'shop' ? 'at a shop' : place.at === 'saw' || place.at === 'retired' ? '' : SHELF_NAMES[place.at]
})
/** The side that waits, where a sharpening was broken off. */
const waits = computed(() => (sayWaitingSide(props.loop.reason) === null ? null : (props.loop.reason?.hand ?? 'left')))
/** For who listens: the tag first, then what to do with it, then what the drawing shows. */
const id = useId()
function drag(event: DragEvent): void {
  event.dataTransfer?.setData('text/undercliff-loop', props.loop.loopId)
  if (event.dataTransfer !== null) event.dataTransfer.effectAllowed = 'move'
}
function tap(event: MouseEvent): void {
  if (!choice.choosing) return
  event.preventDefault()
  event.stopPropagation()
  choice.toggle(props.loop.loopId)
}
</script>

<template>
  <RouterLink
    :to="{ name: 'loop', params: { tag: loop.tag } }"
    class="tile"
    :class="[loop.action, { unfit: !loop.fitForUse, chosen }]"
    :aria-labelledby="`${id}-words ${id}-sign`"
    data-loop-tile
    :data-loop-id="loop.loopId"
    draggable="true"
    @dragstart="drag"
    @click.capture="tap"
  >
    <ToothSign :id="`${id}-sign`" class="sign" :tooth="loop.tooth" :retired="loop.retired" />
    <span :id="`${id}-words`" class="words">
      <strong class="tag figures">{{ loop.tag }}<span v-if="chosen" class="hidden-text">, chosen</span></strong>
      <span v-if="fresh" class="where fresh">just changed</span>
      <span v-else-if="waits" class="where waits">{{ waits }}<span class="hidden-text"> side</span> waits</span>
      <span v-else-if="drawback" class="where"><FitMark level="but" /> {{ FIT_WORDS.but }}</span>
      <span v-else class="where">{{ where || briefMinutes(loop.minutes) }}</span>
      <span class="verdict"><VerdictMark :action="loop.action" /> {{ ACTION_WORDS[loop.action] }}</span>
    </span>
  </RouterLink>
</template>

<style scoped>
.tile {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr);
  gap: 6px;
  align-items: center;
  min-height: 52px;
  padding: 2px 8px;
  text-decoration: none;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
}
.tile:hover {
  border-color: var(--ink);
}
.sign {
  width: 56px;
  pointer-events: none;
}
.words {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 6px;
  line-height: 1.2;
  min-width: 0;
}
.tag {
  font-size: 1.05rem;
}
.verdict {
  grid-column: 1 / 3;
  font-size: 0.86rem;
  white-space: nowrap;
}
.where {
  font-size: 0.8rem;
  color: var(--ink-soft);
  align-self: center;
  text-align: right;
  white-space: nowrap;
}
.waits {
  font-weight: 700;
  color: var(--stop);
}
.fresh {
  color: var(--ink);
  font-weight: 700;
  text-decoration: underline;
}
.tile:not(.runOn) .verdict {
  font-weight: 700;
}
.runOn .verdict {
  color: var(--ink-soft);
}
.unfit {
  border-left: 5px solid var(--stop);
  padding-left: 4px;
}
.unfit .verdict {
  color: var(--stop);
}
.chosen {
  outline: 3px solid var(--work);
  outline-offset: -1px;
}
.chosen:focus-visible {
  outline-color: var(--focus);
}
</style>
