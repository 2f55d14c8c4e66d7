export * from './fit'
