import { useSessionStorage } from '@vueuse/core'
import type { CutterType, LinkKind, PitchClass, Sequence, SpecField, StartMark } from '@undercliff/core'

/** What has been typed on the screen that adds a loop; a reload keeps it. */
export const addLoopForm = () =>
  useSessionStorage(
    'undercliff:addLoop',
    {
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
      pitchClass: 'threeEighths' as PitchClass,
      gaugeUm: 1500,
      driveLinks: '72',
      cutterType: 'semiChisel' as CutterType,
      sequence: 'full' as Sequence,
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
    },
    { mergeDefaults: true },
  )
