<script setup lang="ts">
import type { IScannerControls } from '@zxing/browser'
import { readTag, tagCode } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, onUnmounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useShed } from '../../remote/shedStore'
import { standInScanner } from './standInScanner'
import SelectField from '../../parts/SelectField.vue'

/** A loop by its tag: through the camera, typed, or from a scanner that types. */
const shed = useShed()
const router = useRouter()
const route = useRoute()
const text = ref('')
const wrong = ref('')
const nearest = ref<readonly string[]>([])
const video = ref<HTMLVideoElement | null>(null)
const looking = ref(false)
const standIn = ref<string | null>(null)
let controls: IScannerControls | null = null

function take(code: string): boolean {
  const read = readTag(
    code,
    shed.loops.map(({ tag }) => tag),
  )
  if (read.ok) {
    stop()
    // Who came from the wood has the saw in hand.
    void router.push(
      route.query.to === 'wood'
        ? { name: 'wood', query: { tag: read.tag } }
        : { name: 'loop', params: { tag: read.tag } },
    )
    return true
  }
  wrong.value = read.message
  nearest.value = read.nearest
  return false
}
function stop(): void {
  controls?.stop()
  controls = null
  looking.value = false
}
async function look(): Promise<void> {
  wrong.value = ''
  nearest.value = []
  if (!('mediaDevices' in navigator)) {
    wrong.value =
      'The browser gives no camera to a page that is not encrypted. Type the tag, or use a scanner that types.'
    return
  }
  looking.value = true
  try {
    const { BrowserQRCodeReader } = await import('@zxing/browser')
    if (video.value === null) return
    controls = await new BrowserQRCodeReader().decodeFromConstraints(
      { video: { facingMode: 'environment' } },
      video.value,
      (result) => {
        if (result) take(result.getText())
      },
    )
  } catch (error) {
    stop()
    wrong.value =
      (error as Error).name === 'NotAllowedError'
        ? 'The camera was not allowed. Type the tag, or allow it in the browser.'
        : 'There is no camera that can be used. Type the tag.'
  }
}
onUnmounted(stop)
const options = computed(() =>
  shed.loops.filter(({ retired }) => !retired).map(({ tag }) => ({ value: tag, label: tag })),
)
/** Only where it is asked for: with the demo crew, or by `?standIn` in the address. */
const offersStandIn = computed(() => shed.crew?.demo === true || 'standIn' in route.query)
const scanWithStandIn = (): void => {
  if (standIn.value !== null) standInScanner(tagCode(standIn.value))
}
</script>

<template>
  <div class="desk">
    <form class="sheet log-form" @submit.prevent="take(text)">
      <h1>Which loop?</h1>
      <div class="field">
        <label for="tag-text">The tag</label
        ><NInput
          v-model:value="text"
          autofocus
          size="large"
          :input-props="{ id: 'tag-text', autocapitalize: 'characters', autocomplete: 'off', enterkeyhint: 'go' }"
          placeholder=""
        />
      </div>
      <div v-if="wrong" role="alert" class="stack">
        <p class="stop-text">
          <strong>{{ wrong }}</strong>
        </p>
        <p v-if="nearest.length > 0" class="row">
          Is it
          <RouterLink
            v-for="tag in nearest"
            :key="tag"
            class="act small figures"
            :to="{ name: 'loop', params: { tag } }"
            >{{ tag }}</RouterLink
          >
        </p>
      </div>
      <button type="submit" class="act next save">Open the loop</button>
      <div class="stack">
        <button v-if="!looking" type="button" class="act" @click="look">Scan with the camera</button>
        <button v-else type="button" class="act" @click="stop">Stop the camera</button>
        <video v-show="looking" ref="video" muted playsinline aria-label="What the camera sees" />
      </div>
      <p class="soft">
        A scanner that types works on every screen, with no setting: point it at a tag. No tag to be read?
        <RouterLink :to="{ name: 'identify' }">Which chain is this?</RouterLink>
      </p>
    </form>
    <aside v-if="offersStandIn" class="sheet stack">
      <h2>Stand-in scanner</h2>
      <p class="soft">For trying it out without one: types a tag's code as a scanner does.</p>
      <SelectField v-model="standIn" :options="options" aria-label="Tag to scan" placeholder="A tag" />
      <button type="button" class="act" :disabled="standIn === null" @click="scanWithStandIn">Scan it</button>
    </aside>
  </div>
</template>

<style scoped>
video {
  width: 100%;
  max-height: 50vh;
  background: #000;
  border-radius: 4px;
}
aside {
  align-content: start;
}
</style>
