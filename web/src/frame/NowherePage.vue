<template>
  <section class="sheet stack">
    <h1>There is nothing here</h1>
    <p>The address may be from an older tag.</p>
    <p><RouterLink class="act next" :to="{ name: 'shed' }">To the shed</RouterLink></p>
  </section>
</template>
