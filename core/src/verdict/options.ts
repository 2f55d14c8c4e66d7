import { CUTTER_DAMAGE } from '../damage'
import type { LoopState } from '../fold'
import { filingMinutes, gaugeMinutes, grindingMinutes, neededUm, NO_MINUTES, removals, type MinutesRange } from '../sharpen'
import { mean } from '../stats'
import type { Um } from '../units'
import { learnRemoval, sharpeningsLeft, type Population } from '../wear'
import type { Forecast } from './forecast'
import type { HouseRules } from './rules'
import type { Action, Option, Reason } from './verdict'

interface Simulated {
  readonly action: Action
  readonly removalsUm: readonly Um[]
  readonly minutes: MinutesRange
  readonly against: readonly Reason[]
}

function simulate(state: LoopState, rules: HouseRules, plan: Simulated): Option {
  const { removalsUm } = plan
  const floorUm = state.spec.markLengthUm + rules.reserveUm
  const cutting = removalsUm.length > 0
  const left = state.cutters.map((cutter, i) => cutter.length.um - (removalsUm[i] ?? 0))
  const deepestUm = cutting ? Math.max(...removalsUm) : 0
  const leftUm = Math.min(...left) - state.spec.markLengthUm
  const sdUm = Math.max(...state.cutters.map(({ length }) => length.sdUm))
  const against: Reason[] = [...plan.against]
  if (cutting && leftUm < rules.reserveUm) {
    against.push({
      rule: 'tooLittleLeft',
      value: { unit: 'um', amount: leftUm },
      limit: { unit: 'um', amount: rules.reserveUm },
      limitFrom: 'house',
    })
  }
  return {
    action: plan.action,
    feasible: against.length === 0,
    reasons: against,
    deepestUm,
    meanUm: cutting ? Math.round(mean(removalsUm)) : 0,
    leftUm,
    sharpeningsLeft: sharpeningsLeft(
      leftUm + state.spec.markLengthUm - floorUm,
      sdUm,
      learnRemoval(state.removals, 'routine'),
    ),
    minutes: plan.minutes,
  }
}

/**
 * Every way of going on, each worked out cutter by cutter on this loop. A file takes from each
 * cutter what it needs; a wheel brings all of them down to
 * one stop.
 */
export function simulateOptions(state: LoopState, rules: HouseRules, { gaugePass }: Forecast): Option[] {
  const { cutters } = state
  const usual = (population: Population): Um => Math.round(learnRemoval(state.removals, population).meanUm)
  const touch = cutters.map(() => usual('touchUp'))
  const file = removals(cutters, 'file', usual('routine'), true)
  const grind = removals(cutters, 'wheel', usual('grind'), true)
  // What the damage asks for, even where the cutter has less left.
  const deepestFileUm = Math.max(...cutters.map((cutter) => neededUm(cutter, usual('routine'))))

  const skates: Reason[] = cutters.some(({ damage }) => damage.some(({ kind }) => !CUTTER_DAMAGE[kind].fileBites))
    ? [{ rule: 'fileSkates', limitFrom: 'trade' }]
    : []
  const tooDeep: Reason[] =
    deepestFileUm > rules.largestFilingUm
      ? [
          {
            rule: 'tooDeepToFile',
            value: { unit: 'um', amount: deepestFileUm },
            limit: { unit: 'um', amount: rules.largestFilingUm },
            limitFrom: 'house',
          },
        ]
      : []
  const notCleaned: Reason[] = deepestFileUm > usual('routine') ? [{ rule: 'firstThingsFirst' }] : []
  const notNeeded: Reason[] = -gaugePass.offByUm <= 0 ? [{ rule: 'notNeeded' }] : []

  const plans: Simulated[] = [
    { action: 'runOn', removalsUm: [], minutes: NO_MINUTES, against: notCleaned },
    { action: 'touchUp', removalsUm: touch, minutes: filingMinutes(touch, 'field'), against: [...skates, ...notCleaned] },
    { action: 'file', removalsUm: file, minutes: filingMinutes(file, 'bench'), against: [...skates, ...tooDeep] },
    {
      action: 'regrind',
      removalsUm: grind,
      minutes: grindingMinutes(cutters.length, Math.max(...grind)),
      against: [],
    },
    { action: 'lowerGauges', removalsUm: [], minutes: gaugeMinutes(cutters.length), against: notNeeded },
    { action: 'retire', removalsUm: [], minutes: NO_MINUTES, against: [] },
  ]
  return plans.map((plan) => simulate(state, rules, plan))
}
