export * from './demand-actions'
export * from './input'
export * from './isolators'
