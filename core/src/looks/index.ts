export * from './agrees'
export * from './look'
export * from './look-at'
export * from './look-schema'
