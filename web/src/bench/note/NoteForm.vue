<script setup lang="ts">
import { capital, type LoopState } from '@undercliff/core'
import { NInput } from 'naive-ui'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import LoopAway from '../../parts/LoopAway.vue'
import LogFoot from './LogFoot.vue'
import LoopInHand from '../../parts/LoopInHand.vue'
import WhenField from '../../parts/WhenField.vue'
import WhoField from '../../parts/WhoField.vue'
import { useDraft, usePageDrafts } from '../../parts/draft'
import { useOpenLoop } from '../../remote/openLoop'
import type { NoteBody } from './noteBody'

/** What every page has that logs one thing about a loop: the loop, who, when, a note, and saving. */
const props = defineProps<{
  tag: string
  title: string
  /** What the button says. */
  save: string
  /** It cannot simply be done again. */
  grave?: boolean
  /** What is logged, or the sentence that says what is wrong with what was typed. */
  body: () => NoteBody | string
}>()
defineSlots<{ default(props: { state: LoopState }): unknown }>()
const router = useRouter()
const { loop } = useOpenLoop(() => props.tag)
const who = ref<string | null>(null)
const happenedAt = ref<string | null>(null)
const note = ref('')
const wrong = ref('')
const busy = ref(false)
const drafts = usePageDrafts()
useDraft(`${props.title}:${props.tag}`, { happenedAt, note })

async function write(): Promise<void> {
  wrong.value = ''
  const body = props.body()
  if (typeof body === 'string') {
    wrong.value = body
    return
  }
  busy.value = true
  const problem = await loop.write(
    {
      ...body,
      personId: who.value,
      ...(note.value.trim() === '' ? {} : { note: note.value.trim() }),
      ...(happenedAt.value === null ? {} : { happenedAt: happenedAt.value }),
    },
    props.title.startsWith('Log ')
      ? `${capital(props.title.slice(4))} ${props.tag} logged`
      : `${props.title}: ${props.tag} logged`,
  )
  busy.value = false
  if (problem === null) {
    for (const end of [...drafts.ends]) end(false)
    await router.push({ name: 'loop', params: { tag: props.tag } })
  } else wrong.value = problem
}
</script>

<template>
  <LoopAway v-if="loop.state === null" :status="loop.status" :tag="tag" @again="loop.open(tag)" />
  <div v-else class="desk">
    <form class="sheet log-form" @submit.prevent="write">
      <h1>{{ title }} <RouterLink :to="{ name: 'loop', params: { tag } }" class="figures">{{ tag }}</RouterLink></h1>
      <slot :state="loop.state" />
      <WhoField v-model="who" />
      <div class="abreast">
        <WhenField v-model="happenedAt" />
        <div class="field">
          <label for="note">Note</label
          ><NInput v-model:value="note" :maxlength="2000" :input-props="{ id: 'note' }" placeholder="" />
        </div>
      </div>
      <LogFoot :tag="tag" :save="save" :wrong="wrong" :busy="busy" :grave="grave" />
    </form>
    <LoopInHand :state="loop.state" />
  </div>
</template>
