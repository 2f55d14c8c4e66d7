import type { FindingRules } from './findingRules'
import { someAtOrBelow } from '../belief'
import { chanceBeyond, type CutterSummary } from '../measure'
import { cameUsed, QUESTION_KINDS, type CutterState, type Known, type LoopState } from '../state'
import { CUTTER_DAMAGE, damageDepth, PART_DAMAGE, type DamageEffect } from '../damage'
import { lengthToRight, namedFileMisfit } from '../geometry'
import { chanceTooLow, gaugeOffUm, gaugeRuleOf, gaugeStanding } from '../house'
import { otherHand } from '../loop'
import { PITCH_PROFILES } from '../profile'
import { BEHIND_DAMAGE_UM } from '../sharpen'
import { normalBelow } from '../stats'
import { beyondAnyEdge } from '../wear'
import type { Um } from '../units'
import { tooFewCut } from './dirt'
import type { Forecast } from './forecast'
import { onceFor } from '../jobs/onceFor'
import { SURE_CHANCE } from './sides'
import type { Reason, Rule } from './verdict'

const um = (amount: Um) => ({ unit: 'um', amount }) as const

/** A reason for every cutter and part whose damage has one of the effects. */
function damageWith(state: Pick<LoopState, 'parts' | 'cutters'>, effect: DamageEffect, rule: Rule): Reason[] {
  const reasons: Reason[] = []
  for (const { kind, nearCutter } of state.parts) {
    if (PART_DAMAGE[kind].effect !== effect) continue
    reasons.push({ rule, damage: kind, limitFrom: 'trade', ...(nearCutter === null ? {} : { cutter: nearCutter }) })
  }
  for (const { number, hand, damage } of state.cutters) {
    for (const { kind } of damage) {
      if (CUTTER_DAMAGE[kind].effect === effect) {
        reasons.push({ rule, damage: kind, cutter: number, hand, limitFrom: 'trade' })
      }
    }
  }
  return reasons
}

/** A file that somebody named for the loop and that does not suit its pitch, or its wear by now. */
export function fileMisfits({ spec }: LoopState, { summary }: Forecast): Reason[] {
  const fit = namedFileMisfit(spec, summary.shortest.length.um)
  if (fit === null) return []
  const sizes = PITCH_PROFILES[spec.pitchClass].filesUm.value
  const suits = fit === 'tooLarge' ? Math.max(...sizes) : Math.min(...sizes)
  return [{ rule: 'fileMisfits', value: um(spec.fileUm), limit: um(suits), limitFrom: 'trade' }]
}

/** Chance of a cutter that was measured being at its mark from which it is taken to be there. Starting value. */
const LIKELY_AT_MARK = 0.3

/** What ends a loop at once, whatever else is true. Handbook section 6; common practice. */
export function endings(state: LoopState, { summary }: Forecast): Reason[] {
  const { spec } = state
  const reasons = damageWith(state, 'ends', 'endsLoop')
  const { shortest } = summary
  const { um: lengthUm, sdUm, known } = shortest.length
  const chance = normalBelow((spec.markLengthUm - lengthUm) / sdUm)
  if (known === 'measured' && chance >= LIKELY_AT_MARK) {
    reasons.push({
      rule: 'atMark',
      cutter: shortest.number,
      hand: shortest.hand,
      value: um(lengthUm),
      limit: um(spec.markLengthUm),
      limitFrom: 'spec',
      known,
      chance,
    })
  }
  return reasons
}

/** Damage that leaves less than the reserve behind it; no wheel helps there. */
export function nothingBehindDamage(state: LoopState, rules: FindingRules, { summary }: Forecast): Reason[] {
  const { worst, worstAfterUm } = summary
  const limitUm = state.spec.markLengthUm + rules.reserveUm
  const looked = worst.damage.every(({ estimated }) => !estimated)
  if (worst.length.known !== 'measured' || !looked || worstAfterUm >= worst.length.um || worstAfterUm > limitUm)
    return []
  return [
    {
      rule: 'noLengthBehindDamage',
      cutter: worst.number,
      hand: worst.hand,
      value: um(worstAfterUm),
      limit: um(limitUm),
      limitFrom: 'house',
      known: 'measured',
    },
  ]
}

/** What makes a loop unfit for use as it is, without ending it. */
export function stops(state: LoopState, rules: FindingRules, { slopeDeg }: Forecast): Reason[] {
  const reasons = [...damageWith(state, 'unfit', 'unfitDamage'), ...damageWith(state, 'attention', 'needsAttention')]
  const rule = gaugeRuleOf(state, rules)
  let lowest: Reason | undefined
  for (const cutter of state.cutters) {
    // An estimate counts here too: gauges once read too low stay so until filing, or a plate, says not.
    if (gaugeStanding(state.spec, cutter, rule) !== 'low') continue
    const { number, hand, setting } = cutter
    const overUm = gaugeOffUm(state.spec, cutter, rule)
    if (lowest?.value === undefined || overUm > lowest.value.amount) {
      // Back inside what is let run, and no more.
      const takesUm = lengthToRight(state.spec, Math.max(1, overUm - rules.gaugeLowUm), rule, slopeDeg)
      lowest = {
        rule: 'gaugesTooLow',
        cutter: number,
        hand,
        value: um(overUm),
        limit: um(rules.gaugeLowUm),
        limitFrom: 'house',
        known: setting.known,
        chance: chanceTooLow(state.spec, cutter, rule),
        ...(takesUm === null ? {} : { takes: um(takesUm) }),
      }
    }
  }
  // One side sharp and the other not, it pulls: what began at the bench is finished there.
  if (state.waitingSide !== null) reasons.push({ rule: 'sideWaits', hand: state.waitingSide, limitFrom: 'trade' })
  else if (state.begun !== null)
    reasons.push({ rule: 'begunNotEnded', hand: otherHand(state.begun.side), limitFrom: 'trade' })
  return lowest === undefined ? reasons : [...reasons, lowest]
}

/** What nobody knows yet and has to be looked at or measured before anything else is decided. */
export function unknowns(state: LoopState, rules: FindingRules, { summary }: Forecast): Reason[] {
  const reasons: Reason[] = []
  if (state.openStrikes.length > 0) {
    reasons.push({
      rule: 'struckUnseen',
      value: { unit: 'strikes', amount: state.openStrikes.length },
      limitFrom: 'trade',
    })
  }
  const tanksSince = Math.max(0, ...state.openStrikes.map((strike) => strike.tanksSince))
  if (tanksSince > 0) reasons.push({ rule: 'ranSinceStruck', value: { unit: 'tanks', amount: tanksSince } })
  reasons.push(
    ...QUESTION_KINDS.filter((kind) => state.questions.some((one) => one.kind === kind)).map((rule) => ({ rule })),
  )
  for (const { number, hand, damage } of summary.depthUnknown) {
    const kind = damage.find(({ kind, depthUm }) => depthUm === null && CUTTER_DAMAGE[kind].effect === 'depth')?.kind
    if (kind !== undefined) reasons.push({ rule: 'depthUnknown', cutter: number, hand, damage: kind })
  }
  const doubt = state.doubts.reduce<LoopState['doubts'][number] | undefined>(
    (most, one) => (most === undefined || one.byUm > most.byUm ? one : most),
    undefined,
  )
  if (doubt !== undefined)
    reasons.push({ rule: 'contradiction', cutter: doubt.cutter, value: um(doubt.byUm), doubt: doubt.kind })
  const chance = chanceAtMark(state)
  const { worst, worstAfterUm } = summary
  const limitUm = state.spec.markLengthUm + rules.reserveUm
  // What is being filed away over the next sharpenings need not leave length behind it all at once.
  const behind = worst.damage.every(({ catchingUp }) => catchingUp !== true)
  if (chance > MOST_AT_MARK || (behind && worst.length.known !== 'measured' && worstAfterUm <= limitUm)) {
    reasons.push({
      rule: 'perhapsAtMark',
      cutter: worst.number,
      hand: worst.hand,
      value: um(worstAfterUm),
      limit: um(limitUm),
      limitFrom: 'house',
      known: worst.length.known,
      chance,
    })
  } else reasons.push(...longUnmeasured(state, summary), ...usedUnmeasured(state, summary))
  return reasons
}

/** Part of what stood above the mark when a length was last read that may go by belief alone. Starting value. */
const MOST_ON_TRUST = 0.5

/**
 * A loop of which no reading ever showed what its sharpenings take off, while much of it is thought to be gone: by
 * how much a crew's hand differs from what is usual is no matter of deviations, it may well be twice that.
 */
function longUnmeasured({ spec, removals, life, lastMeasuredAt }: LoopState, { shortest }: CutterSummary): Reason[] {
  if (removals.length > 0 || shortest.length.known === 'measured') return []
  const read = life.findLast(({ at, known }) => known === 'measured' || at === lastMeasuredAt) ?? life[0]
  if (read === undefined) return []
  const goneUm = read.shortestUm - shortest.length.um
  const mostUm = MOST_ON_TRUST * (read.shortestUm - spec.markLengthUm)
  if (goneUm < mostUm) return []
  const { number, hand, length } = shortest
  const limits = { value: um(goneUm), limit: um(Math.round(mostUm)), limitFrom: 'trade', known: length.known } as const
  return [{ rule: 'longUnmeasured', cutter: number, hand, ...limits }]
}

/** A loop that came used, of which nobody has read a cutter: what it has left is somebody's guess. */
const usedUnmeasured = (state: LoopState, { shortest }: CutterSummary): Reason[] =>
  cameUsed(state) && state.lastMeasuredAt === null
    ? [{ rule: 'usedUnmeasured', value: um(shortest.length.um), known: shortest.length.known }]
    : []

/** Chance of a cutter at its mark above which nobody runs a loop without measuring it. Starting value. */
const MOST_AT_MARK = 0.02

/**
 * Chance that some cutter is at its mark, or past it. Of those that were measured and not sharpened
 * since nobody asks twice; a length that is held out counts as read.
 */
const chanceAtMark = onceFor(({ cutters, lengths, held, spec: { markLengthUm } }: LoopState): number => {
  if (held.some(({ um: heldUm }) => heldUm <= markLengthUm)) return 1
  return someAtOrBelow(lengths.tied, lengths.hands, (i) => {
    const cutter = cutters[i]
    if (cutter === undefined || cutter.length.known === 'measured') return -Infinity
    return markLengthUm + damageDepth(cutter.damage).knownUm
  })
})

/** Damage, shape and evenness that call for the bench: the deepest first. */
export function repairs(state: LoopState, rules: FindingRules, deepestUm: Um, { summary }: Forecast): Reason[] {
  // A loop kept for dirt need not be even, nor sharp at every corner.
  if (state.duty === 'dirty') return []
  const reasons: Reason[] = []
  const limit = um(rules.largestFilingUm)
  reasons.push(...damageWith({ parts: state.parts, cutters: [] }, 'shape', 'shapeToPutRight'))
  for (const { number, hand, damage } of summary.damaged) {
    for (const { kind, depthUm, estimated } of damage) {
      const { effect, fileBites } = CUTTER_DAMAGE[kind]
      const about = { cutter: number, hand, damage: kind }
      if (effect === 'shape') reasons.push({ rule: 'shapeToPutRight', ...about })
      if (effect !== 'depth' || depthUm === null) continue
      if (!fileBites) reasons.push({ rule: 'fileSkates', ...about, value: um(depthUm), limitFrom: 'trade' })
      else {
        const rule = deepestUm > rules.largestFilingUm ? 'tooDeepToFile' : 'damageToClean'
        const known = estimated ? 'estimated' : 'measured'
        reasons.push({
          rule,
          ...about,
          value: um(depthUm),
          limit,
          limitFrom: 'house',
          takes: um(depthUm + BEHIND_DAMAGE_UM),
          known,
        })
      }
    }
  }
  const weight = ({ rule }: Reason): number => (rule === 'fileSkates' ? 2 : rule === 'shapeToPutRight' ? 0 : 1)
  reasons.sort((a, b) => weight(b) - weight(a) || (b.value?.amount ?? 0) - (a.value?.amount ?? 0))
  return [...reasons, ...unevenness(state, rules, summary)]
}

function unevenness(state: LoopState, rules: FindingRules, summary: Forecast['summary']): Reason[] {
  const reasons: Reason[] = []
  const { difference, spreadUm, shortest, longest } = summary
  if (difference !== null) {
    const { difference: byUm, standardError } = difference
    const chance = chanceBeyond(byUm, standardError, rules.sideDifferenceUm)
    if (chance >= SURE_CHANCE)
      reasons.push({
        rule: 'sidesDiffer',
        hand: byUm > 0 ? 'left' : 'right',
        value: um(Math.round(Math.abs(byUm))),
        limit: um(rules.sideDifferenceUm),
        limitFrom: 'house',
        known: knownOf(state),
        chance,
      })
  }
  const chance = chanceBeyond(spreadUm, Math.hypot(shortest.length.sdUm, longest.length.sdUm), rules.evennessUm)
  // Of what is hardly known at all, both tails lie beyond any limit.
  if (spreadUm > rules.evennessUm && chance >= SURE_CHANCE)
    reasons.push({
      rule: 'uneven',
      cutter: shortest.number,
      hand: shortest.hand,
      value: um(spreadUm),
      limit: um(rules.evennessUm),
      limitFrom: 'house',
      // While a reading is held out nobody knows how far they differ.
      known: state.held.length === 0 && shortest.length.known === 'measured' ? longest.length.known : 'estimated',
      chance,
    })
  return reasons
}

/** How the lengths of a loop are known, taken together. */
const knownOf = ({ cutters }: LoopState): Known =>
  cutters.every(({ length }) => length.known === 'measured') ? 'measured' : 'estimated'

/** Gauges that stand high, each against its own target, or that somebody saw were not right. */
export function gaugesHigh(state: LoopState, rules: FindingRules): Reason[] {
  const seen = damageWith(state, 'gauge', 'gaugeToPutRight')
  const rule = gaugeRuleOf(state, rules)
  const high = state.cutters.filter((cutter) => gaugeStanding(state.spec, cutter, rule) === 'high')
  const [first] = high
  if (first === undefined) return seen
  const highBy = (cutter: CutterState): Um => -gaugeOffUm(state.spec, cutter, rule)
  const highest = high.reduce((most, one) => (highBy(one) > highBy(most) ? one : most), first)
  const oneSide = high.every(({ hand }) => hand === first.hand)
  return [
    ...seen,
    {
      rule: 'gaugesHigh',
      value: um(highBy(highest)),
      limit: um(rules.gaugeHighUm),
      limitFrom: 'house',
      known: highest.setting.known,
      cutters: high.length,
      ...(high.length === 1 ? { cutter: highest.number, hand: highest.hand } : oneSide ? { hand: first.hand } : {}),
    },
  ]
}

/**
 * Dullness that was seen, or that the tanks since the last sharpening make likely. A loop kept for dirt is
 * dull once too few of its cutters cut, or when the bench is due.
 */
export function dullness(state: LoopState, rules: FindingRules): Reason[] {
  const tanks = { unit: 'tanks', amount: Math.round(state.wearTanksSinceSharpened * 10) / 10 } as const
  const due = (rule: Rule, limit: number): Reason => ({
    rule,
    value: tanks,
    limit: { unit: 'tanks', amount: limit },
    limitFrom: 'house',
    known: 'estimated',
  })
  const dirty = state.duty === 'dirty'
  const seen = dirty ? tooFewCut(state) : seenDull(state)
  const reasons = seen === null ? [] : [seen]
  const missing: Reason[] = beyondAnyEdge(state) ? [{ rule: 'sharpeningMissing', value: tanks }] : []
  if (rules.when === 'onSigns') return [...reasons, ...missing]
  if (tanks.amount >= rules.benchTanks) reasons.push(due('benchDue', rules.benchTanks))
  else if (tanks.amount >= rules.touchUpTanks && !dirty) reasons.push(due('touchUpDue', rules.touchUpTanks))
  return [...reasons, ...missing]
}

/** That nothing is due, with the tanks of wear until something is, where the house goes by tanks. */
export function nothingDue({ duty, wearTanksSinceSharpened }: LoopState, rules: FindingRules): Reason {
  if (rules.when === 'onSigns') return { rule: 'nothingDue' }
  const next = duty === 'dirty' ? rules.benchTanks : Math.min(rules.touchUpTanks, rules.benchTanks)
  const left = Math.round((next - wearTanksSinceSharpened) * 10) / 10
  return left <= 0 ? { rule: 'nothingDue' } : { rule: 'nothingDue', value: { unit: 'tanks', amount: left } }
}

/** Cutters that somebody marked as dull. */
function seenDull({ cutters }: LoopState): Reason | null {
  const dulled = cutters.filter(({ damage }) => damage.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'dullness'))
  const [first] = dulled
  if (first === undefined) return null
  const kind = first.damage.find(({ kind: one }) => CUTTER_DAMAGE[one].effect === 'dullness')?.kind ?? 'rounded'
  return { rule: 'dull', damage: kind, value: { unit: 'cutters', amount: dulled.length }, known: 'measured' }
}
