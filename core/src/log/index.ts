export * from './entry'
export * from './order'
export * from './asWritten'
export * from './believeClock'
