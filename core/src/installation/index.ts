export * from './schema'
export * from './parse'
export { plainText, quoted } from './plain-text'
export * from './edits'
