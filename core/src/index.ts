export * from './units'
export * from './loop'
export * from './profile'
export * from './geometry'
export * from './damage'
export * from './log'
export * from './state'
export * from './fold'
export * from './measure'
export * from './wear'
export * from './sharpen'
export * from './house'
export * from './kit'
export * from './signs'
export * from './jobs'
export * from './verdict'
export * from './sharpening'
export * from './card'
export * from './saw'
export * from './fit'
export * from './tag'
export * from './names'
export * from './importing'
export * from './identify'
export * from './words'
export * from './admit'
export * from './roles'
export {
  kaplanMeier,
  medianSurvival,
  survivalAt,
  type GroupBelief,
  type LifetimeBelief,
  type SurvivalStep,
} from './stats'
