import { forecast } from '@undercliff/core'
import { seeded } from '@undercliff/demo'
import { Crew, oneCrew, type Tally } from './crew'
import { Coverage, Sides } from './figures'
import type { Policy } from './policies'
import type { Scenario } from './scenario'

/** What a season of one crew came to. */
export interface Season {
  readonly tally: Tally
  readonly coverage: Coverage
  readonly sides: Sides
  /** Cost of a sharp hour in minor units. */
  readonly perHourMinor: number
}

/** Tanks between two looks at what is known. */
const LOOK_EVERY = 7

/** Plays one crew through a season under a policy. The same seed brings the same wood, stones and hands. */
export function playSeason(scenario: Scenario, policy: Policy, seed: number): Season {
  const random = seeded(seed)
  const crew = new Crew(oneCrew(scenario, random), random)
  const aside = seeded(seed ^ 0x5bd1e995)
  const coverage = new Coverage()
  const sides = new Sides()
  for (let tank = 1; tank <= scenario.tanks; tank += 1) {
    const fit = policy.before(crew, sides)
    crew.work(fit)
    if (policy.looks !== true || tank % LOOK_EVERY !== 0) continue
    const state = crew.state()
    const ahead = forecast(state, crew.rules)
    const floorUm = state.spec.markLengthUm + crew.rules.reserveUm
    const left = crew.truth.sharpeningsLeft(floorUm, crew.scenario.people, aside, ahead.removal.parts)
    coverage.note(crew.truth, state, ahead, left)
  }
  const { tally } = crew
  // What has gone of the loop at hand belongs to the hours that it gave; what it came with does not.
  const minor = tally.minor + crew.wornMinor()
  return { tally, coverage, sides, perHourMinor: minor / Math.max(0.1, tally.sharpHours) }
}
