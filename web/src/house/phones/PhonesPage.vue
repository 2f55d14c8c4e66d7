<script setup lang="ts">
import type { ReachAnswer } from '@undercliff/contract'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { fetchReach } from '../../remote/api'
import { askDevice, type DeviceCan } from '../../parts/deviceCan'

/** How a phone of the crew gets here for the first time, and what this device can do where it is. */
const reach = shallowRef<ReachAnswer | null>(null)
const wrong = ref('')
const can = shallowRef<DeviceCan | null>(null)
onMounted(async () => {
  can.value = await askDevice()
  try {
    reach.value = await fetchReach()
  } catch (error) {
    wrong.value = (error as Error).message
  }
})
const own = computed(() => (reach.value?.by === 'authority' ? reach.value : null))
const code = computed(() => `data:image/svg+xml,${encodeURIComponent(own.value?.firstCode ?? '')}`)
const lines = computed(() => own.value?.fingerprint.match(/(?:[0-9A-F]{2}:?){1,8}/g) ?? [])
const given = computed(() => (reach.value?.by === 'certificate' || reach.value?.by === 'proxy' ? reach.value : null))
const DEVICE = [
  { part: 'secure', yes: 'The address is secure.', no: 'The address is not secure: nothing of the rest can be.' },
  {
    part: 'opensAlone',
    yes: 'Undercliff opens here out of range too.',
    no: 'Undercliff does not open here out of range yet. Load the page once more, or add it to the home screen.',
  },
  {
    part: 'keeps',
    yes: 'The browser promised to keep what is logged here.',
    no: 'The browser has not promised to keep what is logged here. It does so for what is on the home screen.',
  },
] as const
const print = (): void => {
  window.print()
}
</script>

<template>
  <div class="phones">
    <section class="sheet stack">
      <h1>A phone comes to Undercliff</h1>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <template v-if="own">
        <p>
          Once for each phone: it takes this crew's own certificate, and from then on opens Undercliff out of range,
          keeps what is logged, and reads tags with its camera.
        </p>
        <ol class="stack">
          <li>
            <strong>Point the phone's camera at this.</strong> It has to be on the same network.
            <img class="code" :src="code" :alt="`QR code of ${own.firstAddress}`" />
            <span class="figures">{{ own.firstAddress }}</span>
          </li>
          <li>
            <strong>Compare the figures</strong> that the phone shows with these, of paper or of this screen. Where one
            differs, take nothing: somebody else may be answering.
            <span class="print figures"><span v-for="line in lines" :key="line">{{ line }}</span></span>
          </li>
          <li>
            <strong>Do what the page on the phone says,</strong> until its top says that the phone knows it. Then open
            <span class="figures">{{ own.address }}</span>, sign in, and add it to the home screen from the browser's
            menu.
          </li>
        </ol>
        <p class="soft">
          The certificate can vouch for {{ own.names.join(', ') }} and for nothing else, so that who steals its key
          opens no other door. It stays in the data folder and is in no backup: a shed that is brought back elsewhere
          makes another, and every phone takes that one once.
        </p>
        <p class="no-print"><button type="button" class="act" @click="print">Print this page</button></p>
      </template>
      <template v-else-if="given">
        <p>
          Every phone opens <strong class="figures">{{ given.address }}</strong>. Sign in there, and add it to the home
          screen from the browser's menu; there is nothing to install.
        </p>
        <p v-if="!given.address.startsWith('https:')" class="caution grave">
          That address is not secure: phones do not open it out of range and cannot use their camera there. Whoever runs
          the proxy can give it a certificate.
        </p>
      </template>
      <template v-else-if="reach">
        <p>Undercliff answers on this computer alone, so no phone gets to it yet.</p>
        <p>
          Whoever runs it stops it and starts it on the address that this computer has in the network of the shed, or on
          a name that the network knows it by:
        </p>
        <p><code class="command">./start --host 192.168.1.20</code></p>
        <p class="soft">
          It makes a certificate of the crew's own then, and this page says how a phone takes it. The README has the
          other ways: a certificate that phones know already, and a proxy.
        </p>
      </template>
    </section>
    <section v-if="can" class="sheet stack no-print">
      <h2>This device, at this address</h2>
      <ul class="can">
        <li v-for="{ part, yes, no } in DEVICE" :key="part" :class="{ not: !can[part] }">{{ can[part] ? yes : no }}</li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.phones {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 14px;
  align-items: start;
}
.code {
  display: block;
  width: 220px;
  height: 220px;
  margin: 10px 0;
  background: #fff;
}
.print {
  display: grid;
  margin-top: 8px;
  font-size: 1.05rem;
  line-height: 1.5;
  overflow-wrap: anywhere;
}
.can {
  display: grid;
  gap: 10px;
  padding: 0;
  list-style: none;
}
.can li {
  border-left: 6px solid var(--steel);
  padding: 4px 12px;
}
.can .not {
  border-color: var(--work);
}
@media (max-width: 900px) {
  .phones {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
