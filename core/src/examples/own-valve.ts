import { deviceType, type DeviceType } from '../catalogue'

/**
 * A device type as a user would make it: a valve that takes half a minute, whose end contact is a relay that a switch on its
 * travel pulls in. It ships with the demo, beside the catalogue.
 */
export function ownValve(version = 1, seconds = 30): DeviceType {
  const valve = deviceType('two-port-valve')
  return {
    ...valve,
    id: 'own-slow-valve',
    version,
    name: 'Slow valve with an end relay',
    about:
      'Made in Kit from the two-port valve: it opens in half a minute, and its volt-free contact is a relay that a switch near ' +
      'the end of its travel pulls in. The relay can weld.',
    settings: valve.settings.map((s) => (s.id === 'open' ? { ...s, max: 120, default: seconds } : s)),
    terminals: [...valve.terminals, { id: 'coil', legend: 'Relay coil', role: 'output', internal: true }],
    primitives: [
      ...valve.primitives.filter((p) => p.id !== 'end-switch'),
      {
        kind: 'contact',
        id: 'travel-switch',
        label: 'travel switch',
        a: 'M',
        b: 'coil',
        closedWhen: { actuator: 'travel', reached: { setting: 'makes' } },
        failures: [
          {
            id: 'never-makes',
            mode: 'held-open',
            label: 'travel switch never makes',
            prior: 3,
            remedy: 'Replace the head.',
          },
        ],
      },
      { kind: 'load', id: 'relay', label: 'relay coil', from: 'coil', to: 'N', watts: 1 },
      {
        kind: 'contact',
        id: 'end-switch',
        label: 'end relay',
        a: 'SF',
        b: 'SO',
        closedWhen: { energised: 'relay' },
        failures: [
          { id: 'welded', mode: 'held-closed', label: 'end relay welded', prior: 3, remedy: 'Replace the head.' },
        ],
      },
    ],
  }
}
