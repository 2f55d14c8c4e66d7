<script setup lang="ts">
import { useShed } from '../remote/shedStore'

/** What stands where the shed would, until it has answered. */
const shed = useShed()
</script>

<template>
  <div class="sheet stack">
    <template v-if="shed.away">
      <h1>The shed does not answer</h1>
      <p>Is Undercliff running? Nothing that you logged on this device is lost.</p>
      <p><button type="button" class="act next" @click="shed.load()">Try again</button></p>
    </template>
    <p v-else>Opening the shed …</p>
  </div>
</template>
