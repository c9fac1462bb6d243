export * from './netlist'
