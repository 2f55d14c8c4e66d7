/** What a saw tells before anybody measures. */
export const SIGNS = [
  'dust',
  'smallerShavings',
  'push',
  'pulls',
  'snatches',
  'chatters',
  'sharpButNoCut',
  'dullAtOnce',
  'hot',
  'sparks',
  'comesOff',
  'cornerBright',
] as const
export type Sign = (typeof SIGNS)[number]

/** What may be behind a sign: the edge, the gauges, the two sides, the shape, the steel, the saw, the work. */
export const CAUSES = [
  'dull',
  'gaugesHigh',
  'gaugesLow',
  'gaugesUneven',
  'leftLonger',
  'rightLonger',
  'leftSharper',
  'rightSharper',
  'anglesDiffer',
  'hook',
  'backSlope',
  'blued',
  'struck',
  'dirt',
  'bar',
  'groove',
  'gaugeMismatch',
  'sprocket',
  'pitchMismatch',
  'tangs',
  'tooTight',
  'slack',
  'noOil',
  'wood',
  'grain',
  'greedy',
] as const
export type Cause = (typeof CAUSES)[number]

/** One thing to look at. */
export const LOOKS = [
  'edge',
  'plate',
  'sideView',
  'colour',
  'sides',
  'angles',
  'turnBar',
  'groove',
  'turnByHand',
  'oil',
  'sprocket',
  'tangs',
  'work',
] as const
export type Look = (typeof LOOKS)[number]

/** What the wood was like, as far as it makes a difference to what a saw tells. */
export const WOODS = ['ordinary', 'hard', 'dry', 'frozen', 'rotten'] as const
export type Wood = (typeof WOODS)[number]
