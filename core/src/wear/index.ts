export * from './removal'
export * from './life'
export * from './gaugePass'
