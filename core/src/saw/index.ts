export * from './sawEntry'
export * from './sawState'
