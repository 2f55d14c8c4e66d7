export * from './cutter'
export * from './file'
