import { forget, keep, keptJson } from './device'
import { forgetLogs } from './keptLogs'
import { forgetSeenPhotos } from './keptPhotos'
import { KEPT_SHED } from './keptShed'
import { forgetToday } from './todaysEntries'
import type { DemoSignIn, SetUp, SignedIn, SignIn, Switch } from '@undercliff/contract'
import type { Asking } from '@undercliff/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  deleteSession,
  fetchSession,
  onSignedOut,
  postSession,
  postSetUp,
  postSwitch,
  putPin,
  putShared,
  useCsrfToken,
} from './api'

const KEPT = 'undercliff:me'

/**
 * Who is signed in on this device. The last answer is kept, so that work goes on while the server
 * is away; what it may do is decided by the server each time.
 */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useSession = defineStore('session', () => {
  const me = shallowRef<SignedIn | null>(keptJson<SignedIn>(KEPT))
  const state = ref<'asking' | 'setUp' | 'signedOut' | 'signedIn'>(me.value === null ? 'asking' : 'signedIn')
  const demo = shallowRef<readonly DemoSignIn[]>([])
  const away = ref(false)
  const isLead = computed(() => me.value?.role === 'lead')
  if (me.value !== null) useCsrfToken(me.value.csrfToken)

  function enter(answer: SignedIn): void {
    me.value = answer
    state.value = 'signedIn'
    useCsrfToken(answer.csrfToken)
    // Where the device keeps nothing, the server is asked when the page is opened.
    void keep(KEPT, JSON.stringify(answer))
  }

  function leave(): void {
    me.value = null
    state.value = 'signedOut'
    forget(KEPT)
    forget(KEPT_SHED)
    forgetToday()
    void forgetLogs()
    void forgetSeenPhotos()
  }

  /** Asks who is signed in. While the server is away, whoever was stays. */
  async function ask(): Promise<void> {
    try {
      const answer = await fetchSession()
      away.value = false
      if (answer.state === 'signedIn') enter(answer)
      else {
        if (me.value !== null) leave()
        state.value = answer.state
        demo.value = answer.state === 'signedOut' ? answer.demo : []
      }
    } catch {
      away.value = true
    }
  }
  onSignedOut(() => void ask())

  const signIn = async (body: SignIn): Promise<void> => {
    enter(await postSession(body))
  }
  const setUp = async (body: SetUp): Promise<void> => {
    enter(await postSetUp(body))
  }
  const switchTo = async (body: Switch): Promise<void> => {
    enter(await postSwitch(body))
  }
  const share = async (shared: boolean): Promise<void> => {
    enter(await putShared(shared))
  }
  const changePin = async (pin: string | null): Promise<void> => {
    enter(await putPin({ pin }))
  }
  const signOut = async (): Promise<void> => {
    await deleteSession()
    leave()
    await ask()
  }

  /** Who asks whether they may strike something out, and when. */
  const asking = (): Asking => ({ personId: me.value?.personId ?? null, nowMs: Date.now() })

  return { asking, me, state, demo, away, isLead, ask, signIn, setUp, switchTo, share, changePin, signOut }
})
