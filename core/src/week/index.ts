export * from './week'
export * from './timed'
