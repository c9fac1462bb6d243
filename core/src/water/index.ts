export * from './flows'
export * from './shares'
export * from './solve'
export * from './pipes'
