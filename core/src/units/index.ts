export * from './length'
export * from './readLength'
export * from './writeLength'
