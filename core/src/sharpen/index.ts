export * from './time'
export * from './removals'
