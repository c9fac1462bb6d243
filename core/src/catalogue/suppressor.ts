import type { DeviceType } from './primitives'

export const suppressor: DeviceType = {
  id: 'suppressor',
  version: 1,
  name: 'Suppressor',
  family: 'relays',
  stands: 'Across the input it protects, in the boiler or the wiring centre.',
  about:
    'A resistor and a capacitor in series, put across an input that acts on induced voltage: it draws the little ' +
    'current an open core can carry and leaves next to no volts. A real switched live takes no notice of it.',
  terminals: [
    { id: 'A', legend: 'Input', role: 'input' },
    { id: 'B', legend: 'Neutral', role: 'neutral' },
  ],
  controls: [],
  settings: [
    { id: 'ohms', label: 'Resistor', unit: 'Ω', min: 10, max: 1000, default: 100, origin: 'usual value' },
    { id: 'microfarads', label: 'Capacitor', unit: 'µF', min: 0.01, max: 2, default: 0.1, origin: 'usual value' },
  ],
  inputs: [],
  primitives: [
    {
      kind: 'suppressor',
      id: 'suppressor',
      label: 'suppressor',
      a: 'A',
      b: 'B',
      ohms: { setting: 'ohms' },
      microfarads: { setting: 'microfarads' },
    },
  ],
}
