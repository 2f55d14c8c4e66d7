import type { LoopState } from '../state'
import { CUTTER_DAMAGE } from '../damage'
import { LONG_FILING_UM } from '../belief'
import { targetSetting } from '../geometry'
import { gaugeRuleOf, loopPriceMinor, type HouseRules, type UnevenSchool } from '../house'
import type { Action } from '../log'
import {
  addMinutes,
  gaugeMinutes,
  newLoopMinutes,
  NO_MINUTES,
  shopMinutes,
  sidePlateOf,
  stagesOf,
  type MinutesRange,
} from '../sharpen'
import { hasBumpers } from '../profile'
import { SAW_FIGURES } from '../saw/sawState'
import type { Um } from '../units'
import { sharpeningsLeft, TOUCH_UP_LASTS, type CountRange, type RemovalBelief } from '../wear'
import { chanceBeyond } from '../measure'
import { cutsOf, type Cut } from './cuts'
import { filingWay } from './filingWay'
import type { Forecast } from './forecast'
import { TOOL_FACTS, workOf, type Work, type WorkWanted } from '../jobs'
import { learnedOf } from '../jobs/learned'
import {
  bill,
  filesMinor,
  type Goods,
  goodsMinor,
  labourMinor,
  metalPriceMinor,
  newLoopSpells,
  perHour,
  routineCost,
} from './money'
import type { HouseLimits, Needs } from './needs'
import { sideBehind } from './signsSay'
import { onceFor } from '../jobs/onceFor'
import { SURE_CHANCE } from './sides'
import type { InStages, Option, Range, Reason, Risk } from './verdict'

/** Deeper than this under a wheel, heat has to be watched for. Starting value. */
const DEEP_GRIND_UM: Um = 1000
/** More than this by file, and it strays. Starting value. */
const DEEP_FILING_UM: Um = 800

const um = (amount: Um) => ({ unit: 'um', amount }) as const

/** What is the same for every option of a loop. */
export interface Basis {
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
  /** What a routine filing takes off. */
  readonly routine: RemovalBelief
  /** Sharpenings left when the shortest cutter is so long. */
  readonly leftAt: (shortestUm: Um) => CountRange
}

/** Sharpenings left by the length that they may use up, as far as they were worked out for a state. */
const leftOf = onceFor((_state: LoopState) => new Map<Um, CountRange>())

/** Works out once what every option rests on. */
export function layOut(state: LoopState, rules: HouseRules, ahead: Forecast, needs: Needs): Basis {
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
  const known = leftOf(state)
  const leftAt = (shortestUm: Um): CountRange => {
    const lengthUm = shortestUm - floorUm
    const left = known.get(lengthUm) ?? sharpeningsLeft(lengthUm, learned.sdUm, learned.mix, learned.usedUp)
    known.set(lengthUm, left)
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

/** How a filing is done, and what it leaves to the next ones. */
interface Filed {
  readonly way: UnevenSchool
  readonly stages: Omit<InStages, 'lostMinor'> | null
  /** The shortest cutter once all are sound. */
  readonly soundUm: Um
}

interface Plan {
  readonly action: Action
  readonly cut: Cut
  readonly tool: 'file' | 'wheel' | 'none'
  readonly minutes: MinutesRange
  /** What every cutter and gauge gets; null where nothing is sharpened in the house. */
  readonly work: Work | null
  readonly goods: Goods
  readonly against: readonly Reason[]
  /** Part of a full sharpening's sharp hours that it gives. */
  readonly lasts: number
  readonly daysAway: number
  /** Null where no file is used at the bench. */
  readonly filed: Filed | null
}

const times = ({ low, likely, high }: Range, factor: number): Range => ({
  low: low * factor,
  likely: likely * factor,
  high: high * factor,
})

/** House limits that a loop would not meet afterwards. */
function limitsBroken(
  { ahead: { summary }, rules, state }: Basis,
  { spreadUm, sideDifferenceUm: sideUm }: Cut,
): Reason[] {
  if (state.duty === 'dirty') return []
  const broken: Reason[] = []
  const { shortest, longest, difference } = summary
  const spreadChance = chanceBeyond(spreadUm, Math.hypot(shortest.length.sdUm, longest.length.sdUm), rules.evennessUm)
  // Of what is hardly known at all, both tails lie beyond any limit.
  if (rules.unevenSchool !== 'ownGauges' && spreadUm > rules.evennessUm && spreadChance >= SURE_CHANCE)
    broken.push({
      rule: 'uneven',
      value: um(spreadUm),
      limit: um(rules.evennessUm),
      limitFrom: 'house',
      known: 'estimated',
      chance: spreadChance,
    })
  const sideChance = chanceBeyond(sideUm, difference?.standardError ?? Infinity, rules.sideDifferenceUm)
  if (Math.abs(sideUm) > rules.sideDifferenceUm && sideChance >= SURE_CHANCE)
    broken.push({
      rule: 'sidesDiffer',
      hand: sideUm > 0 ? 'left' : 'right',
      value: um(Math.abs(sideUm)),
      limit: um(rules.sideDifferenceUm),
      limitFrom: 'house',
      known: 'estimated',
      chance: sideChance,
    })
  return broken
}

/** What speaks against a plan once it is known what it leaves. */
function againstIt(basis: Basis, { cut, tool, against }: Plan): Reason[] {
  if (tool === 'none') return [...against]
  const { state, rules, floorUm } = basis
  const leftUm = cut.shortestUm - state.spec.markLengthUm
  const tooLittle: Reason[] =
    cut.shortestUm < floorUm
      ? [{ rule: 'tooLittleLeft', value: um(leftUm), limit: um(rules.reserveUm), limitFrom: 'house' }]
      : []
  return [...against, ...tooLittle, ...limitsBroken(basis, cut)]
}

/** What a plan does about the gauges: whether they come down in the same go, to what, and how long it takes. */
function gaugesOf({ state, rules, ahead, needs }: Basis, { action, cut, tool, minutes, work }: Plan) {
  const settingUm = ahead.settingUm - cut.dropUm
  const targetUm = targetSetting(state.spec, cut.meanAfterUm, gaugeRuleOf(state, rules))
  const only = action === 'lowerGauges'
  const due = work === null ? targetUm - settingUm > rules.gaugeHighUm : work.gauges.due
  // A two-in-one brings them down with every stroke, to one setting for life.
  const onTheWay = work !== null && TOOL_FACTS[work.tool].gaugesToo
  const gauges = only || onTheWay || (tool !== 'none' && (due || needs.gauges.length > 0))
  const counted = only || onTheWay || work?.gauges.due === true
  return {
    gauges,
    settingUm: gauges ? Math.max(settingUm, onTheWay ? state.spec.settingUm : targetUm) : settingUm,
    minutes:
      gauges && !counted ? addMinutes(minutes, gaugeMinutes(state.cutters.length, hasBumpers(state.spec))) : minutes,
  }
}

/** How a filing is done and what that costs meanwhile; nothing of it where no file is used at the bench. */
function filedOf({ filed, cut }: Plan, perHourMinor: Range | null) {
  if (filed === null) return { way: null, stages: null, soundUm: cut.shortestUm }
  const { way, stages, soundUm } = filed
  if (stages === null) return { way, stages, soundUm }
  return { way, stages: { ...stages, lostMinor: Math.round(stages.lostHours * (perHourMinor?.likely ?? 0)) }, soundUm }
}

function simulate(basis: Basis, plan: Plan): Option {
  const { state, rules, floorUm, usableUm } = basis
  const { cut, action, tool } = plan
  const { shortestUm, damagedLeft } = cut
  const cutting = tool !== 'none'
  const against = againstIt(basis, plan)
  const { gauges, settingUm, minutes } = gaugesOf(basis, plan)
  const replaces = action === 'retire' || action === 'dirtyDuty'
  const forfeitsUm = replaces ? usableUm : usableUm - Math.max(0, shortestUm - floorUm)
  const metalMinor = forfeitsUm * basis.metalPriceMinor
  const spent = { goodsMinor: goodsMinor(plan.goods), metalMinor }
  // Cutters that stay blunt do their part of the work badly.
  const sharpHours = times(basis.fullHours, plan.lasts * (1 - (cutting ? damagedLeft / state.cutters.length : 0)))
  const perHourMinor = perHour(spent, minutes, sharpHours, basis.metalMostMinor, rules)
  const filed = filedOf(plan, perHourMinor)
  return {
    action,
    feasible: against.length === 0,
    reasons: against,
    afterUm: cut.afterUm,
    deepestUm: cut.deepestUm,
    meanUm: cut.meanUm,
    leftUm: shortestUm - state.spec.markLengthUm,
    strokes: plan.work === null || tool !== 'file' ? null : strokesOf(plan.work.sides),
    way: filed.way,
    stages: filed.stages,
    spreadUm: cut.spreadUm,
    sideDifferenceUm: cut.sideDifferenceUm,
    damagedLeft,
    gauges,
    settingUm,
    sharpeningsLeft: action === 'retire' ? NO_SHARPENINGS : basis.leftAt(filed.soundUm),
    minutes,
    money: bill(plan.goods, labourMinor(minutes.likely, rules), metalMinor),
    sharpHours,
    perHourMinor,
    risks: cutting ? risksOf(plan, rules) : [],
    daysAway: plan.daysAway,
  }
}

/** Strokes as the work has them: the figures of the card, the job sheet and the work step by step. */
const strokesOf = onceFor((sides: Work['sides']): NonNullable<Option['strokes']> => {
  const counts = sides.flatMap(({ cutters }) => cutters.map(({ count }) => count))
  const bySide = { left: 0, right: 0 }
  for (const { hand, count } of sides) bySide[hand] = count
  return {
    each: Math.min(...counts),
    most: Math.max(...counts),
    total: counts.reduce((sum, one) => sum + one, 0),
    bySide,
  }
})

const NO_SHARPENINGS = { low: 0, likely: 0, high: 0 }

function risksOf({ action, tool, cut, daysAway }: Plan, rules: HouseRules): Risk[] {
  const risks: Risk[] = []
  if (cut.damagedLeft > 0) risks.push('cuttersLeftDull')
  if (tool === 'file' && cut.spreadUm > rules.evennessUm / 2) risks.push('unevenUntilGround')
  if (tool === 'wheel' && cut.deepestUm > DEEP_GRIND_UM) risks.push('heat')
  if (action === 'file' && cut.deepestUm > DEEP_FILING_UM) risks.push('strays')
  if (daysAway > 0) risks.push('away')
  return risks
}

/**
 * What the wheel is not for, where a file does the routine: dullness and shallow nicks. Stones,
 * nails, uneven loops and milling chain are.
 */
const isRoutine = ({ state, needs }: Basis, { deepestUm }: HouseLimits): boolean =>
  state.spec.cutterType !== 'ripping' &&
  deepestUm <= LONG_FILING_UM &&
  !needs.repairs.some(({ rule }) => rule === 'uneven' || rule === 'sidesDiffer' || rule === 'fileSkates')

/** What several plans weigh: whether a file bites, which tool the house takes, what is needed at all. */
interface Weighed {
  readonly basis: Basis
  readonly limits: HouseLimits
  readonly nothingDue: readonly Reason[]
  readonly skates: readonly Reason[]
  /** Why the wheel is not for it, in a house that files the routine. */
  readonly notForWheel: readonly Reason[]
  /** Part of a spell that is still to come if nothing is done. */
  readonly leftOfSpell: number
}

function weigh(basis: Basis, limits: HouseLimits): Weighed {
  const { state, rules, ahead, needs } = basis
  const blued = state.cutters.some(({ damage }) => damage.some(({ kind }) => !CUTTER_DAMAGE[kind].fileBites))
  const filed = isRoutine(basis, limits) && rules.bench === 'fileForRoutine'
  return {
    basis,
    limits,
    nothingDue: needs.metal.length === 0 ? [{ rule: 'notNeeded' }] : [],
    skates: blued ? [{ rule: 'fileSkates', limitFrom: 'trade' }] : [],
    notForWheel: filed ? [{ rule: 'fileForRoutine', limitFrom: 'house' }] : [],
    leftOfSpell: Math.max(0, 1 - (state.wearTanksSinceSharpened * 0.5) / Math.max(0.5, ahead.sharpness.mean)),
  }
}

/** What was worked out of a loop, by what it was worked out under. */
const worked = onceFor((_state: LoopState) => new Map<string, Work>())

/** What a sharpening does to every cutter and gauge: the same that the card, the job sheet and the steps say. */
function workFor(state: LoopState, rules: HouseRules, action: WorkWanted['action'], school: UnevenSchool): Work {
  const { guide, pace, gaugeSchool, woodStep, gaugeHighUm, gaugeLowUm, chiselAngleDeg, chiselDownAngleDeg } = rules
  const times = `${pace.touchUp} ${pace.routine} ${pace.grind}`
  const limits = `${gaugeSchool} ${woodStep} ${gaugeHighUm} ${gaugeLowUm} ${chiselAngleDeg} ${chiselDownAngleDeg}`
  // A wheel has no guide.
  const by = action === 'regrind' ? '' : guide
  const behind = action === 'touchUp' ? sideBehind(state, rules) : null
  const how = `${action} ${action === 'file' ? school : ''} ${by} ${behind ?? ''}`
  const key = `${how} ${times} ${limits} ${rules.grinderOwned ? 1 : 0}`
  const known = worked(state)
  const before = known.get(key)
  if (before !== undefined) return before
  const work = workOf(state, rules, school, { action, personId: null, behind })
  known.set(key, work)
  return work
}

/** A reason that holds when something is so. */
const when = (so: boolean, reason: Reason): readonly Reason[] => (so ? [reason] : [])

function runningOn({ basis: { state, needs }, limits, leftOfSpell }: Weighed): Plan {
  return {
    action: 'runOn',
    cut: cutsOf(state).none,
    tool: 'none',
    minutes: NO_MINUTES,
    work: null,
    goods: {},
    against: [...limits.over, ...limits.notAsItIs, ...needs.all],
    lasts: needs.all.length === 0 ? leftOfSpell : 0,
    daysAway: 0,
    filed: null,
  }
}

function loweringGauges({ basis: { state, needs }, limits, leftOfSpell }: Weighed): Plan {
  return {
    action: 'lowerGauges',
    cut: cutsOf(state).none,
    tool: 'none',
    minutes: gaugeMinutes(state.cutters.length, hasBumpers(state.spec)),
    work: null,
    goods: {},
    against: [
      ...limits.over,
      ...limits.notAsItIs,
      ...when(needs.gauges.length === 0, { rule: 'notNeeded' }),
      ...needs.metal,
    ],
    lasts: leftOfSpell,
    daysAway: 0,
    filed: null,
  }
}

function touchingUp({ basis: { state, rules, needs }, limits, nothingDue, skates }: Weighed): Plan {
  const cut = cutsOf(state).touchUp
  const work = workFor(state, rules, 'touchUp', 'sameStrokes')
  const catchesUp = filingWay(state, rules) === 'sameStrokes'
  const beyond = ({ rule }: Reason): boolean =>
    rule === 'shapeToPutRight' || (!catchesUp && (rule === 'damageToClean' || rule === 'tooDeepToFile'))
  return {
    action: 'touchUp',
    cut,
    tool: 'file',
    work,
    minutes: work.minutes,
    goods: { consumablesMinor: filesMinor(strokesOf(work.sides).total, rules) },
    against: [
      ...limits.over,
      ...limits.notAsItIs,
      ...nothingDue,
      ...skates,
      ...when(rules.where === 'bench', { rule: 'sharpenedAtBench', limitFrom: 'house' }),
      ...needs.repairs.filter(beyond),
      ...when(needs.bench, { rule: 'notEnough' }),
    ],
    lasts: TOUCH_UP_LASTS,
    daysAway: 0,
    filed: null,
  }
}

/** What a filing leaves to the next ones, and what that costs meanwhile. */
function inStages({ state, rules, ahead, fullHours, routine }: Basis, way: UnevenSchool, { spreadUm }: Cut) {
  const apartUm = spreadUm - rules.evennessUm
  const { sharpenings, blunt } = stagesOf(
    state.cutters,
    Math.round(routine.meanUm),
    way,
    apartUm,
    ahead.perStroke.meanUm,
  )
  const lostHours = (fullHours.likely * blunt.reduce((sum, one) => sum + one, 0)) / state.cutters.length
  return sharpenings === 1 ? null : { sharpenings, lostHours }
}

function filing({ basis, limits, nothingDue, skates }: Weighed): Plan {
  const { state, rules } = basis
  const way = filingWay(state, rules)
  const cut = cutsOf(state).file(way)
  const work = workFor(state, rules, 'file', way)
  const deepestUm = way === 'sameStrokes' ? cut.deepestUm : limits.deepestUm
  return {
    action: 'file',
    cut,
    tool: 'file',
    work,
    minutes: work.minutes,
    goods: { consumablesMinor: filesMinor(strokesOf(work.sides).total, rules) },
    against: [
      ...limits.over,
      ...nothingDue,
      ...skates,
      ...when(deepestUm > rules.largestFilingUm, {
        rule: 'tooDeepToFile',
        value: um(deepestUm),
        limit: um(rules.largestFilingUm),
        limitFrom: 'house',
      }),
      ...when(rules.bench === 'wheelAtBench', { rule: 'wheelAtBench', limitFrom: 'house' }),
    ],
    lasts: 1,
    daysAway: 0,
    filed: {
      way,
      stages: inStages(basis, way, cut),
      soundUm: cutsOf(state).file(way === 'sameStrokes' ? 'matchShortest' : way).shortestUm,
    },
  }
}

function regrinding({ basis: { state, rules }, limits, nothingDue, notForWheel }: Weighed): Plan {
  const cut = cutsOf(state).grind
  const work = workFor(state, rules, 'regrind', rules.unevenSchool)
  return {
    action: 'regrind',
    cut,
    tool: 'wheel',
    work,
    minutes: work.minutes,
    goods: { consumablesMinor: rules.wheelPerLoopMinor },
    against: [
      ...limits.over,
      ...nothingDue,
      ...when(!rules.grinderOwned, { rule: 'noGrinder', limitFrom: 'house' }),
      ...notForWheel,
    ],
    lasts: 1,
    daysAway: 0,
    filed: null,
  }
}

function sendingOut({ basis: { state, rules }, limits, nothingDue, notForWheel }: Weighed): Plan {
  return {
    action: 'shop',
    cut: cutsOf(state).grind,
    tool: 'wheel',
    minutes: shopMinutes(),
    work: null,
    goods: { shopMinor: rules.shopFeeMinor },
    against: [
      ...limits.over,
      ...nothingDue,
      ...when(!rules.shopUsed, { rule: 'noShop', limitFrom: 'house' }),
      ...notForWheel,
    ],
    lasts: 1,
    daysAway: rules.shopDays,
    filed: null,
  }
}

/** A new loop takes its place, and this one is kept for dirt or goes for good. */
function replacing({ basis: { state, rules, routine, fullHours }, limits }: Weighed): readonly Plan[] {
  const { cutters, spec } = state
  const spells = newLoopSpells(spec, rules, routine.meanUm)
  const later = routineCost(spec, cutters.length, rules)
  const none = cutsOf(state).none
  const minutes = newLoopMinutes()
  const goods = {
    newLoopMinor: loopPriceMinor(spec, rules) / spells,
    upkeepMinor: ((later.labourMinor + later.toolsMinor) * (spells - 1)) / spells,
    upkeepLabourMinor: (later.labourMinor * (spells - 1)) / spells,
  }
  const notKept = [
    ...when(!rules.dirtyDuty, { rule: 'dirtyNotAllowed', limitFrom: 'house' }),
    ...when(state.duty === 'dirty', { rule: 'dirtyAlready' }),
    ...limits.unfitForDirt,
  ]
  const lasts = fullHours.likely > 0 ? 1 : 0
  return [
    {
      action: 'dirtyDuty',
      cut: none,
      tool: 'none',
      minutes,
      work: null,
      goods,
      against: notKept,
      lasts: 1,
      daysAway: 0,
      filed: null,
    },
    {
      action: 'retire',
      cut: none,
      tool: 'none',
      minutes,
      work: null,
      goods,
      against: [],
      lasts,
      daysAway: 0,
      filed: null,
    },
  ]
}

/**
 * Every way of going on, each worked out cutter by cutter on this loop, with what speaks against
 * it, what it takes, what it costs and what it leaves.
 */
export function simulateOptions(basis: Basis, limits: HouseLimits): Option[] {
  const weighed = weigh(basis, limits)
  const plans = [
    runningOn(weighed),
    loweringGauges(weighed),
    touchingUp(weighed),
    filing(weighed),
    regrinding(weighed),
    sendingOut(weighed),
    ...replacing(weighed),
  ]
  return plans.map((plan) => simulate(basis, plan))
}
