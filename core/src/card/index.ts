export * from './card'
export * from './urgency'
export * from './storedVersion'
export * from './effect'
