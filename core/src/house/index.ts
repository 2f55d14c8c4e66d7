export * from './schools'
export * from './rules'
export * from './conflicts'
