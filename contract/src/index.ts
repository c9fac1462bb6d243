export * from './schemas'
export * from './endpoints'
export * from './openapi'
