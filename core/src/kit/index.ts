export * from './measures'
export * from './symptoms'
