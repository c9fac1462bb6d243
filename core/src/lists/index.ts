export * from './nth'
