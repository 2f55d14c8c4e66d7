export * from './length'
export * from './readLength'
export * from './writeLength'
export * from './money'
