export * from './admit'
