export * from './demand-actions'
export * from './input'
