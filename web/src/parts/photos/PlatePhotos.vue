<script setup lang="ts">
import { MOST_PHOTOS, SHOWS_LENGTH, type PhotoSubject } from '@undercliff/contract'
import { sayDay } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { computed, ref } from 'vue'
import { usePhotos, type ShownPhoto } from '../../remote/photoStore'
import { useNotices } from '../../remote/notices'
import { useSession } from '../../remote/sessionStore'
import { useShed } from '../../remote/shedStore'
import Panel from '../Panel.vue'
import PlatePicture from './PlatePicture.vue'
import { scaleDown } from './scaleDown'

/** Photographs of what is stamped on a bar, a loop or its box; what is stamped wears off. */
const props = defineProps<{ subject: PhotoSubject; suggestions: readonly string[] }>()
const photos = usePhotos()
const shed = useShed()
const session = useSession()
const notices = useNotices()
const shown = computed(() => photos.photosOf(props.subject))
const full = computed(() => shown.value.length >= MOST_PHOTOS)

const chosen = ref<string | null>(null)
const shows = ref('')
const wrong = ref('')
const busy = ref(false)
async function choose(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (file === undefined) return
  wrong.value = ''
  try {
    chosen.value = await scaleDown(file)
    shows.value = ''
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
const BECAME = {
  sent: 'The photograph is kept.',
  kept: 'The photograph is kept on this device until the shed answers.',
  held: 'The photograph is NOT kept, since this device has no room: leave this page open until the shed answers.',
}
async function keepIt(): Promise<void> {
  if (chosen.value === null || busy.value) return
  busy.value = true
  notices.say(BECAME[await photos.add(props.subject, chosen.value, shows.value.trim())])
  chosen.value = null
  busy.value = false
}

const open = ref<ShownPhoto | null>(null)
const sure = ref(false)
function look(photo: ShownPhoto): void {
  open.value = photo
  sure.value = false
  wrong.value = ''
}
const mayDelete = computed(
  () => open.value !== null && (session.isLead || open.value.waits || open.value.personId === session.me?.personId),
)
async function remove(): Promise<void> {
  if (open.value === null) return
  if (!sure.value) {
    sure.value = true
    return
  }
  try {
    await photos.remove(open.value)
    open.value = null
  } catch (error) {
    wrong.value = (error as Error).message
  }
}
const nameOf = ({ shows: said }: Pick<ShownPhoto, 'shows'>): string => (said === '' ? 'A photograph' : said)
</script>

<template>
  <section id="photos" class="stack" aria-labelledby="photos-title">
    <h2 id="photos-title">Photographs of stamps and plates</h2>
    <ul v-if="shown.length > 0" class="strip">
      <li v-for="photo in shown" :key="photo.id">
        <button type="button" class="thumb" :aria-label="`Look at ${nameOf(photo)}`" @click="look(photo)">
          <PlatePicture :photo-id="photo.id" :alt="nameOf(photo)" />
          <span class="said">{{ nameOf(photo) }}</span>
          <span class="soft">{{
            photo.refused ? 'Not taken' : photo.waits ? 'Waits on this device' : sayDay(photo.takenAt, shed.dates)
          }}</span>
        </button>
      </li>
    </ul>
    <p v-else class="soft">
      None yet. What is stamped wears off; a photograph of it says later what this takes. Read the figures off it into
      the spec: a picture decides nothing.
    </p>
    <div v-if="chosen" class="stack fresh">
      <img class="large" :src="`data:image/jpeg;base64,${chosen}`" alt="The photograph to keep" />
      <div class="field">
        <label for="photo-shows">What it shows</label
        ><NInput v-model:value="shows" :maxlength="SHOWS_LENGTH" :input-props="{ id: 'photo-shows' }" placeholder="" />
      </div>
      <p class="row">
        <button v-for="one in suggestions" :key="one" type="button" class="act small" @click="shows = one">
          {{ one }}
        </button>
      </p>
      <p class="row">
        <button type="button" class="act next" :disabled="busy" @click="keepIt">Keep it</button
        ><button type="button" class="act" @click="chosen = null">Throw it away</button>
      </p>
    </div>
    <div v-else-if="!full" class="row no-print">
      <input id="photo-file" class="hidden-text" type="file" accept="image/*" @change="choose" />
      <label class="act" for="photo-file">Photograph it …</label>
      <span class="soft">Engine off, chain brake on, gloves on. The plate alone, no people.</span>
    </div>
    <p v-if="wrong && !open" class="stop-text" role="alert">{{ wrong }}</p>

    <Panel v-if="open" :title="nameOf(open)" :width="900" @close="open = null">
      <PlatePicture class="large" :photo-id="open.id" :alt="nameOf(open)" />
      <p class="soft">
        {{ sayDay(open.takenAt, shed.dates) }}, {{ shed.nameOf(open.personId) }}.
        {{ open.waits ? 'It waits on this device until the shed answers.' : '' }}
      </p>
      <p v-if="open.refused" class="stop-text">The shed would not take it: {{ open.refused }}</p>
      <p v-if="wrong" class="stop-text" role="alert">{{ wrong }}</p>
      <p v-if="mayDelete" class="row">
        <button type="button" class="act" @click="remove">
          {{ sure ? 'Yes, delete it: it cannot be brought back' : 'Delete' }}
        </button>
      </p>
    </Panel>
  </section>
</template>

<style scoped>
.strip {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 10px;
}
.thumb {
  display: grid;
  gap: 2px;
  width: 100%;
  padding: 0 0 6px;
  border: 1px solid var(--rule);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.thumb > :deep(.picture) {
  height: 96px;
  object-fit: cover;
}
.thumb span {
  padding: 0 8px;
  font-size: 0.85rem;
}
.said {
  font-weight: 700;
  overflow-wrap: anywhere;
}
.large {
  max-width: 100%;
  max-height: 70vh;
  object-fit: contain;
}
.fresh .large {
  max-height: 320px;
  justify-self: start;
}
input:focus-visible + label {
  outline: 3px solid var(--steel);
  outline-offset: 2px;
}
.fresh .field {
  max-width: 420px;
}
</style>
