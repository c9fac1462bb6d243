export * from './brief'
export { planSystem } from './plan'
export * from './schedules'
export * from './exchange'
