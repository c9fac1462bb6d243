export * from './check'
export { actionsFor, demandActions, subsets } from './demand-rules'
export * from './finding'
