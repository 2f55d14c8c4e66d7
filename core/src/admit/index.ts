export * from './problem'
export * from './admit'
export * from './admitAll'
export * from './admitSaw'
