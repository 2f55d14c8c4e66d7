export * from './columns'
export * from './readCells'
export * from './planImport'
