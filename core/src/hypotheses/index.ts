export * from './faults'
export * from './script'
