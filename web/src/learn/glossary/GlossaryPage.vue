<script setup lang="ts">
import { GLOSSARY } from '../../parts/glossary'

/** The words of the trade and of Undercliff, one meaning for one word. */
</script>

<template>
  <article class="sheet stack">
    <h1>Words</h1>
    <section v-for="chapter in GLOSSARY" :key="chapter.name">
      <h2>{{ chapter.name }}</h2>
      <dl>
        <div v-for="{ word, meaning, id } in chapter.words" :id="id" :key="id">
          <dt>{{ word }}</dt>
          <dd>{{ meaning }}</dd>
        </div>
      </dl>
    </section>
    <p class="row no-print"><RouterLink class="act small" :to="{ name: 'wear' }">What wears</RouterLink></p>
  </article>
</template>

<style scoped>
dl {
  margin: 6px 0 14px;
  columns: 2 360px;
  column-gap: 32px;
}
dl div {
  break-inside: avoid;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
dl div:target {
  border-left: 6px solid var(--work);
  padding-left: 10px;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
</style>
