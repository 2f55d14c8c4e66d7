import { figureOver, Share, type Figure } from './figures'
import { playSeason, type Season } from './play'
import { followsVerdict, HABITS, oracle, READING_HABITS, type Policy } from './policies'
import type { Scenario } from './scenario'

/** What a policy comes to over many crews. Money in units of the crew's money, lengths in millimetres. */
export interface Outcome {
  readonly policy: string
  readonly perSharpHour: Figure
  readonly hoursOfWork: Figure
  readonly sharpHours: Figure
  readonly wastedMm: Figure
  readonly retired: Figure
  readonly unsafeTanks: Figure
  readonly unsafeThoughFit: Figure
  /** Part of the 95 % ranges that held the truth; null where nothing was looked at. */
  readonly holdsLengths: number | null
  readonly holdsSides: number | null
  readonly holdsSharpenings: number | null
  /** Part of true side differences above 0.4 mm that were said by the second look, and of false alarms. */
  readonly sidesSaid: number | null
  readonly falseAlarms: number | null
}

function outcomeOf(policy: Policy, seasons: readonly Season[]): Outcome {
  const over = (of: (season: Season) => number): Figure => figureOver(seasons.map(of))
  const share = (of: (season: Season) => Share): number | null => {
    const all = new Share()
    for (const season of seasons) all.add(of(season))
    return all.part
  }
  return {
    policy: policy.name,
    perSharpHour: over(({ perHourMinor }) => perHourMinor / 100),
    hoursOfWork: over(({ tally }) => tally.minutes / 60),
    sharpHours: over(({ tally }) => tally.sharpHours),
    wastedMm: over(({ tally }) => (tally.retired === 0 ? 0 : tally.wastedUm / tally.retired / 1000)),
    retired: over(({ tally }) => tally.retired),
    unsafeTanks: over(({ tally }) => tally.unsafe),
    unsafeThoughFit: over(({ tally }) => tally.unsafeThoughFit),
    holdsLengths: share(({ coverage }) => coverage.lengths),
    holdsSides: share(({ coverage }) => coverage.sides),
    holdsSharpenings: share(({ coverage }) => coverage.sharpenings),
    sidesSaid: share(({ sides }) => sides.said),
    falseAlarms: share(({ sides }) => sides.falseAlarms),
  }
}

/** Every policy there is: the verdict under each reading habit, the oracle, and the habits of the trade. */
const POLICIES: readonly Policy[] = [...READING_HABITS.map((habit) => followsVerdict(habit)), oracle, ...HABITS]

/**
 * Plays a scenario under every policy.
 *
 * @param crews how many crews, each with a seed of its own
 */
export function prove(scenario: Scenario, seed: number, crews: number): Outcome[] {
  return POLICIES.map((policy) =>
    outcomeOf(
      policy,
      Array.from({ length: crews }, (_, crew) => playSeason(scenario, policy, seed * 10_007 + crew)),
    ),
  )
}

const HEADINGS = [
  'policy',
  'a sharp hour',
  'hours of work',
  'wasted mm',
  'unsafe',
  'though fit',
  'lengths',
  'sides',
  'left',
  'said',
  'false',
]
const part = (value: number | null): string => (value === null ? '' : `${(100 * value).toFixed(0)} %`)
const figure = ({ mean, low, high }: Figure, digits: number): string =>
  `${mean.toFixed(digits)} (${low.toFixed(digits)} to ${high.toFixed(digits)})`

/** The outcomes as a table in Markdown. */
export function tableOf(outcomes: readonly Outcome[]): string {
  const rows = outcomes.map((one) => [
    one.policy,
    figure(one.perSharpHour, 2),
    one.hoursOfWork.mean.toFixed(1),
    one.wastedMm.mean.toFixed(2),
    figure(one.unsafeTanks, 1),
    one.unsafeThoughFit.mean.toFixed(2),
    ...[one.holdsLengths, one.holdsSides, one.holdsSharpenings, one.sidesSaid, one.falseAlarms].map(part),
  ])
  return [HEADINGS, HEADINGS.map(() => '---'), ...rows].map((cells) => `| ${cells.join(' | ')} |`).join('\n')
}
