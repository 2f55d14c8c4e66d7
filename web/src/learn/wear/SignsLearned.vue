<script setup lang="ts">
import { CAUSE_NAMES, learnedSigns, sayTold, type LearnedSign, type SignCounts } from '@undercliff/core'
import { computed } from 'vue'

/** What was found behind each sign, and how far that moved the chances that the signs page reckons with. */
const props = defineProps<{ counts: SignCounts }>()
const signs = computed(() => learnedSigns(props.counts))
const title = computed(() => {
  const [most] = signs.value
  const [first] = most?.shows ?? []
  if (most === undefined || first === undefined) return 'Nothing was found behind a sign yet'
  return `${sayTold(most.told)}: ${CAUSE_NAMES[first.cause]} ${first.seen} of ${most.found} times`
})
const part = (chance: number): string => `${Math.round(chance * 100)}`
const share = ({ found }: LearnedSign, seen: number): string => `${(100 * seen) / found}%`
</script>

<template>
  <section aria-labelledby="signs-title">
    <h2 id="signs-title">{{ title }}</h2>
    <p v-if="signs.length === 0" class="soft">
      Say what a saw tells and what it was, on <em>What it tells</em> of a loop. Until then its chances are starting
      values: common practice, not this crew’s.
    </p>
    <template v-else>
      <div class="signs">
        <div v-for="sign in signs" :key="sign.told">
          <h3>{{ sayTold(sign.told) }}</h3>
          <ul>
            <li v-for="{ cause, seen, starts, now } in sign.shows" :key="cause">
              <span>{{ CAUSE_NAMES[cause] }}</span>
              <span class="bar" aria-hidden="true"><span :style="{ width: share(sign, seen) }" /></span>
              <span class="figures">{{ seen }} of {{ sign.found }}</span>
              <span class="soft figures">shows so {{ part(now) }} in 100, at first {{ part(starts) }}</span>
            </li>
          </ul>
        </div>
      </div>
      <p class="soft small">
        Findings of all loops. Each moves a chance a little; a starting value is worth six findings.
      </p>
    </template>
  </section>
</template>

<style scoped>
.signs {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 18px 28px;
  margin: 12px 0;
}
h3 {
  font-size: 1rem;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 90px auto;
  gap: 0 10px;
  align-items: center;
}
.bar {
  height: 12px;
  border: 1px solid var(--rule-strong);
}
.bar span {
  display: block;
  height: 100%;
  background: var(--steel);
}
li .soft {
  grid-column: 1 / -1;
  font-size: 0.88rem;
}
.small {
  font-size: 0.88rem;
}
</style>
