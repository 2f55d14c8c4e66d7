export * from './card'
export * from './urgency'
export * from './storedVersion'
