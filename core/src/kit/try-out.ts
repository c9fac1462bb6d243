import { typeEntry, typeIn, type DeviceType } from '../catalogue'
import { compile, type Circuit } from '../circuit'
import type { Cable, Installation } from '../installation'

/** What a terminal is joined to while a device is tried out: the mains, or a 24 V transformer. */
export const tryFeeds = { L: 'Live', N: 'Neutral', V: '24 V', C: '24 V return' } as const
export type TryFeed = keyof typeof tryFeeds

const feedTerminal: Record<TryFeed, string> = { L: 'spur.L', N: 'spur.N', V: 'transformer.V', C: 'transformer.C' }

/** How a device is joined up when nothing else is said: neutral and permanent live where it asks for them. */
export function usualFeeds(type: DeviceType): Record<string, TryFeed> {
  const feeds: Record<string, TryFeed> = {}
  for (const t of type.terminals) {
    if (t.internal) continue
    if (t.role === 'neutral') feeds[t.id] = t.extraLow ? 'C' : 'N'
    if (t.role === 'permanent-live' || t.role === 'contact-feed') feeds[t.id] = t.extraLow ? 'V' : 'L'
  }
  return feeds
}

/** One device on a table: a spur, a transformer, and conductors from them to its terminals. */
export function tryOut(type: DeviceType, feeds: Readonly<Record<string, TryFeed>>): Circuit {
  const wire = (id: string, from: string, to: string): Cable => ({
    id,
    label: id,
    ratedForMains: true,
    cores: [
      {
        id: 'core',
        colour: 'brown',
        areaMm2: 0.75,
        ends: [
          { at: 'terminal', terminal: from },
          { at: 'terminal', terminal: to },
        ],
      },
    ],
  })
  const types = ['fused-spur', 'transformer-24'].map((id) => typeEntry(typeIn({ types: [] }, id)))
  const doc: Installation = {
    format: 'nobbet-installation',
    version: 1,
    id: 'try-out',
    name: type.name,
    scheme: '',
    supply: { volts: 230, frequency: 50 },
    provenance: 'assumed',
    types: [...types, { id: type.id, version: type.version, definition: { ...type } }],
    places: [{ id: 'table', name: 'Table' }],
    devices: [
      { id: 'spur', name: 'Spur', type: 'fused-spur', place: 'table', settings: {} },
      { id: 'transformer', name: 'Transformer', type: 'transformer-24', place: 'table', settings: {} },
      { id: 'it', name: type.name, type: type.id, place: 'table', settings: {} },
    ],
    wiringCentres: [],
    connectors: [],
    cables: [
      wire('feed-l', 'spur.L', 'transformer.L'),
      wire('feed-n', 'spur.N', 'transformer.N'),
      ...Object.entries(feeds).map(([terminal, feed]) => wire(`to-${terminal}`, feedTerminal[feed], `it.${terminal}`)),
    ],
    links: [],
    pipes: [],
    tees: [],
    intent: { demands: [] },
  }
  return compile(doc)
}

/** A new device type to begin from: a contact on a switch. */
export const blankType = (id: string): DeviceType => ({
  id,
  version: 1,
  name: 'New device',
  family: 'relays',
  about: '',
  stands: '',
  terminals: [
    { id: 'A', legend: 'From', role: 'contact-feed' },
    { id: 'B', legend: 'To', role: 'output' },
  ],
  controls: [
    {
      kind: 'choice',
      id: 'switch',
      label: 'Switch',
      values: [
        { id: 'off', label: 'Off' },
        { id: 'on', label: 'On' },
      ],
      initial: 'off',
    },
  ],
  settings: [],
  inputs: [],
  primitives: [
    { kind: 'contact', id: 'contact', label: 'contact', a: 'A', b: 'B', closedWhen: { control: 'switch', is: ['on'] } },
  ],
})
