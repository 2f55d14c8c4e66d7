import { loopPriceMinor, type HouseRules, type Prices } from '../house'
import { BENCH_FIGURES, usableLengthUm, type LoopSpec } from '../profile'
import { usualTool } from '../jobs/tools'
import { evenLoad, strokesFor, workMinutes, type MinutesRange } from '../sharpen'
import { REMOVAL_PRIORS } from '../wear'
import type { Money, Option, Range } from './verdict'

/** Price of a micrometre of cutter: a new loop ÷ what can be filed off it. */
export const metalPriceMinor = (spec: LoopSpec, rules: HouseRules): number =>
  loopPriceMinor(spec, rules) / Math.max(1, usableLengthUm(spec) - rules.reserveUm)

/** `labourMinor(20, { labourPerHourMinor: 3000 }) // 1000` */
export const labourMinor = (minutes: number, { labourPerHourMinor }: Pick<Prices, 'labourPerHourMinor'>): number =>
  (minutes / 60) * labourPerHourMinor

/** Files that so many strokes use up. */
export const filesMinor = (strokes: number, { filePriceMinor }: Pick<Prices, 'filePriceMinor'>): number =>
  (strokes / BENCH_FIGURES.fileLifeStrokes.value) * filePriceMinor

/** What an option costs beside work and metal. */
export interface Goods {
  readonly consumablesMinor?: number
  readonly shopMinor?: number
  readonly newLoopMinor?: number
  readonly upkeepMinor?: number
  /** Work in that upkeep. */
  readonly upkeepLabourMinor?: number
}

/** Parts of a bill; the total is their sum, in whole minor units. */
export function bill(parts: Goods, labourMinor: number, metalMinor: number): Money {
  const labour = Math.round(labourMinor)
  const consumables = Math.round(parts.consumablesMinor ?? 0)
  const shop = Math.round(parts.shopMinor ?? 0)
  const metal = Math.round(metalMinor)
  const newLoop = Math.round(parts.newLoopMinor ?? 0)
  const upkeep = Math.round(parts.upkeepMinor ?? 0)
  return {
    labourMinor: labour,
    consumablesMinor: consumables,
    shopMinor: shop,
    metalMinor: metal,
    newLoopMinor: newLoop,
    upkeepMinor: upkeep,
    upkeepLabourMinor: Math.min(upkeep, Math.round(parts.upkeepLabourMinor ?? 0)),
    totalMinor: labour + consumables + shop + metal + newLoop + upkeep,
  }
}

/** What one routine sharpening costs. */
export interface RoutineCost {
  readonly labourMinor: number
  /** Files, or wheel and power. */
  readonly toolsMinor: number
}

/** What one routine sharpening of a loop like this costs the way the house does it: work and tools. */
export function routineCost(spec: LoopSpec, cutters: number, rules: HouseRules): RoutineCost {
  const strokes = cutters * strokesFor(REMOVAL_PRIORS.routine.meanUm)
  const byFile: RoutineCost = {
    labourMinor: labourMinor(
      workMinutes(usualTool('file', spec, rules), evenLoad(cutters, REMOVAL_PRIORS.routine.meanUm)).likely *
        rules.pace.routine,
      rules,
    ),
    toolsMinor: filesMinor(strokes, rules),
  }
  if (!rules.grinderOwned || rules.bench === 'fileForRoutine') return byFile
  const ground = evenLoad(cutters, REMOVAL_PRIORS.grind.meanUm, { findsStop: true })
  const byWheel: RoutineCost = {
    labourMinor: labourMinor(workMinutes('benchGrinder', ground).likely * rules.pace.grind, rules),
    toolsMinor: rules.wheelPerLoopMinor,
  }
  const total = ({ labourMinor: work, toolsMinor }: RoutineCost): number => work + toolsMinor
  return rules.bench === 'wheelAtBench' || total(byWheel) < total(byFile) ? byWheel : byFile
}

/** Spells of sharp running in a new loop: one as it comes, and one for each sharpening. */
export const newLoopSpells = (spec: LoopSpec, rules: HouseRules, removalUm: number): number =>
  1 + Math.max(0, Math.floor((usableLengthUm(spec) - rules.reserveUm) / removalUm))

/** What an option costs beside work, before it is rounded to whole minor units. */
export interface Spent {
  readonly goodsMinor: number
  readonly metalMinor: number
}

/** `goodsMinor({ consumablesMinor: 10.4, shopMinor: 5 }) // 15.4` */
export const goodsMinor = ({ consumablesMinor, shopMinor, newLoopMinor, upkeepMinor }: Goods): number =>
  (consumablesMinor ?? 0) + (shopMinor ?? 0) + (newLoopMinor ?? 0) + (upkeepMinor ?? 0)

/**
 * Cost of an hour of sharp running: work may take less or longer, sharpness too. Nothing is rounded, so
 * that a hair more of anything is a hair dearer.
 */
export function perHour(
  spent: Spent,
  minutes: MinutesRange,
  hours: Range,
  metalMostMinor: number,
  rules: HouseRules,
): Range | null {
  if (hours.likely <= 0) return null
  const at = (worked: number, sharp: number): number =>
    (labourMinor(worked, rules) + spent.goodsMinor) / sharp + Math.min(spent.metalMinor / sharp, metalMostMinor)
  return {
    low: at(minutes.low, Math.max(hours.high, hours.likely)),
    likely: at(minutes.likely, hours.likely),
    high: at(minutes.high, Math.max(0.01, Math.min(hours.low, hours.likely))),
  }
}

/**
 * Cost of an hour of sharp running if a new loop, or an hour of work, cost so many times what the
 * house says.
 */
export function perHourAt(
  { money, sharpHours }: Pick<Option, 'money' | 'sharpHours'>,
  metalMostMinor: number,
  factors: { readonly loop?: number; readonly labour?: number },
): number {
  const { loop = 1, labour = 1 } = factors
  const hours = sharpHours.likely
  if (hours <= 0) return Infinity
  const rest =
    (money.labourMinor + money.upkeepLabourMinor) * labour +
    (money.upkeepMinor - money.upkeepLabourMinor) +
    money.consumablesMinor +
    money.shopMinor +
    money.newLoopMinor * loop
  return rest / hours + loop * Math.min(money.metalMinor / hours, metalMostMinor)
}
