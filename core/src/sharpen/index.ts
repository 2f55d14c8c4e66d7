export * from './time'
export * from './removals'
export * from './angle'
