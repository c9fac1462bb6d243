export * from './hunt'
export * from './findings'
export * from './events'
export * from './names'
