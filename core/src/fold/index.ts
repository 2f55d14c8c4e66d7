export * from './fold'
export { wearFactor } from './apply/use'
export { populationOf } from './apply/sharpened'
