import { readTag, TAG_CODE_PREFIX } from '@undercliff/core'
import { onMounted, onUnmounted } from 'vue'
import { useRouter } from 'vue-router'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import { KeyBurst } from './keyBurst'

/**
 * A scanner that types opens the loop from any screen. What it typed into a field on the way is
 * taken out again.
 */
export function useWedge(): void {
  const router = useRouter()
  const shed = useShed()
  const notices = useNotices()
  const burst = new KeyBurst(TAG_CODE_PREFIX)
  let field: HTMLInputElement | HTMLTextAreaElement | null = null
  let before = ''

  function onKey(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return
    if (burst.isIdleAt(event.timeStamp)) {
      const { target } = event
      field = target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement ? target : null
      before = field?.value ?? ''
    }
    const outcome = burst.take(event.key, event.timeStamp)
    if (outcome.kind === 'typing') return
    event.preventDefault()
    event.stopImmediatePropagation()
    if (outcome.kind === 'scanning') {
      // What it put into a field before it was known for a scanner goes again.
      if (outcome.first && field !== null && field.value !== before) {
        field.value = before
        field.dispatchEvent(new Event('input', { bubbles: true }))
      }
      return
    }
    const read = readTag(
      outcome.text,
      shed.loops.map(({ tag }) => tag),
    )
    if (read.ok) void router.push({ name: 'loop', params: { tag: read.tag } })
    else notices.say(read.message)
  }
  onMounted(() => {
    window.addEventListener('keydown', onKey, { capture: true })
  })
  onUnmounted(() => {
    window.removeEventListener('keydown', onKey, { capture: true })
  })
}
