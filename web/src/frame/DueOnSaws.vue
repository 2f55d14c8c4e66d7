<script setup lang="ts">
import { useReminders } from '../remote/reminders'
import { useShed } from '../remote/shedStore'

/** A look at the tension, or oil, that is due, on whatever page one is; one tap answers it. */
const reminders = useReminders()
const shed = useShed()
</script>

<template>
  <!-- It lies over the head of the page: nothing under a thumb moves when it comes. -->
  <div v-if="reminders.due.length > 0" class="reminders">
    <section
      v-for="{ sawId, what } in reminders.due"
      :key="`${sawId} ${what}`"
      class="reminder row"
      role="status"
      :data-reminder="what"
    >
      <template v-if="what === 'tension'">
        <span><strong>{{ shed.sawName(sawId) }}</strong>: engine off, look at the tension, gloves on.</span>
        <button type="button" class="act" @click="reminders.looked(sawId, true)">It stays</button>
        <button type="button" class="act" @click="reminders.looked(sawId, false)">Tightened</button>
      </template>
      <template v-else>
        <span><strong>{{ shed.sawName(sawId) }}</strong>: chain oil goes with every tank.</span>
        <button type="button" class="act" @click="reminders.oiled(sawId)">Filled</button>
        <button type="button" class="act" @click="reminders.neverOil(sawId)">Stop asking</button>
      </template>
      <button type="button" class="act" @click="reminders.later(sawId, what)">Later</button>
    </section>
  </div>
</template>

<style scoped>
.reminders {
  position: fixed;
  inset: 0 0 auto;
  z-index: 30;
  display: grid;
  gap: 6px;
  padding: 6px;
  max-width: 760px;
  margin: 0 auto;
}
.reminder {
  align-items: center;
  padding: 6px 12px;
  box-shadow: 0 2px 10px rgb(0 0 0 / 30%);
  border-left: 5px solid var(--work);
  background: var(--sheet);
}
.reminder span {
  flex: 1 1 220px;
}
.reminder .act {
  min-height: 56px;
  min-width: 56px;
}
</style>
