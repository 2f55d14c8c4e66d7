import {
  checkCount,
  checkFigure,
  linkBounds,
  plural,
  readLength,
  sayCountCheck,
  sayFigureCheck,
  sayRefusal,
  writeLength,
  type CountBounds,
  type FigureBounds,
} from '@undercliff/core'
import { ref, type Ref } from 'vue'
import { useShed } from '../remote/shedStore'

/** A figure that is typed, with what is odd about it. */
export interface Figure {
  readonly name: string
  readonly text: Ref<string>
  /** What is odd about it, once it has been looked at; nothing otherwise. */
  readonly odd: Ref<string>
  /** What it was probably meant to be, as text for the field; null where nothing fits better. */
  readonly meant: Ref<string | null>
  /** Looks at what is typed, as when the field is left. */
  readonly look: () => void
  /** Takes what was probably meant. */
  readonly take: () => void
  /** Keeps it as it was typed, where it can be. */
  readonly insist: () => void
  /**
   * The figure as a whole number of its unit, null for none, or a sentence. One that is probably a slip is asked
   * about once: read again, it stands.
   */
  readonly read: () => number | string | null
}

/** What a text says: a figure, and what is odd about it; or why it is none. */
type Seen =
  | { readonly value: number; readonly odd?: Odd }
  /** Why it cannot be read. */
  | { readonly unread: string }

interface Odd {
  readonly said: string
  readonly weight: 'refuse' | 'ask'
  readonly meant: string | null
}

function askedOnce(name: string, text: Ref<string>, see: (typed: string) => Seen): Figure {
  const odd = ref('')
  const meant = ref<string | null>(null)
  /** The text that somebody was asked about, or insists on. */
  let asked: string | null = null

  function read(): number | string | null {
    const typed = text.value.trim()
    odd.value = ''
    meant.value = null
    if (typed === '') return null
    const seen = see(typed)
    if ('unread' in seen) return `${name}: ${seen.unread}`
    if (seen.odd === undefined || (seen.odd.weight === 'ask' && asked === typed)) return seen.value
    if (seen.odd.weight === 'ask') asked = typed
    odd.value = seen.odd.said
    meant.value = seen.odd.meant
    return `${name}: ${odd.value}${seen.odd.weight === 'ask' ? ' Save again to keep it as typed.' : ''}`
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

/**
 * A length of a form in micrometres, checked for slips as every reading is: a decimal mark, the other unit, far from
 * what it was.
 *
 * @param bounds what it can be, and what it usually is; asked again for each look
 * @param text where what is typed is kept, if not here
 */
export function useFigure(name: string, bounds: () => FigureBounds, text: Ref<string> = ref('')): Figure {
  const shed = useShed()
  return askedOnce(name, text, (typed) => {
    const reading = readLength(typed, shed.bareUnit)
    if (!reading.ok) return { unread: sayRefusal(reading) }
    const check = checkFigure(reading.um, reading.unit, bounds())
    if (check.ok) return { value: reading.um }
    const meant = check.meantUm === null ? null : writeLength(check.meantUm, shed.bareUnit)
    const said = sayFigureCheck(reading.um, check, shed.lengths)
    return { value: reading.um, odd: { said, weight: check.weight, meant } }
  })
}

/** How a count or a price is read from text, said in a sentence, and written into its field. */
export interface Counted {
  readonly bounds: () => CountBounds
  /** The number that a text says; null where it says none. */
  readonly read: (text: string) => number | null
  /** What is wanted, where there is no number. */
  readonly wanted: string
  readonly say: (value: number) => string
  readonly field?: (value: number) => string
}

/** A count or a price of a form, checked for slips: digits swapped, one too many, a decimal mark. */
export function useCount(
  name: string,
  { bounds, read, wanted, say, field = String }: Counted,
  text: Ref<string>,
): Figure {
  return askedOnce(name, text, (typed) => {
    const value = read(typed)
    if (value === null) return { unread: wanted }
    const check = checkCount(value, bounds())
    if (check.ok) return { value }
    const meant = check.meant === null ? null : field(check.meant)
    return { value, odd: { said: sayCountCheck(value, check, say), weight: check.weight, meant } }
  })
}

/** The drive links of a loop or a bar, held against those that the crew's others have. */
export function useDriveLinks(text: Ref<string>): Figure {
  const shed = useShed()
  const known = (): number[] => [
    ...shed.saws.flatMap(({ driveLinks }) => driveLinks ?? []),
    ...shed.loops.map(({ spec }) => spec.driveLinks),
  ]
  return useCount(
    'Drive links',
    {
      bounds: () => linkBounds(known()),
      read: (typed) => (/^\d+$/.test(typed) ? Number(typed) : null),
      wanted: 'a whole number is wanted, such as 72.',
      say: (value) => plural(value, 'drive link'),
    },
    text,
  )
}
