export * from './mean'
export * from './welch'
export * from './normalMean'
