export * from './card'
export * from './urgency'
