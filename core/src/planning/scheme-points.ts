import type { SchemeId } from './schemes'

/** What speaks for a scheme and against it, whatever the house. */
export interface SchemePoints {
  for: readonly string[]
  against: readonly string[]
  /** A heat source or emitter that it is made for; left out where any ordinary boiler and radiators do. */
  wants?: string
}

/** As practised: what each scheme is chosen for, and what engineers have against it. */
export const schemePoints: Record<SchemeId, SchemePoints> = {
  'two-port': {
    for: ['each circuit opens by itself', 'an end switch tells that a valve is open before the boiler is called'],
    against: ['a valve to each circuit'],
  },
  'mid-position': {
    for: ['one valve for heating and hot water, and both can heat at once'],
    against: [
      'needs an OFF contact at the programmer',
      'its own switches carry the logic: harder to trace',
      'may stay driven after heating ends, some 3 W to 7 W',
    ],
  },
  diverter: {
    for: ['one valve', 'all of the flow to hot water: the cylinder is hot soon'],
    against: ['heating waits while the cylinder is heated'],
  },
  'three-wire-diverter': {
    for: ['the heat pump drives the valve and knows which circuit it heats'],
    against: ['heating waits while the cylinder is heated', 'stays where it is without power'],
    wants: 'a heat pump or boiler with an output for its valve',
  },
  'more-zones': {
    for: [
      'a third channel for towel rails',
      'underfloor rooms on one manifold controller',
      'ready for a zone whose thermostat comes later',
    ],
    against: ['a three-channel programmer, a second cable to it for towel rails'],
  },
  unvented: {
    for: ['a high limit shuts the cylinder’s own valve', 'a frost thermostat', 'an immersion heater as a second way'],
    against: ['a second supply at the cylinder', 'the most conductors of the two-port schemes'],
  },
  'smart-receiver': {
    for: ['no cable to the first room', 'times hot water, times and controls heating'],
    against: ['two channels: a further zone times itself', 'a radio link and batteries that can be lost'],
  },
  'hot-water-priority': {
    for: ['two flow temperatures: radiators cooler, the cylinder hotter', 'the cylinder is hot soon'],
    against: ['heating waits while the cylinder is heated', 'one valve more'],
    wants: 'a boiler with two calls',
  },
  'low-voltage': {
    for: ['24 V at every thermostat and valve', 'an end switch tells that a valve is open before the boiler is called'],
    against: ['a transformer', 'no hot water'],
    wants: 'a boiler with a volt-free call',
  },
  'relay-panel': {
    for: ['a relay to each zone: easy to see, easy to test', '24 V at every thermostat and valve'],
    against: ['a relay calls the boiler before its valve is open', 'no hot water'],
    wants: 'a boiler with a volt-free call',
  },
  'single-zone': {
    for: ['two conductors, no valve, nothing to go wrong between'],
    against: ['one zone, no hot water'],
    wants: 'a boiler with a volt-free call',
  },
  'single-zone-mains': {
    for: ['no cable to the room', 'any boiler that fires when its live is switched'],
    against: ['one zone, no hot water', 'a radio link and batteries that can be lost'],
  },
  'single-zone-bus': {
    for: ['sends the flow temperature wanted: the boiler burns no hotter than it must', 'reports faults'],
    against: ['one zone', 'set-up decides whether it works'],
    wants: 'a boiler with a digital bus',
  },
  'single-zone-relay': {
    for: ['mains controls with a boiler that wants a contact without volts'],
    against: ['a relay more', 'one zone'],
    wants: 'a boiler with a volt-free call',
  },
  'single-zone-electric': {
    for: ['a time switch and a programmable thermostat, no wiring at the boiler but its call'],
    against: ['the boiler on a supply of its own: two to isolate', 'one zone'],
    wants: 'an electric boiler',
  },
  'fan-convector': {
    for: ['a 24 V thermostat for a mains fan and a zone valve'],
    against: ['a relay and a transformer more'],
    wants: 'a fan convector',
  },
  gravity: {
    for: ['no valve'],
    against: ['hot water is not shut off: it heats whenever the boiler runs', 'heating only while hot water is on'],
    wants: 'pipes in which the cylinder’s water rises by itself',
  },
}
