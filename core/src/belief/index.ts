export * from './extremes'
export * from './lengths'
export * from './settings'
export { keepTied, meanOf, sumOf, type Normal } from './tied'
