export * from './circuit'
export * from './compile'
export * from './nets'
export * from './potentials'
