export * from './sameName'
