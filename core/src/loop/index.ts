export * from './sequence'
export * from './layout'
