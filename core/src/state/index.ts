export * from './loopState'
export * from './removalSample'
