export * from './fit'
export * from './fitting'
