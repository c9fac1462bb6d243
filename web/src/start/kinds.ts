import type { Fittings, SchemeId } from '@nobbet/core'
import type { Counted } from './tell-apart'

/** A system as somebody finds it who has no drawing: what is counted, and the scheme that it is taken for. */
export interface FoundKind {
  scheme: SchemeId
  name: string
  /** How to tell it from the others. */
  told: string
  counted?: Counted
}

/** The usual ones first. */
export const foundKinds: readonly FoundKind[] = [
  {
    scheme: 'two-port',
    name: 'A valve for each circuit',
    told: 'Two ports each, lead of five conductors, a lever.',
    counted: { ports: 2, conductors: 5, of: 2 },
  },
  {
    scheme: 'mid-position',
    name: 'One valve, stops half way too',
    told: 'Three ports, lead of five: white, grey, orange, blue, green-yellow. A lever.',
    counted: { ports: 3, conductors: 5 },
  },
  {
    scheme: 'diverter',
    name: 'One valve, one way or the other',
    told: 'Three ports, springs back without power: one conductor drives it.',
    counted: { ports: 3, conductors: 5, lever: false },
  },
  {
    scheme: 'hot-water-priority',
    name: 'One valve open at rest, and one for each circuit',
    told: 'Two ports each. The open one has no lever and a lead of three.',
    counted: { ports: 2, conductors: 3, lever: false, of: 2 },
  },
  {
    scheme: 'gravity',
    name: 'No valve: hot water rises by itself',
    told: 'Two wide pipes from boiler to cylinder, the pump on the heating alone.',
  },
  {
    scheme: 'single-zone',
    name: 'One zone, no wiring centre to speak of',
    told: 'The thermostat’s two conductors go to the boiler, no volts of their own.',
  },
]

export const moreKinds: readonly FoundKind[] = [
  {
    scheme: 'unvented',
    name: 'A valve for each circuit, unvented cylinder',
    told: 'Two ports each. A high limit and an immersion heater on the cylinder.',
    counted: { ports: 2, conductors: 5, of: 2 },
  },
  {
    scheme: 'smart-receiver',
    name: 'A valve for each circuit, smart receiver',
    told: 'A receiver with two channels where a programmer would be.',
    counted: { ports: 2, conductors: 5, of: 2 },
  },
  {
    scheme: 'three-wire-diverter',
    name: 'One valve, driven both ways',
    told: 'Three ports, lead of four, stays where it is without power. Usual at a heat pump.',
    counted: { ports: 3, conductors: 4, lever: false },
  },
  {
    scheme: 'single-zone-mains',
    name: 'One zone, mains to the boiler',
    told: 'The thermostat or receiver switches line to the boiler.',
  },
  {
    scheme: 'single-zone-relay',
    name: 'One zone, through a relay',
    told: 'A relay box between thermostat and boiler.',
  },
  {
    scheme: 'single-zone-bus',
    name: 'One zone, digital',
    told: 'Two thin conductors, the boiler talks with the thermostat.',
  },
  { scheme: 'single-zone-electric', name: 'One zone, electric boiler', told: 'No gas, no oil: elements.' },
  {
    scheme: 'low-voltage',
    name: '24 V valves',
    told: 'A transformer, thin leads: two for the motor, two of an end switch.',
    counted: { ports: 2, conductors: 4, of: 2 },
  },
  {
    scheme: 'relay-panel',
    name: '24 V valves on a relay panel',
    told: 'A board with a relay and lamps for each zone.',
    counted: { ports: 2, conductors: 4, of: 2 },
  },
  { scheme: 'fan-convector', name: 'A fan convector', told: 'A switching relay starts fan and valve.' },
]

/** What switches the services, where a scheme leaves a choice. */
export const controlKinds: Record<Fittings['control'], { name: string; told: string }> = {
  programmer: { name: 'Programmer', told: 'A channel for each circuit, its thermostats wired.' },
  'smart-receiver': { name: 'Smart receiver', told: 'Two channels, a lamp each, the thermostat by radio.' },
}
