export * from './houses'
export * from './heat'
