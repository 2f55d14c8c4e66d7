export * from './cutter'
