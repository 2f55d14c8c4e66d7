export * from './entry'
export * from './order'
