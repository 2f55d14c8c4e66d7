import type { HouseRules } from '../house'

/** The house rules that what is found on a loop rests on; the others only weigh what can be done about it. */
export const FINDING_RULES = [
  'gaugeSchool',
  'woodStep',
  'when',
  'gaugeHighUm',
  'gaugeLowUm',
  'reserveUm',
  'largestFilingUm',
  'evennessUm',
  'sideDifferenceUm',
  'touchUpTanks',
  'benchTanks',
  'signCounts',
] as const satisfies readonly (keyof HouseRules)[]

/** Those of the house rules. */
export type FindingRules = Pick<HouseRules, (typeof FINDING_RULES)[number]>
