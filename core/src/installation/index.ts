export * from './schema'
export * from './parse'
