export * from './iso7064'
export * from './tag'
