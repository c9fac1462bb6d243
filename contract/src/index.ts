export * from './schemas'
export * from './first-wiring'
export * from './endpoints'
export * from './openapi'
