export * from './instrument'
export * from './gauge'
export * from './pitch'
export * from './driveLinks'
