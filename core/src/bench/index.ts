export * from './compare'
export * from './duplicate-zone'
export * from './net'
export * from './verbs'
