export * from './conditions'
export * from './controls'
export * from './parts'
export * from './type-problems'
export { deviceTypeJsonSchema, deviceTypeSchema, typeFormat } from './type-schema'
export * from './primitives'
export * from './shipped'
export { typeDirectory } from './directory'
export { coreName, endText, terminalText } from './terminal-text'
export {
  colourMeaning,
  coloursFound,
  coloursOf,
  isEarthColour,
  supplies,
  thermostatWire,
  type ColourSet,
  type SupplyId,
  type Use,
} from './colours'
