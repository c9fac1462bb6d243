import type { Shape } from '../changes'

const entries = (fields: Record<string, Shape> = {}): Shape => ({ list: { fields } })
const optional: Shape = { map: 'optional' }

/**
 * How finely an installation is taken apart: an end of a conductor, a legend, a name, a setting, each by itself. So two people
 * are in each other's way only where both have touched the very same thing.
 */
export const installationShape: Shape = {
  fields: {
    types: entries(),
    places: entries(),
    devices: entries({ settings: { map: 'kept' }, legends: optional, positions: optional, programme: optional }),
    wiringCentres: entries({ terminals: entries() }),
    connectors: entries(),
    cables: entries({ cores: entries({ ends: 'tuple' }) }),
    links: entries(),
    pipes: entries(),
    tees: entries(),
    intent: { fields: { demands: entries() } },
    waivers: { list: { fields: {} }, optional: true },
  },
}
