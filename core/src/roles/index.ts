export * from './roles'
export * from './leadsOnly'
