export * from './pipework'
