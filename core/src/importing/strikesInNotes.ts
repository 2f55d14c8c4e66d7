import type { StrikeObject } from '../log'

/** What a note says that a loop met, the surest first. */
const MET: readonly (readonly [StrikeObject, RegExp])[] = [
  ['metal', /nail|wire|metal|fence|bolt|screw|spike|staple|iron|steel post/],
  ['stone', /stone|rock|concrete|brick|kerb|curb|gravel|flint/],
  ['soil', /soil|dirt|ground|sand|mud|earth/],
]
const STRUCK = /\b(hit|struck|strike|met|ran into|caught|touched)\b/
/** Said of what was done about it since, or that it did not happen. */
const NOT_NOW =
  /\b(no|not|never|without)\b[^.;,]*\b(hit|struck|strike)|ground out|filed out|cleaned up since|since (filed|ground)/

/**
 * What a note in a sheet says that a loop struck, where nobody says that it was seen to since; null for nothing.
 *
 * @example
 * strikeIn('hit a nail in March') // 'metal'
 */
export function strikeIn(note: string): StrikeObject | null {
  const plain = note.toLowerCase()
  if (!STRUCK.test(plain) || NOT_NOW.test(plain)) return null
  return (
    MET.find(([, words]) => words.test(plain))?.[0] ?? (/\b(hit|struck) something\b/.test(plain) ? 'unknown' : null)
  )
}
