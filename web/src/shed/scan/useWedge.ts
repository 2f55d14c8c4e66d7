import { readTag, TAG_CODE_PREFIX } from '@undercliff/core'
import { onMounted, onUnmounted } from 'vue'
import { useRouter } from 'vue-router'
import { useNotices } from '../../remote/notices'
import { useShed } from '../../remote/shedStore'
import { KeyBurst } from './keyBurst'
import { WildBurst } from './wildBurst'

/** What types by itself does not rest so long within a code, in ms. Starting value. */
const REST_MS = 100
const NO_TEXT = new Set(['checkbox', 'radio', 'button', 'submit', 'range', 'file', 'color'])
type TextField = HTMLInputElement | HTMLTextAreaElement
const textField = (target: EventTarget | null): TextField | null =>
  (target instanceof HTMLInputElement && !NO_TEXT.has(target.type)) || target instanceof HTMLTextAreaElement
    ? target
    : null

/** Whether a field takes the key. One for readings takes letters for commands while it is empty. */
function fieldTakes({ target, key }: KeyboardEvent): boolean {
  if (target instanceof HTMLSelectElement) return true
  const field = textField(target)
  if (field === null) return target instanceof HTMLElement && target.isContentEditable
  return !(field.hasAttribute('data-reading') && field.value === '' && /^\p{Letter}$/u.test(key))
}

function write(field: TextField, text: string): void {
  field.value = text
  field.dispatchEvent(new Event('input', { bubbles: true }))
}

function stop(event: KeyboardEvent): void {
  event.preventDefault()
  event.stopImmediatePropagation()
}

/** Puts a key where it would have gone, had it not waited. */
function press(event: KeyboardEvent, again: WeakSet<Event>): void {
  const { key, code, shiftKey } = event
  // Where the focus has gone meanwhile, the key goes too.
  const target = event.target instanceof Element && event.target.isConnected ? event.target : document.body
  const copy = new KeyboardEvent('keydown', { key, code, shiftKey, bubbles: true, cancelable: true })
  again.add(copy)
  const field = textField(target)
  if (!target.dispatchEvent(copy) || field === null) return
  const [from, to] = [field.selectionStart ?? 0, field.selectionEnd ?? 0]
  write(field, field.value.slice(0, from) + key + field.value.slice(to))
}

/**
 * A scanner that types opens the loop from any screen. What it typed into a field on the way is
 * taken out again. Another thing that types by itself outside a field does nothing, and is named.
 */
export function useWedge(): void {
  const router = useRouter()
  const shed = useShed()
  const notices = useNotices()
  const burst = new KeyBurst(TAG_CODE_PREFIX)
  const again = new WeakSet<Event>()
  const giveBack = (events: readonly KeyboardEvent[]): void => {
    for (const event of events) press(event, again)
  }
  const wild = new WildBurst<KeyboardEvent>(giveBack, (text) => {
    notices.say(`“${text.slice(0, 60)}” was read, and is no tag of this shed. Nothing was done with it.`)
  })
  let field: TextField | null = null
  let before = ''
  /** Once a code went past a field for readings, the rest of it does. */
  let isWild = false
  let lastMs = -Infinity

  function open(text: string): void {
    const tags = shed.loops.map(({ tag }) => tag)
    const read = readTag(text, tags)
    if (read.ok) void router.push({ name: 'loop', params: { tag: read.tag } })
    else notices.say(read.message)
  }
  function onWild(event: KeyboardEvent): void {
    if (event.key.length === 1 && fieldTakes(event) && !isWild) return
    const caught = wild.take(event.key, event, event.timeStamp)
    isWild = caught === 'held'
    if (caught !== 'through') stop(event)
  }
  function onKey(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey || again.has(event)) return
    if (event.timeStamp - lastMs > REST_MS) isWild = false
    lastMs = event.timeStamp
    if (burst.isIdleAt(event.timeStamp)) {
      field = textField(event.target)
      before = field?.value ?? ''
    }
    const outcome = burst.take(event.key, event.timeStamp)
    if (outcome.kind === 'typing') {
      onWild(event)
      return
    }
    stop(event)
    wild.drop()
    if (outcome.kind === 'code') {
      open(outcome.text)
      return
    }
    // What it put into a field before it was known for a scanner goes again.
    if (outcome.first && field !== null && field.value !== before) write(field, before)
  }
  onMounted(() => {
    window.addEventListener('keydown', onKey, { capture: true })
  })
  onUnmounted(() => {
    window.removeEventListener('keydown', onKey, { capture: true })
    wild.drop()
  })
}
