export * from './accuracy'
export * from './summary'
export * from './checkLength'
export * from './checkFigure'
