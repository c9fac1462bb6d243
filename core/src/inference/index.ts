export * from './contradictions'
export * from './decision'
export * from './evidence'
export * from './looks-ahead'
