import { readLength, sayRefusal, type LengthUnit, type Um } from '../units'

/** What somebody says that is left of a loop's cutters, by eye. */
export type About =
  | {
      readonly ok: true
      readonly um: Um
      /** Half the width of what was said; null where a single figure was. */
      readonly withinUm: Um | null
    }
  | { readonly ok: false; readonly message: string }

/** Parts of what a new cutter may lose, as people say them, and half the width of each. */
const PARTS: readonly (readonly [RegExp, number])[] = [
  [/^(nothing|none|almost (none|nothing|gone))$/, 0.03],
  [/^(a )?quarter$/, 0.25],
  [/^(a )?third$/, 1 / 3],
  [/^(a )?half$/, 0.5],
  [/^two[ -]thirds$/, 2 / 3],
  [/^three[ -]quarters$/, 0.75],
  [/^(nearly|almost) (all|new|full)$/, 0.95],
]
/** Half the width of a part that was said in a word, and of one in per cent. Starting values. */
const WORD_WITHIN = 0.125
const PER_CENT_WITHIN = 0.1
const ABOUT = /^(?:~|≈|about|around|roughly|ca\.?|circa)\s*/
const RANGE = /^([\d.,]+)\s*(?:-|–|\.\.|to)\s*([\d.,]+)\s*(mm|in|inch|"|”)?$/

/** Half a step of the last figure that was given: what is rounded to whole millimetres lies within half of one. */
function halfStep(figure: string, unit: LengthUnit): Um {
  const decimals = /[.,](\d+)/.exec(figure)?.[1]?.length ?? 0
  return Math.round((0.5 / 10 ** decimals) * (unit === 'inch' ? 25_400 : 1000))
}

/**
 * Reads what somebody says is left, who did not measure it: a figure, a range, "about" one, a part or a percentage of
 * what a new cutter has above the mark.
 *
 * @param of a new cutter and the mark, as readings, and the unit of a figure that names none
 * @example
 * readAbout('4-5', { newUm: 8000, markUm: 0, bare: 'mm' })  // { ok: true, um: 4500, withinUm: 500 }
 * readAbout('50 %', { newUm: 8000, markUm: 0, bare: 'mm' }) // { ok: true, um: 4000, withinUm: 800 }
 */
export function readAbout(
  text: string,
  { newUm, markUm, bare }: { readonly newUm: Um; readonly markUm: Um; readonly bare: 'mm' | 'inch' },
): About {
  const said = text.trim().toLowerCase()
  const usable = Math.max(0, newUm - markUm)
  const part = (share: number, within: number): About => ({
    ok: true,
    um: Math.round(markUm + share * usable),
    withinUm: Math.round(within * usable),
  })
  const bareSaid = said.replace(ABOUT, '')
  const word = PARTS.find(([pattern]) => pattern.test(bareSaid))
  if (word !== undefined) return part(word[1], WORD_WITHIN)
  const perCent = /^(\d+(?:[.,]\d+)?)\s*(?:%|per ?cent)$/.exec(bareSaid)?.[1]
  if (perCent !== undefined) {
    const share = Number(perCent.replace(',', '.')) / 100
    return share <= 1 ? part(share, PER_CENT_WITHIN) : { ok: false, message: 'More than all of it cannot be left.' }
  }
  const range = RANGE.exec(bareSaid)
  if (range !== null) return between(range, bare)
  const reading = readLength(bareSaid, bare)
  if (!reading.ok)
    return { ok: false, message: `${sayRefusal(reading)} Say 4.0, ~4, 4-5, half or 50 %, or leave it empty.` }
  const isAbout = bareSaid !== said
  return { ok: true, um: reading.um, withinUm: isAbout ? halfStep(bareSaid, reading.unit) : null }
}

function between([, from = '', to = '', unit = '']: RegExpExecArray, bare: 'mm' | 'inch'): About {
  const [low, high] = [readLength(`${from} ${unit}`.trim(), bare), readLength(`${to} ${unit}`.trim(), bare)]
  if (!low.ok) return { ok: false, message: sayRefusal(low) }
  if (!high.ok) return { ok: false, message: sayRefusal(high) }
  if (high.um <= low.um) return { ok: false, message: 'The second figure of a range is the greater one.' }
  return { ok: true, um: Math.round((low.um + high.um) / 2), withinUm: Math.round((high.um - low.um) / 2) }
}
