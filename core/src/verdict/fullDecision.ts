import type { LoopState, RemovalSample } from '../state'
import { grinderSettings, type GrinderSettings } from '../geometry'
import { rulesConflicts, type HouseRules, type Question, type RulesConflict } from '../house'
import type { Instant } from '../log'
import { angleMeant } from '../sharpen'
import type { LifetimeBelief } from '../stats'
import {
  endDate,
  learnBy,
  learnRemoval,
  tanksLeft,
  type CountRange,
  type EndDate,
  type GaugePass,
  type RemovalBelief,
  type RemovalMix,
  type RemovalGroups,
  type StrokeBelief,
} from '../wear'
import { decide } from './decide'
import { forecast } from './forecast'
import { sensitivity, type Turn } from './sensitivity'
import { sideBalance, type SideBalance } from './sides'
import { everySchool, type SchoolOutcome } from './tradeOff'
import type { Verdict } from './verdict'

/** What a loop has ahead of it, every figure with its range. */
export interface Life {
  readonly sharpeningsLeft: CountRange
  readonly tanksLeft: CountRange
  readonly end: EndDate | null
  readonly gaugePass: GaugePass
  readonly gaugesDue: CountRange | null
  readonly removal: RemovalBelief
  /** What a sharpening takes off whichever kind it is, as often as this loop gets each. */
  readonly mix: RemovalMix
  /** What was measured to come off, session by session, the latest first. */
  readonly sessions: readonly RemovalSample[]
  readonly touchUp: RemovalGroups
  readonly routine: RemovalGroups
  readonly perStroke: StrokeBelief
  /** Tanks, weighted by dirt, that it stays sharp. */
  readonly sharpness: LifetimeBelief
  readonly slopeDeg: number
}

/** Everything that can be said about what to do with a loop. */
export interface FullDecision {
  readonly verdict: Verdict
  readonly sides: SideBalance
  readonly life: Life
  readonly turns: readonly Turn[]
  readonly schools: Readonly<Record<Question, readonly SchoolOutcome[]>>
  readonly grinder: GrinderSettings
  readonly conflicts: readonly RulesConflict[]
}

/** What a loop has ahead of it. */
export function lifeOf(state: LoopState, rules: HouseRules, now: Instant): Life {
  const ahead = forecast(state, rules)
  return {
    sharpeningsLeft: ahead.sharpeningsLeft,
    tanksLeft: tanksLeft(ahead.sharpeningsLeft, state),
    end: endDate(ahead.sharpeningsLeft, state.sharpenings, state.registeredAt, now),
    gaugePass: ahead.gaugePass,
    gaugesDue: ahead.gaugesDue,
    removal: learnRemoval(state, 'routine'),
    mix: ahead.removal,
    sessions: [...state.removals].reverse(),
    touchUp: learnBy(state.removals, 'touchUp'),
    routine: learnBy(state.removals, 'routine'),
    perStroke: ahead.perStroke,
    sharpness: ahead.sharpness,
    slopeDeg: ahead.slopeDeg,
  }
}

/** Grinder settings for the regrind that was worked out for a loop. */
export function grinderFor(
  state: LoopState,
  rules: HouseRules,
  { options }: Pick<Verdict, 'options'>,
): GrinderSettings {
  const regrind = options.find(({ action }) => action === 'regrind')
  const ahead = forecast(state, rules)
  return grinderSettings(state.spec, {
    angleDeg: angleMeant(state, rules),
    downAngleDeg: rules.chiselDownAngleDeg,
    stopUm: (regrind?.leftUm ?? 0) + state.spec.markLengthUm,
    settingUm: ahead.targetUm,
  })
}

/**
 * The decision in full: verdict, options, what would change it, sides, life, and what every school
 * of the trade would come to.
 *
 * @param now the present, from which dates are counted
 */
export function decideFully(state: LoopState, rules: HouseRules, now: Instant): FullDecision {
  const verdict = decide(state, rules)
  return {
    verdict,
    sides: sideBalance(state, rules, forecast(state, rules)),
    life: lifeOf(state, rules, now),
    turns: sensitivity(state, rules, verdict),
    schools: everySchool(state, rules, verdict),
    grinder: grinderFor(state, rules, verdict),
    conflicts: rulesConflicts(rules),
  }
}
