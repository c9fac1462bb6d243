export * from './brief'
export * from './schedules'
export * from './two-port'
