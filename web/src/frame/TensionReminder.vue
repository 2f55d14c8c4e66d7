<script setup lang="ts">
import { useReminders } from '../remote/reminders'
import { useShed } from '../remote/shedStore'

/** A look at the tension that is due, on whatever page one is; one tap answers it. */
const reminders = useReminders()
const shed = useShed()
</script>

<template>
  <section v-for="{ sawId } in reminders.due" :key="sawId" class="reminder row" role="status" data-reminder>
    <span
      ><strong>{{ shed.sawName(sawId) }}</strong
      >: engine off, look at the tension, gloves on.</span
    >
    <button type="button" class="act small" @click="reminders.looked(sawId, true)">It stays</button>
    <button type="button" class="act small" @click="reminders.looked(sawId, false)">Tightened</button>
    <button type="button" class="act small" @click="reminders.later(sawId)">Later</button>
  </section>
</template>

<style scoped>
.reminder {
  align-items: center;
  padding: 6px 12px;
  margin-bottom: 10px;
  border-left: 5px solid var(--work);
  background: var(--sheet);
}
</style>
