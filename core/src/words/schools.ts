import type { Question, SchoolId } from '../house'

/** What a question on which crews disagree is about. */
export const QUESTION_WORDS: Readonly<Record<Question, string>> = {
  uneven: 'Uneven or damaged cutters, by file',
  gauges: 'Depth gauges',
  file: 'File for 3/8"',
  chisel: 'Angles on full chisel',
  sidePlate: 'Side plate',
  guide: 'What guides the file',
  when: 'When, and where',
  bench: 'File or wheel',
}

/** A school in words: what it is called, and what it trades, in a few words. */
export interface SchoolWords {
  readonly name: string
  readonly trades: string
}

/** The schools of every question in words. Common practice. */
export const SCHOOL_WORDS: { readonly [Q in Question]: Readonly<Record<SchoolId<Q>, SchoolWords>> } = {
  uneven: {
    matchShortest: { name: 'Match the shortest', trades: 'Straight cut now; takes the most metal.' },
    sameStrokes: {
      name: 'Same strokes for all',
      trades: 'Least metal; a short or nicked cutter catches up over the next few, and some are dull meanwhile.',
    },
    worstSetsCount: {
      name: 'Worst sets the count',
      trades: 'Every cutter clean and sharp; the strokes the worst needs, for all.',
    },
    extraOnBad: { name: 'Extra on the bad ones', trades: 'Each to clean steel; uneven until it is next ground.' },
    ownGauges: {
      name: 'Each gauge to its own cutter',
      trades: 'Lengths may differ, as long as every gauge is set on its own cutter; sides still may not.',
    },
  },
  gauges: {
    constant: {
      name: 'One setting for life',
      trades: 'A simple plate across several cutters; a worn chain bites less and less.',
    },
    progressive: {
      name: 'Growing with wear',
      trades: 'The attack stays as it was when new; a plate on the single cutter, its step by the saw and the day.',
    },
  },
  file: {
    oneSize: { name: 'One file for life', trades: 'One size in the pocket.' },
    largerThenSmaller: {
      name: 'Larger, later smaller',
      trades: 'A stronger edge while the cutter is tall; two sizes to carry.',
    },
  },
  chisel: {
    thirtyFlat: { name: '30°, no down angle', trades: 'Quick in clean wood.' },
    twentyFiveFlat: { name: '25°, no down angle', trades: 'Smoother, and steadier in hard wood.' },
    thirtyDown: { name: '30°, 10° down', trades: 'As some grind full chisel; some makers say none.' },
    twentyFiveDown: { name: '25°, 10° down', trades: 'For hard wood, ground with the table tilted.' },
  },
  sidePlate: {
    moreHook: { name: 'More hook', trades: 'Quicker in clean soft wood; a thin edge that goes sooner.' },
    neutral: { name: 'Between', trades: 'Neither greedy nor slow.' },
    lessHook: { name: 'Less hook', trades: 'Holds up in hard wood; cuts slower.' },
    third: { name: 'A third above the plate', trades: 'The bluntest edge: holds up longest, cuts slowest.' },
  },
  guide: {
    topPlate: { name: 'On the top plate', trades: 'The same result on any chain; hides the tooth.' },
    chassis: {
      name: 'On the chassis',
      trades: 'Shows the tooth; the file stands higher against it as the cutter wears.',
    },
    twoInOne: { name: 'Two in one', trades: 'Edge and gauge in one stroke; always to one setting.' },
    jig: { name: 'Clamp-on jig', trades: 'Every cutter to one stop; slow.' },
    freehand: { name: 'Freehand', trades: 'Fast; needs skill, and strays most.' },
  },
  when: {
    everyTank: { name: 'Every tank, in the field', trades: 'Never dull; the most touch-ups.' },
    everySecondTank: {
      name: 'Every second tank, in the field',
      trades: 'Half the stops; a little dull at the end.',
    },
    onSigns: { name: 'On signs only', trades: 'Fewest stops; relies on people noticing.' },
    sparesToBench: {
      name: 'Carry spares, sharpen at the bench',
      trades: 'Better work in the warm; more loops to own.',
    },
  },
  bench: {
    fileForRoutine: {
      name: 'File for the routine',
      trades: 'The wheel only for stones, nails, uneven loops and milling chain.',
    },
    wheelAtBench: {
      name: 'Wheel for all at the bench',
      trades: 'Even every time; a little more metal, and heat to watch.',
    },
    cheapest: { name: 'Whichever costs least', trades: 'Time and metal weighed each time.' },
  },
}

/** `schoolWords('guide', 'jig').name // 'Clamp-on jig'` */
export const schoolWords = (question: Question, id: SchoolId): SchoolWords =>
  (SCHOOL_WORDS[question] as Record<SchoolId, SchoolWords>)[id]
