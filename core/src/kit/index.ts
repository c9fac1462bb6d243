export * from './measures'
export * from './observe'
export * from './symptoms'
export * from './try-out'
