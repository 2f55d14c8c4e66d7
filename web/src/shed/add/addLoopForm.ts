import type { CutterType, LinkKind, PitchClass, Sequence, SpecField, StartMark } from '@undercliff/core'
import { useKeptForm, type KeptForm } from './keptForm'

/** Nothing of a loop is a fact before somebody says it. */
export const EMPTY_LOOP = {
  tag: '',
  /** Nobody takes a used loop for a new one: it has to be said. */
  came: null as 'new' | 'used' | null,
  /** What a used one has left by eye; null where nobody looked. */
  leftUm: null as number | null,
  /** Half the width of what was said; null where a single figure was. */
  leftWithinUm: null as number | null,
  /** Why what was typed of it cannot be read. */
  leftWrong: '',
  /** A shelf, or the id of a saw. */
  place: 'bench',
  pitchClass: null as PitchClass | null,
  gaugeUm: null as number | null,
  driveLinks: '',
  cutterType: null as CutterType | null,
  sequence: null as Sequence | null,
  /** Null is the first of the profile's. */
  fileUm: null as number | null,
  startMark: 'none' as StartMark,
  links: 'plain' as LinkKind,
  /** What is stamped on its links or printed on its box. */
  stamp: '',
  /** The crew's own profile that it starts from. */
  profileId: null as string | null,
  /** What was measured on the way here. */
  measured: [] as SpecField[],
  newLength: '',
  markLength: '',
}
export type AddLoopForm = typeof EMPTY_LOOP

/** What has been typed on the screen that adds a loop. */
export const addLoopForm = (): KeptForm<AddLoopForm> => useKeptForm('undercliff:addLoop', EMPTY_LOOP)
