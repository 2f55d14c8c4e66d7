import type { KeptWalk, UnderWay } from '@undercliff/contract'
import { watchDebounced } from '@vueuse/core'
import { keptRef } from '../../remote/keptRef'
import { nanoid } from 'nanoid'
import { ref, watch, type Ref } from 'vue'
import { deleteUnderWay, fetchUnderWay, putUnderWay, ServerRefusal } from '../../remote/api'

/** How long after the last thing that happened it is sent, in ms. */
const SEND_AFTER_MS = 700

/** What this device is called where others read of it. */
const deviceName = (): string => (matchMedia('(pointer: coarse)').matches ? 'a phone or tablet' : 'a computer')

/**
 * Keeps a sharpening where other devices find it, and says when one of them is at the same loop. Nothing waits for
 * the server: what it does not hear stays on the device.
 */
export function useElsewhere(loopId: () => string | null, kept: Ref<KeptWalk | null>) {
  const deviceId = keptRef('undercliff:device-id', nanoid(), { writeDefaults: true })
  /** Under way on another device; null for none, or once it was taken over. */
  const there = ref<UnderWay | null>(null)
  let takesOver = false

  async function look(id: string): Promise<void> {
    try {
      const found = (await fetchUnderWay(id)).underWay
      there.value = found !== null && found.deviceId !== deviceId.value ? found : null
    } catch {
      // Nobody answers: the work goes on here.
    }
  }
  watch(
    loopId,
    (id) => {
      if (id !== null) void look(id)
    },
    { immediate: true },
  )

  async function save(): Promise<void> {
    const id = loopId()
    if (id === null || kept.value === null || kept.value.events.length === 0) return
    if (there.value !== null && !takesOver) return
    const device = deviceName()
    try {
      await putUnderWay(id, { deviceId: deviceId.value, device, takeOver: takesOver, walk: kept.value })
      takesOver = false
    } catch (error) {
      // Somebody took it over meanwhile.
      if (error instanceof ServerRefusal && error.problem.code === 'under-way-elsewhere') await look(id)
    }
  }
  watchDebounced(kept, save, { debounce: SEND_AFTER_MS, deep: false })

  return {
    there,
    /** From now on it is under way here. */
    take(): void {
      takesOver = true
      there.value = null
      void save()
    },
    /** It was logged, or thrown away. */
    ended(): void {
      const id = loopId()
      if (id !== null && there.value === null) void deleteUnderWay(id, deviceId.value).catch(() => undefined)
    },
  }
}
