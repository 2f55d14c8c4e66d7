<script setup lang="ts">
import {
  linkPricesFor,
  loopPriceMinor,
  moneyField,
  priceBounds,
  PRICE_NAMES,
  readMoney,
  startingPrices,
  writeMoney,
  type HouseRules,
  type LoopSpec,
  type PriceName,
  type ShedEffect,
} from '@undercliff/core'
import { computed, ref } from 'vue'
import { postRulesEffect, putRules } from '../../remote/api'
import { useCount, type Figure } from '../../parts/figure'
import EffectPanel from '../../parts/EffectPanel.vue'
import FigureField from '../../parts/FigureField.vue'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'

/** Three prices decide most: asked where they first do, and until then named as starting prices. */
const props = defineProps<{ spec: LoopSpec }>()
const shed = useShed()
const session = useSession()
const rules = computed(() => shed.rules)
const starting = computed(() => startingPrices(rules.value))
const wrong = ref('')
const busy = ref(false)
/** What was said, with what it would do to the whole shed. */
const pending = ref<{ part: Partial<HouseRules>; effect: ShedEffect } | null>(null)
const LABELS: Readonly<Record<PriceName, string>> = {
  loop: 'A new loop like this one',
  hour: 'An hour of work',
  shop: 'A visit to a shop',
}
const now = computed((): Record<PriceName, number> => ({
  loop: loopPriceMinor(props.spec, rules.value),
  hour: rules.value.labourPerHourMinor,
  shop: rules.value.shopFeeMinor,
}))
/** One field for each; an amount far from the price that stands is asked about once. */
const fieldOf = (name: PriceName): Figure =>
  useCount(
    LABELS[name],
    {
      bounds: () => priceBounds(now.value[name]),
      read: (typed) => readMoney(typed, rules.value.currency),
      wanted: `an amount is wanted, such as ${moneyField(now.value[name], rules.value.currency)}.`,
      say: (minor) => writeMoney(minor, rules.value.currency),
      field: (minor) => moneyField(minor, rules.value.currency),
    },
    ref(''),
  )
const fields: Readonly<Record<PriceName, Figure>> = {
  loop: fieldOf('loop'),
  hour: fieldOf('hour'),
  shop: fieldOf('shop'),
}
const listed = computed(() =>
  starting.value
    .map((name) => `${LABELS[name].toLowerCase()} ${writeMoney(now.value[name], rules.value.currency)}`)
    .join(', '),
)

/** The rules with what was said; one that was left empty stays as it is, and is agreed to. */
function said(): Partial<HouseRules> | string {
  const part: { -readonly [K in keyof HouseRules]?: HouseRules[K] } = {}
  for (const name of starting.value) {
    const minor = fields[name].read()
    if (minor === null) continue
    if (typeof minor === 'string') return minor
    if (name === 'hour') part.labourPerHourMinor = minor
    else if (name === 'shop') part.shopFeeMinor = minor
    else part.linkPriceMinor = linkPricesFor(props.spec, minor, rules.value)
  }
  return { ...part, saidPrices: [...PRICE_NAMES] }
}
async function save(): Promise<void> {
  if (!shed.loaded) await shed.load()
  const part = said()
  if (typeof part === 'string') {
    wrong.value = part
    return
  }
  await trying(async () => {
    pending.value = { part, effect: await postRulesEffect({ ...rules.value, ...part }) }
  })
}
/** They hold once somebody has seen which verdicts they turn. */
const hold = (): Promise<void> =>
  trying(async () => {
    await putRules({ ...rules.value, ...pending.value?.part })
    pending.value = null
    await shed.load()
  })
async function trying(to: () => Promise<void>): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    await to()
  } catch (error) {
    pending.value = null
    wrong.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section v-if="starting.length > 0" class="sheet stack" aria-labelledby="prices-title">
    <h2 id="prices-title">Prices that nobody has said yet</h2>
    <p class="caution">
      Money here rests on starting prices: {{ listed }}.
      {{ session.isLead ? 'Say yours; an empty one stands as it is.' : 'A lead says what they are.' }}
    </p>
    <form v-if="session.isLead" class="row prices" @submit.prevent="save">
      <FigureField
        v-for="name in starting"
        :key="name"
        :figure="fields[name]"
        :placeholder="moneyField(now[name], rules.currency)"
      />
      <button type="submit" class="act" :disabled="busy">These are our prices</button>
    </form>
    <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
    <EffectPanel
      v-if="pending"
      :effect="pending.effect"
      :currency="rules.currency"
      :odd="[]"
      :busy="busy"
      @save="hold"
      @close="pending = null"
    />
  </section>
</template>

<style scoped>
.prices {
  align-items: end;
}
.field {
  flex: 1 1 160px;
}
</style>
