export * from './profile'
export * from './profiles'
export * from './spec'
