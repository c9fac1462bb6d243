export * from './live'
export * from './measure'
export * from './reading'
