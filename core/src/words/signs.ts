import type { Cause, EntryBodies, Look, Sign, Wood } from '../log'
import type { Hand } from '../loop'
import type { Told } from '../signs'

/** What a saw tells, as a person would say it. */
export const SIGN_NAMES: Readonly<Record<Sign, string>> = {
  dust: 'Dust, not shavings',
  smallerShavings: 'Shavings get smaller each time',
  push: 'Has to be pushed',
  pulls: 'Pulls to one side',
  snatches: 'Snatches, bogs, jumps',
  chatters: 'Chatters, vibrates',
  sharpButNoCut: 'Feels sharp, cuts nothing',
  dullAtOnce: 'Dull again at once',
  hot: 'Hot, smokes, stretches',
  sparks: 'Sparks, flops in the groove',
  comesOff: 'Comes off the bar',
  cornerBright: 'One corner is bright',
}

/** What the wood was, where it makes a difference. */
export const WOOD_NAMES: Readonly<Record<Wood, string>> = {
  ordinary: 'Ordinary',
  hard: 'Hard',
  dry: 'Dry, dead',
  frozen: 'Frozen',
  rotten: 'Rotten',
}

/** What may be behind a sign, in the middle of a sentence. */
export const CAUSE_NAMES: Readonly<Record<Cause, string>> = {
  dull: 'dull edges',
  gaugesHigh: 'depth gauges too high',
  gaugesLow: 'depth gauges too low',
  gaugesUneven: 'flat-fronted or uneven gauges',
  leftLonger: 'left cutters longer',
  rightLonger: 'right cutters longer',
  leftSharper: 'left side sharper than the right',
  rightSharper: 'right side sharper than the left',
  anglesDiffer: 'angles that differ',
  hook: 'a hook: filed too low, the edge too thin',
  backSlope: 'a back slope: filed too high',
  blued: 'blued steel',
  struck: 'a strike that nobody saw',
  dirt: 'grit, or the wrong chain for the dirt',
  bar: 'uneven or unturned bar rails',
  groove: 'a worn groove',
  gaugeMismatch: 'chain and bar of different gauge',
  sprocket: 'a worn sprocket',
  pitchMismatch: 'chain and sprocket of different pitch',
  tangs: 'bent or burred drive links',
  tooTight: 'chain too tight',
  slack: 'chain too slack',
  noOil: 'no oil at the chain',
  wood: 'the wood itself',
  grain: 'a cut along the grain, where fine chips are right',
  greedy: 'too greedy a bite for this wood or engine',
}

/** One look: what it is called in the middle of a sentence, how it is done, and what keeps whoever does it safe. */
interface LookWords {
  readonly name: string
  readonly how: string
  /** As for any look where it is left out; null where nothing is touched. */
  readonly caution?: string | null
}

/** For every look that puts a hand near the chain. */
const HANDS_NEAR = 'Engine off and cold or battery out, gloves on.'

const LOOK_WORDS: Readonly<Record<Look, LookWords>> = {
  edge: {
    name: 'edge against the light',
    how:
      'Turn each edge toward the light, left and right: sharp ones reflect nothing, dull ones show a bright line. ' +
      'A corner that shines was hit.',
  },
  plate: {
    name: 'gauge plate',
    how:
      'Lay the plate over some gauges on both sides: proud of it is too high, well below it too low. ' +
      'Are their fronts round?',
  },
  sideView: {
    name: 'side view',
    how: 'Look at cutters from the side: a beak is a hook, an edge that leans back is a back slope.',
  },
  colour: { name: 'colour of the steel', how: 'Look for blue or straw-yellow at the edges.' },
  sides: {
    name: 'left against right',
    how: 'Measure three or four cutters on each side and compare.',
  },
  angles: { name: 'angles', how: 'Hold the guide’s line against some cutters on each side.' },
  turnBar: {
    name: 'bar turned over',
    how: 'Turn the bar over and cut again: if the curve turns with it, it is the bar.',
    caution: `${HANDS_NEAR} The tension is right and the cover on before it runs again.`,
  },
  groove: {
    name: 'drive link in the groove',
    how: 'Stand a drive link in the groove: does it lean? Does its thickness go with what is stamped on the bar?',
  },
  turnByHand: {
    name: 'turned by hand',
    how: 'Pull the chain at the middle of the bar and draw it round by hand.',
  },
  oil: {
    name: 'oil',
    how:
      'Is there oil in the tank? Then hold the nose a hand’s breadth over something pale and run it: a line of oil ' +
      'has to come. Where none comes, engine off: is the hole in the bar clear?',
    caution: 'It runs for this one: both hands on it, the nose clear of everything, nobody near.',
  },
  sprocket: { name: 'sprocket', how: 'Cover off: are its teeth worn deep, and does its pitch go with the chain’s?' },
  tangs: { name: 'drive links', how: 'Look along the tangs for burrs and bent ones.' },
  work: {
    name: 'what it cut',
    how:
      'Think: which wood, and which way? Dry, dead, rotten or frozen wood makes dust, ' +
      'and a cut along the grain makes fine chips.',
    caution: null,
  },
}

export const LOOK_NAMES = Object.fromEntries(
  Object.entries(LOOK_WORDS).map(([look, { name }]) => [look, name]),
) as Readonly<Record<Look, string>>

/** How a look is done, for a person with gloves on. */
export const lookHow = (look: Look): string => LOOK_WORDS[look].how

/** What keeps whoever does a look safe; null where nothing is touched. */
export function lookCaution(look: Look): string | null {
  const { caution = HANDS_NEAR } = LOOK_WORDS[look]
  return caution
}

/** What is done about a cause. */
export interface Remedy {
  readonly text: string
  readonly caution: string | null
  /** Whether the saw does not cut until it is done. */
  readonly rests: boolean
}

const OFF = 'Engine off and cold or battery out, brake on, gloves on.'
const remedy = (text: string, caution: string | null = OFF, rests = false): Remedy => ({ text, caution, rests })

const touchUpSide = (side: Hand): Remedy =>
  remedy(`Touch up the ${side} cutters: the saw pulls toward the sharper side.`)
const evenSide = (side: Hand): Remedy =>
  remedy(`Give the ${side} cutters more strokes until both sides are even: the saw pulls toward the longer side.`)

/** What is done about each cause. Common practice. */
export const REMEDIES: Readonly<Record<Cause, Remedy>> = {
  dull: remedy('Touch it up now: going on dull costs more metal later, and heats the loop.'),
  gaugesHigh: remedy('Lower the gauges with a plate, and round their fronts again.', `${OFF} Never by eye.`),
  gaugesLow: remedy(
    'Do not use it. The cutters have to be filed back until the plate lies flush; a new loop until then.',
    'Gauges too low snatch, and make kickback likelier.',
    true,
  ),
  gaugesUneven: remedy('Bring all gauges to the plate and round their fronts.', `${OFF} Never by eye.`),
  leftLonger: evenSide('left'),
  rightLonger: evenSide('right'),
  leftSharper: touchUpSide('right'),
  rightSharper: touchUpSide('left'),
  anglesDiffer: remedy('Bring all cutters to one angle at the bench, with a guide or the wheel.'),
  hook: remedy('File it out at the bench, the file higher: a quarter to a fifth of it above the plate.'),
  backSlope: remedy('File it out at the bench, the file lower: a quarter to a fifth of it above the plate.'),
  blued: remedy(
    'Take it to the bench: the soft steel has to be ground away in light touches, or the loop goes.',
    'A file skates on it. Eyes covered, guard fitted; touch, lift, touch.',
    true,
  ),
  struck: remedy(
    'Take the loop off and look it over cutter by cutter before it runs.',
    'A crack, a loose rivet or a broken strap ends a loop at once.',
    true,
  ),
  dirt: remedy('Clean the bark where the saw enters, or put on a chain with rounded corners.', null),
  bar: remedy('Turn the bar over, file its rails flat and square, take the burrs off.'),
  groove: remedy('The bar’s groove is worn: close it or renew the bar, by the maker’s manual.', OFF, true),
  gaugeMismatch: remedy('This loop does not belong on this bar: take it off.', OFF, true),
  sprocket: remedy('Renew the sprocket, by the saw’s manual.', OFF, true),
  pitchMismatch: remedy('This loop does not belong on this sprocket: take it off.', OFF, true),
  tangs: remedy('Take burrs off with a flat file. Bent or cracked tangs end the loop.', OFF, true),
  tooTight: remedy('Slacken it until it runs freely by hand, and let it cool before it is set.'),
  slack: remedy(
    'Tighten it, bar tip held up: pulled at the middle, three quarters of a tang shows. Look again in ten minutes.',
  ),
  noOil: remedy('Fill the oil, clear the oil hole and the groove, and see oil come before it cuts.', OFF, true),
  wood: remedy('It is the wood: nothing needs doing. Look again in sound wood.', null),
  grain: remedy('Fine chips are right along the grain: go on. Look again across the grain.', null),
  greedy: remedy('Let it cut lighter, or put on a loop with lower bite for hard wood.', null),
}

/** What is done where three looks found nothing. */
export const NOTHING_FOUND: Remedy = remedy(
  'Nothing was found. Put on another loop and take this one to the bench.',
  'A saw that tells something, and nobody knows what, is not pushed.',
)

/** What a noticed entry says. `saySigns({ signs: ['pulls'], toward: 'right' }) // 'pulls to the right'` */
export function saySigns({ signs, toward, wood, along }: EntryBodies['noticed']): string {
  const said = signs.map((sign) =>
    sign === 'pulls' && toward !== undefined
      ? `pulls to the ${toward}`
      : `${SIGN_NAMES[sign].charAt(0).toLowerCase()}${SIGN_NAMES[sign].slice(1)}`,
  )
  const inWood = wood === undefined || wood === 'ordinary' ? [] : [`in ${WOOD_NAMES[wood].toLowerCase()} wood`]
  return [...said, ...inWood, ...(along === true ? ['along the grain'] : [])].join(', ')
}

/** Some causes, one after the other. */
export const sayCauses = (causes: readonly Cause[]): string => causes.map((cause) => CAUSE_NAMES[cause]).join('; ')

/** What a chance of at least so much is called. */
const CHANCE_WORDS = [
  [0.9, 'nearly surely'],
  [0.65, 'likely'],
  [0.35, 'perhaps'],
  [0.1, 'less likely'],
] as const

/**
 * A chance in words, with its number beside it: no word stands for a measurement.
 *
 * @example
 * sayChance(0.83) // 'likely, 83 in 100'
 */
export function sayChance(chance: number): string {
  const hundredths = Math.min(99, Math.max(1, Math.round(chance * 100)))
  const [, word] = CHANCE_WORDS.find(([least]) => chance >= least) ?? [0, 'hardly']
  return `${word}, ${hundredths} in 100`
}

/** A sign with the side that it pulls to, as a person would say it. */
export function sayTold(told: Told): string {
  if (told === 'pullsLeft') return 'Pulls to the left'
  return told === 'pullsRight' ? 'Pulls to the right' : SIGN_NAMES[told]
}
