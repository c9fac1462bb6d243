export * from './departure'
export * from './from-plan'
