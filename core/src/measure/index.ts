export * from './summary'
export * from './checkLength'
