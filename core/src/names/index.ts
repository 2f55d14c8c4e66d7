export * from './nameLook'
