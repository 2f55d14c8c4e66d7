export * from './time'
