export * from './entry'
export * from './order'
export * from './asWritten'
