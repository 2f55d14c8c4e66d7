import type { StrikeObject } from '../log'

/** What a note says that a loop met, the surest first. */
const MET: readonly (readonly [StrikeObject, RegExp])[] = [
  ['metal', /\b(nail|wire|metal|fence|fencing|bolt|screw|spike|staple|iron|steel post)s?\b/],
  ['stone', /\b(stone|rock|concrete|brick|kerb|curb|gravel|flint)s?\b/],
  ['soil', /\b(soil|dirt|(?:the |some |into )ground|sand|mud|earth)\b/],
]
/** “Touched up” is filed; “touched the wall” is a strike. */
const STRUCK = /\b(hit|hits|struck|strike|strikes|met|ran into|caught|touched(?! up))\b/
/** Said of what was done about it since, or that it did not happen. */
const NOT_NOW = [
  /\b(no|not|never|without)\b[^.;,]*\b(hit|struck|strike)/,
  /\b(hit|struck|met) (nothing|no )/,
  /(ground|filed|cleaned) (it )?(out|up)/,
  /since (filed|ground|reground)|(filed|ground|reground|sharpened) since/,
]

/**
 * What a note in a sheet says that a loop struck, where nobody says that it was seen to since; null for nothing.
 *
 * @example
 * strikeIn('hit a nail in March') // 'metal'
 */
export function strikeIn(note: string): StrikeObject | null {
  const plain = note.toLowerCase()
  if (!STRUCK.test(plain) || NOT_NOW.some((words) => words.test(plain))) return null
  return (
    MET.find(([, words]) => words.test(plain))?.[0] ?? (/\b(hit|struck) something\b/.test(plain) ? 'unknown' : null)
  )
}
