export * from './actions'
export * from './damage'
export * from './events'
export * from './simulation'
