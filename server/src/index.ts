export { start, type Running, type StartOptions } from './start'
