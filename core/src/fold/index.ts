export * from './state'
export * from './fold'
export { wearFactor } from './apply/use'
export { BEHIND_DAMAGE_UM, populationOf } from './apply/sharpened'
