import {
  checkFigure,
  readLength,
  sayFigureCheck,
  sayRefusal,
  writeLength,
  type FigureBounds,
  type Um,
} from '@undercliff/core'
import { computed, ref, type ComputedRef, type Ref } from 'vue'
import { useShed } from '../remote/shedStore'

/** A figure that is typed, with what is odd about it. */
export interface Figure {
  readonly name: string
  readonly text: Ref<string>
  /** What is odd about it, once it has been looked at; nothing otherwise. */
  readonly odd: Ref<string>
  /** What it was probably meant to be, as text for the field; null where nothing fits better. */
  readonly meant: ComputedRef<string | null>
  /** Looks at what is typed, as when the field is left. */
  readonly look: () => void
  /** Takes what was probably meant. */
  readonly take: () => void
  /** Keeps it as it was typed, where it can be. */
  readonly insist: () => void
  /**
   * The figure in micrometres, null for none, or a sentence. One that is probably a slip is asked about once: read
   * again, it stands.
   */
  readonly read: () => Um | string | null
}

/**
 * A figure of a form, checked for slips as every reading is: a decimal mark, the other unit, far from what it was.
 *
 * @param bounds what it can be, and what it usually is; asked again for each look
 * @param text where what is typed is kept, if not here
 */
export function useFigure(name: string, bounds: () => FigureBounds, text: Ref<string> = ref('')): Figure {
  const shed = useShed()
  const odd = ref('')
  const meantUm = ref<Um | null>(null)
  /** The text that somebody was asked about, or insists on. */
  let asked: string | null = null
  const meant = computed(() => (meantUm.value === null ? null : writeLength(meantUm.value, shed.bareUnit)))

  function read(): Um | string | null {
    const typed = text.value.trim()
    odd.value = ''
    meantUm.value = null
    if (typed === '') return null
    const reading = readLength(typed, shed.bareUnit)
    if (!reading.ok) return `${name}: ${sayRefusal(reading)}`
    const check = checkFigure(reading.um, reading.unit, bounds())
    if (check.ok || (check.weight === 'ask' && asked === typed)) return reading.um
    if (check.weight === 'ask') asked = typed
    odd.value = sayFigureCheck(reading.um, check, shed.lengths)
    meantUm.value = check.meantUm
    return `${name}: ${odd.value}${check.weight === 'ask' ? ' Save again to keep it as typed.' : ''}`
  }
  return {
    name,
    text,
    odd,
    meant,
    read,
    look: () => {
      const said = read()
      if (typeof said === 'string' && odd.value === '') odd.value = said
    },
    take: () => {
      if (meant.value === null) return
      text.value = meant.value
      read()
    },
    insist: () => {
      asked = text.value.trim()
      read()
    },
  }
}
