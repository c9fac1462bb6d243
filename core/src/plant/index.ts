export * from './plant'
