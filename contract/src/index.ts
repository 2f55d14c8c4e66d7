export * from './problem'
export * from './entries'
export * from './answers'
export * from './validate'
