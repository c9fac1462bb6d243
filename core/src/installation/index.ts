export * from './schema'
export * from './parse'
export * from './edits'
