import { CUTTER_DAMAGE } from '../damage'
import type { LoopState } from '../fold'
import { targetSetting } from '../geometry'
import { loopPriceMinor, type HouseRules } from '../house'
import type { Action } from '../log'
import {
  addMinutes,
  filingMinutesOf,
  gaugeMinutes,
  grindingMinutes,
  GUIDES,
  LONG_FILING_UM,
  newLoopMinutes,
  NO_MINUTES,
  shopMinutes,
  sidePlateOf,
  type MinutesRange,
} from '../sharpen'
import { SAW_FIGURES } from '../saw/sawState'
import type { Um } from '../units'
import { sharpeningsLeft, TOUCH_UP_LASTS, type CountRange, type RemovalBelief } from '../wear'
import { cutsOf, type Cut } from './cuts'
import type { Forecast } from './forecast'
import { learnedOf } from './learned'
import {
  bill,
  filesMinor,
  type Goods,
  labourMinor,
  metalPriceMinor,
  newLoopSpells,
  perHour,
  routineMinor,
} from './money'
import type { HouseLimits, Needs } from './needs'
import type { Option, Range, Reason, Risk } from './verdict'

/** Deeper than this under a wheel, heat has to be watched for. Starting value. */
const DEEP_GRIND_UM: Um = 1000
/** More than this by file, and it strays. Starting value. */
const DEEP_FILING_UM: Um = 800

const um = (amount: Um) => ({ unit: 'um', amount }) as const

/** What is the same for every option of a loop. */
export interface Bench {
  readonly state: LoopState
  readonly rules: HouseRules
  readonly ahead: Forecast
  readonly needs: Needs
  /** Mark and the reserve above it. */
  readonly floorUm: Um
  /** Length above the floor, before damage comes off. */
  readonly usableUm: Um
  /** Hours of sharp running after a full sharpening. */
  readonly fullHours: Range
  /** Price of a micrometre of cutter. */
  readonly metalPriceMinor: number
  /** What forfeiting the rest of the loop costs for an hour of sharp running. */
  readonly metalMostMinor: number
  readonly routine: RemovalBelief
  /** Sharpenings left when the shortest cutter is so long. */
  readonly leftAt: (shortestUm: Um) => CountRange
}

/** Works out once what every option rests on. */
export function layOut(state: LoopState, rules: HouseRules, ahead: Forecast, needs: Needs): Bench {
  const floorUm = state.spec.markLengthUm + rules.reserveUm
  const usableUm = Math.max(0, ahead.summary.shortest.length.um - floorUm)
  const lasts = sidePlateOf(rules.sidePlate).lasts
  // Sharpened at the latest when the bench is due: no spell is longer, however long the edge would last.
  const mostTanks = rules.when === 'byTanks' ? rules.benchTanks : Infinity
  const hours = (meanTanks: number): number => {
    const tanks = meanTanks * lasts
    return (tanks * (1 - Math.exp(-mostTanks / tanks)) * SAW_FIGURES.hoursPerTank.value) / ahead.wearFactor
  }
  const learned = learnedOf(state)
  const metalPrice = metalPriceMinor(state.spec, rules)
  const { mean: likely, low, high } = ahead.sharpness
  const fullHours = { low: hours(low), likely: hours(likely), high: hours(high) }
  const leftBy = new Map<Um, CountRange>()
  const leftAt = (shortestUm: Um): CountRange => {
    const left = leftBy.get(shortestUm) ?? sharpeningsLeft(shortestUm - floorUm, learned.sdUm, learned.removal.routine)
    leftBy.set(shortestUm, left)
    return left
  }
  return {
    state,
    rules,
    ahead,
    needs,
    floorUm,
    usableUm,
    fullHours,
    metalPriceMinor: metalPrice,
    metalMostMinor: (usableUm * metalPrice) / fullHours.likely,
    routine: learned.removal.routine,
    leftAt,
  }
}

interface Plan {
  readonly action: Action
  readonly cut: Cut
  readonly tool: 'file' | 'wheel' | 'none'
  readonly minutes: MinutesRange
  readonly goods: Goods
  readonly against: readonly Reason[]
  /** Part of a full sharpening's sharp hours that it gives. */
  readonly lasts: number
  readonly daysAway?: number
}

const times = ({ low, likely, high }: Range, factor: number): Range => ({
  low: low * factor,
  likely: likely * factor,
  high: high * factor,
})

/** House limits that a loop would not meet afterwards. */
function limitsBroken({ ahead, rules, state }: Bench, spreadUm: Um | null, sideUm: Um | null): Reason[] {
  if (state.duty === 'dirty') return []
  const broken: Reason[] = []
  if (spreadUm !== null && spreadUm > rules.evennessUm) {
    broken.push({
      rule: 'uneven',
      value: um(spreadUm),
      limit: um(rules.evennessUm),
      limitFrom: 'house',
      known: 'measured',
    })
  }
  const sure = (ahead.summary.difference?.p ?? 1) < 0.05
  if (sure && sideUm !== null && Math.abs(sideUm) > rules.sideDifferenceUm) {
    broken.push({
      rule: 'sidesDiffer',
      hand: sideUm > 0 ? 'left' : 'right',
      value: um(Math.abs(sideUm)),
      limit: um(rules.sideDifferenceUm),
      limitFrom: 'house',
      known: 'measured',
    })
  }
  return broken
}

function simulate(bench: Bench, plan: Plan): Option {
  const { state, rules, ahead, floorUm } = bench
  const { spec } = state
  const { cut, action, tool } = plan
  const cutting = tool !== 'none'
  const { shortestUm, spreadUm, sideDifferenceUm, damagedLeft } = cut
  const leftUm = shortestUm - spec.markLengthUm
  const against: Reason[] = [...plan.against]
  if (cutting) {
    if (shortestUm < floorUm)
      against.push({ rule: 'tooLittleLeft', value: um(leftUm), limit: um(rules.reserveUm), limitFrom: 'house' })
    against.push(...limitsBroken(bench, spreadUm, sideDifferenceUm))
  }

  const settingUm = ahead.settingUm - cut.dropUm
  const targetUm = targetSetting(spec, cut.meanAfterUm, rules)
  const lowersGauges = action === 'lowerGauges'
  const gauges =
    lowersGauges || (cutting && (targetUm - settingUm > rules.gaugeHighUm || bench.needs.gauges.length > 0))
  const gaugesWithFile = tool === 'file' && GUIDES[rules.guide].gaugesToo
  const minutes =
    gauges && !lowersGauges && !gaugesWithFile
      ? addMinutes(plan.minutes, gaugeMinutes(state.cutters.length))
      : plan.minutes

  const replaces = action === 'retire' || action === 'dirtyDuty'
  const forfeitsUm = replaces ? bench.usableUm : bench.usableUm - Math.max(0, shortestUm - floorUm)
  const money = bill(plan.goods, labourMinor(minutes.likely, rules), forfeitsUm * bench.metalPriceMinor)
  // Cutters that stay blunt do their part of the work badly.
  const sharpHours = times(bench.fullHours, plan.lasts * (1 - (cutting ? damagedLeft / state.cutters.length : 0)))
  return {
    action,
    feasible: against.length === 0,
    reasons: against,
    afterUm: cut.afterUm,
    deepestUm: cut.deepestUm,
    meanUm: cut.meanUm,
    leftUm,
    strokes: tool === 'file' ? cut.strokes : null,
    spreadUm,
    sideDifferenceUm,
    damagedLeft,
    gauges,
    settingUm: gauges ? Math.max(settingUm, targetUm) : settingUm,
    sharpeningsLeft: action === 'retire' ? NO_SHARPENINGS : bench.leftAt(shortestUm),
    minutes,
    money,
    sharpHours,
    perHourMinor: perHour(money, minutes, sharpHours, bench.metalMostMinor, rules),
    risks: cutting ? risksOf(plan, rules) : [],
    daysAway: plan.daysAway ?? 0,
  }
}

const NO_SHARPENINGS = { low: 0, likely: 0, high: 0 }

function risksOf({ action, tool, cut, daysAway }: Plan, rules: HouseRules): Risk[] {
  const risks: Risk[] = []
  if (cut.damagedLeft > 0) risks.push('cuttersLeftDull')
  if (tool === 'file' && (cut.spreadUm ?? 0) > rules.evennessUm / 2) risks.push('unevenUntilGround')
  if (tool === 'wheel' && cut.deepestUm > DEEP_GRIND_UM) risks.push('heat')
  if (action === 'file' && cut.deepestUm > DEEP_FILING_UM) risks.push('strays')
  if ((daysAway ?? 0) > 0) risks.push('away')
  return risks
}

/**
 * What the wheel is not for, where a file does the routine: dullness and shallow nicks. Stones,
 * nails, uneven loops and milling chain are.
 */
const isRoutine = ({ state, needs }: Bench, { deepestUm }: HouseLimits): boolean =>
  state.spec.cutterType !== 'ripping' &&
  deepestUm <= LONG_FILING_UM &&
  !needs.repairs.some(({ rule }) => rule === 'uneven' || rule === 'sidesDiffer' || rule === 'fileSkates')

/**
 * Every way of going on, each worked out cutter by cutter on this loop, with what speaks against
 * it, what it takes, what it costs and what it leaves.
 */
export function simulateOptions(bench: Bench, limits: HouseLimits): Option[] {
  const { state, rules, ahead, needs, fullHours } = bench
  const { cutters, spec } = state
  const { none, touchUp, grind, ...cuts } = cutsOf(state)
  const file = cuts.file(rules.unevenSchool)
  const way = { guide: rules.guide, perStrokeUm: ahead.perStroke.meanUm }
  const blued = cutters.some(({ damage }) => damage.some(({ kind }) => !CUTTER_DAMAGE[kind].fileBites))
  const skates: Reason[] = blued ? [{ rule: 'fileSkates', limitFrom: 'trade' }] : []
  const catchesUp = rules.unevenSchool === 'sameStrokes'
  const tooDeep: Reason[] =
    limits.deepestUm > rules.largestFilingUm
      ? [{ rule: 'tooDeepToFile', value: um(limits.deepestUm), limit: um(rules.largestFilingUm), limitFrom: 'house' }]
      : []
  const nothingDue: Reason[] = needs.metal.length === 0 ? [{ rule: 'notNeeded' }] : []
  const routine = isRoutine(bench, limits)
  const wheelFor: Reason[] =
    routine && rules.bench === 'fileForRoutine' ? [{ rule: 'fileForRoutine', limitFrom: 'house' }] : []
  const fileFor: Reason[] = rules.bench === 'wheelAtBench' ? [{ rule: 'wheelAtBench', limitFrom: 'house' }] : []
  const spells = newLoopSpells(spec, rules, bench.routine.meanUm)
  const replacing = {
    newLoopMinor: loopPriceMinor(spec, rules) / spells,
    upkeepMinor: (routineMinor(cutters.length, rules) * (spells - 1)) / spells,
  }
  const leftOfSpell = Math.max(0, 1 - (state.wearTanksSinceSharpened * 0.5) / Math.max(0.5, ahead.sharpness.mean))

  const plans: Plan[] = [
    {
      action: 'runOn',
      cut: none,
      tool: 'none',
      minutes: NO_MINUTES,
      goods: {},
      against: [...limits.over, ...limits.notAsItIs, ...needs.all],
      lasts: needs.all.length === 0 ? leftOfSpell : 0,
    },
    {
      action: 'lowerGauges',
      cut: none,
      tool: 'none',
      minutes: gaugeMinutes(cutters.length),
      goods: {},
      against: [
        ...limits.over,
        ...limits.notAsItIs,
        ...(needs.gauges.length === 0 ? [{ rule: 'notNeeded' } as const] : []),
        ...needs.metal,
      ],
      lasts: leftOfSpell,
    },
    {
      action: 'touchUp',
      cut: touchUp,
      tool: 'file',
      minutes: filingMinutesOf(touchUp.strokes.total, cutters.length, 'field', way.guide),
      goods: { consumablesMinor: filesMinor(touchUp.strokes.total, rules) },
      against: [
        ...limits.over,
        ...limits.notAsItIs,
        ...nothingDue,
        ...skates,
        ...(rules.where === 'bench' ? [{ rule: 'sharpenedAtBench', limitFrom: 'house' } as const] : []),
        ...needs.repairs.filter(
          ({ rule }) =>
            rule === 'shapeToPutRight' || (!catchesUp && (rule === 'damageToClean' || rule === 'tooDeepToFile')),
        ),
        ...(needs.bench ? [{ rule: 'notEnough' } as const] : []),
      ],
      lasts: TOUCH_UP_LASTS,
    },
    {
      action: 'file',
      cut: file,
      tool: 'file',
      minutes: filingMinutesOf(file.strokes.total, cutters.length, 'bench', way.guide),
      goods: { consumablesMinor: filesMinor(file.strokes.total, rules) },
      against: [...limits.over, ...nothingDue, ...skates, ...tooDeep, ...fileFor],
      lasts: 1,
    },
    {
      action: 'regrind',
      cut: grind,
      tool: 'wheel',
      minutes: grindingMinutes(cutters.length, grind.deepestUm),
      goods: { consumablesMinor: rules.wheelPerLoopMinor },
      against: [
        ...limits.over,
        ...nothingDue,
        ...(rules.grinderOwned ? [] : [{ rule: 'noGrinder', limitFrom: 'house' } as const]),
        ...wheelFor,
      ],
      lasts: 1,
    },
    {
      action: 'shop',
      cut: grind,
      tool: 'wheel',
      minutes: shopMinutes(),
      goods: { shopMinor: rules.shopFeeMinor },
      against: [
        ...limits.over,
        ...nothingDue,
        ...(rules.shopUsed ? [] : [{ rule: 'noShop', limitFrom: 'house' } as const]),
        ...wheelFor,
      ],
      lasts: 1,
      daysAway: rules.shopDays,
    },
    {
      action: 'dirtyDuty',
      cut: none,
      tool: 'none',
      minutes: newLoopMinutes(),
      goods: replacing,
      against: [
        ...(rules.dirtyDuty ? [] : [{ rule: 'dirtyNotAllowed', limitFrom: 'house' } as const]),
        ...(state.duty === 'dirty' ? [{ rule: 'dirtyAlready' } as const] : []),
        ...limits.unfit,
      ],
      lasts: 1,
    },
    {
      action: 'retire',
      cut: none,
      tool: 'none',
      minutes: newLoopMinutes(),
      goods: replacing,
      against: [],
      lasts: fullHours.likely > 0 ? 1 : 0,
    },
  ]
  return plans.map((plan) => simulate(bench, plan))
}
