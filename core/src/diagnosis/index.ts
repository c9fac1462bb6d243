export * from './observables'
export * from './diagnose'
export * from './fits'
export * from './observation'
