import { ROUTINE_REMOVAL_UM } from '../profile'
import { PLATE_SD_UM, READING_SD_UM } from '../measure/accuracy'
import type { HouseRules } from './rules'

/** Rules that cannot hold together, by name, and why. */
export interface RulesConflict {
  readonly fields: readonly (keyof HouseRules)[]
  readonly message: string
}

/** A caliper tells two cutters apart by about this: two readings, each off by its own error. */
const TELLS_APART_UM = Math.round(2 * READING_SD_UM)

/**
 * House rules that cannot all hold; empty when they can.
 *
 * @example
 * rulesConflicts({ ...DEFAULT_RULES, touchUpTanks: 8 })[0]?.fields // ['touchUpTanks', 'benchTanks']
 */
export function rulesConflicts(rules: HouseRules): RulesConflict[] {
  const found: RulesConflict[] = []
  const add = (fields: readonly (keyof HouseRules)[], message: string): void => {
    found.push({ fields, message })
  }
  if (rules.when === 'byTanks' && rules.touchUpTanks >= rules.benchTanks) {
    add(
      ['touchUpTanks', 'benchTanks'],
      'A loop would be due at the bench before it is due for a touch-up: the bench has to come after more tanks.',
    )
  }
  if (rules.largestFilingUm < ROUTINE_REMOVAL_UM) {
    add(
      ['largestFilingUm'],
      'No loop could be filed: a routine filing takes about 0.2 mm, more than the largest job for a file.',
    )
  }
  if (rules.evennessUm < TELLS_APART_UM) {
    add(['evennessUm'], 'No loop could be shown to be even: a caliper does not tell 0.1 mm apart.')
  }
  if (rules.sideDifferenceUm > rules.evennessUm) {
    add(
      ['sideDifferenceUm', 'evennessUm'],
      'The sides could differ by more on average than any two cutters may: ' +
        'make the side difference smaller than the evenness.',
    )
  }
  if (rules.gaugeHighUm + rules.gaugeLowUm < 2 * PLATE_SD_UM) {
    add(['gaugeHighUm', 'gaugeLowUm'], 'No gauge could be right: a plate places a setting to about 0.03 mm either way.')
  }
  if (rules.bench === 'wheelAtBench' && !rules.grinderOwned) {
    add(['bench', 'grinderOwned'], 'The wheel is to do all work at the bench, and there is no grinder.')
  }
  if (rules.guide === 'twoInOne' && rules.gaugeSchool === 'progressive') {
    add(
      ['guide', 'gaugeSchool'],
      'A two-in-one guide files every gauge to one setting; a setting that grows with wear needs a plate.',
    )
  }
  if (
    rules.where === 'bench' &&
    rules.when === 'byTanks' &&
    rules.guide === 'twoInOne' &&
    rules.bench === 'wheelAtBench'
  ) {
    add(['where', 'bench', 'guide'], 'All work would be done on the wheel, where a two-in-one guide has no place.')
  }
  return found
}
