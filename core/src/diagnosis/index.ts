export * from './entries'
export * from './fits'
export * from './observation'
