export { start, type Running } from './start'
