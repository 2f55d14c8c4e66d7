export * from './cutter'
export * from './file'
export * from './grinder'
export * from './exposure'
