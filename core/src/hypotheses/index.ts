export * from './faults'
export * from './script'
export * from './alterations'
