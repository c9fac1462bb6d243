export * from './candidates'
export * from './diagnose'
export * from './observation'
export * from './prediction'
