export * from './kinds'
export * from './damage'
