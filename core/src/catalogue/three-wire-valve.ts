import { jammed, openCircuit, seizedOpen, seizedPartWay, seizedShut, turned } from './failures'
import { motorSettings, motorWinding, port } from './motor'
import type { DeviceType } from './primitives'

/** Permanent live drives it either way; the switched live says which. */
export const threeWireValve: DeviceType = {
  id: 'three-wire-valve',
  version: 2,
  name: 'Three-port diverter, driven both ways',
  family: 'valves',
  stands: 'On the heat pump or system boiler’s outlet, where the flow divides.',
  about:
    'Permanent live and neutral move it; the switched live chooses the end: live to hot water, dead to heating. There is ' +
    'no spring: without power it stays where it is. A jumper reverses the sense. With the wrong sense each call heats ' +
    'the other circuit; the cure is the jumper, not the conductors.',
  terminals: [
    { id: 'L', legend: 'Permanent live', role: 'permanent-live' },
    { id: 'N', legend: 'Neutral', role: 'neutral' },
    { id: 'SL', legend: 'Switched live', role: 'input' },
  ],
  controls: [],
  settings: [
    { id: 'travel', label: 'Travel time', unit: 's', min: 5, max: 240, default: 60, origin: 'usual value' },
    ...motorSettings(4, 'usual value'),
    {
      id: 'reversed',
      label: 'Jumper reverses the sense',
      unit: '0 no, 1 yes',
      min: 0,
      max: 1,
      default: 0,
      origin: 'as delivered',
      choices: [
        { value: 0, label: 'not fitted' },
        { value: 1, label: 'fitted' },
      ],
    },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'load',
      id: 'motor',
      label: 'motor',
      from: 'L',
      to: 'N',
      ...motorWinding,
      failures: [
        openCircuit('motor open', 3, 'Replace the actuator.'),
        jammed('coupling lost: turns and moves nothing', 1, 'Fit the coupling the right way round.'),
      ],
    },
    {
      kind: 'load',
      id: 'sense',
      label: 'direction input',
      from: 'SL',
      to: 'N',
      watts: 0.5,
      failures: [openCircuit('direction input dead', 1.5, 'Replace the actuator.')],
    },
    {
      kind: 'actuator',
      id: 'travel',
      label: 'travel',
      drivenBy: 'sense',
      movedBy: 'motor',
      reversed: { setting: 'reversed' },
      openSeconds: { setting: 'travel' },
      returnSeconds: { setting: 'travel' },
      ends: { shut: 'at heating', open: 'at hot water' },
      failures: [
        seizedShut('seized at heating', 1.5, 'Actuator off, turn the spindle by hand: stiff, replace the valve.'),
        seizedOpen('seized at hot water', 1.5, 'Actuator off, turn the spindle by hand: stiff, replace the valve.'),
        turned(
          'coupling fitted turned: each call heats the other circuit',
          0.7,
          'Fit the coupling the right way round.',
        ),
        seizedPartWay('seized half way', 0.8, 'Actuator off, turn the spindle by hand: stiff, replace the valve.'),
      ],
    },
    port('heating', 'heating port', 0, 0.5, ['flow', 'heating']),
    port('hot-water', 'hot water port', 0.5, 1, ['flow', 'hot-water']),
  ],
}
