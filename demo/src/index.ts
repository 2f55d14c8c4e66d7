export * from './scenario'
export { seeded, type Random } from './random'
