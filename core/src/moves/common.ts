import {
  fittingsOf,
  planBriefSchema,
  usualFittings,
  zonesBehindChannel,
  type CircuitBrief,
  type PlanBrief,
} from '../planning'

/** A change of controls that is often asked for, as the brief of what there will be. */
export interface CommonChange {
  id: string
  name: string
  about: string
  brief: PlanBrief
}

/** Changes that can be made of what is fitted, by what is asked for; what its scheme does not take is left out. */
export function commonChanges(fitted: PlanBrief): CommonChange[] {
  const now: PlanBrief = { ...fitted, inWall: undefined, kept: undefined, terminals: 'separate' }
  const text = JSON.stringify(now)
  return wishes(now).flatMap(({ id, name, about, brief }) => {
    const read = planBriefSchema.safeParse(brief)
    // What is so already is no change.
    return read.success && JSON.stringify(brief) !== text ? [{ id, name, about, brief: read.data }] : []
  })
}

type Wish = Omit<CommonChange, 'brief'> & { brief: object }

function wishes(now: PlanBrief): Wish[] {
  const zones = now.circuits.filter(({ kind }) => kind === 'heating')
  return [
    ...(zonesBehindChannel(now.scheme) && fittingsOf(now).control !== 'smart-receiver'
      ? behindChannel(now, zones)
      : []),
    ...otherValves(now),
    {
      id: 'cylinder-thermostat',
      name: 'Cylinder thermostat with electronics',
      about: 'It needs line and neutral of its own.',
      brief: { ...now, types: { ...now.types, 'cyl-stat': 'cylinder-thermostat-powered' } },
    },
    {
      id: 'zone-later',
      name: 'A further zone, its thermostat later',
      about: 'Valve and cable now; feed and switched live meet in a connector until the thermostat comes.',
      brief: { ...now, circuits: [...now.circuits, { kind: 'later', name: freeName(now, 'New zone') }] },
    },
  ]
}

/** Schemes in which every circuit has a two-port valve: what is fitted with them can be chosen piece by piece. */
const byPieces = (now: PlanBrief): boolean => usualFittings(now.scheme) !== undefined

function behindChannel(now: PlanBrief, zones: readonly CircuitBrief[]): Wish[] {
  const plain = now.circuits.map((circuit) => ({ ...circuit, thermostat: undefined, timed: undefined }))
  const receiver = { ...now, circuits: plain, control: 'smart-receiver', types: undefined }
  const about =
    'Its heating contact stands for channel and thermostat in series, its hot water contact for the channel alone.'
  return [
    ...(byPieces(now)
      ? [{ id: 'smart-receiver', name: 'Smart receiver for programmer and thermostat', about, brief: receiver }]
      : []),
    ...(toTwoPorts(now)
      ? [
          {
            id: 'smart-receiver',
            name: 'Smart receiver, and two-port valves for the three-port one',
            about: `${about} A valve to each circuit; the pipework is opened.`,
            brief: { ...receiver, scheme: 'two-port', offContact: undefined },
          },
        ]
      : []),
    ...zones.flatMap(({ name }): Wish[] => [
      {
        id: `wireless ${name}`,
        name: `Wireless receiver for the ${name} thermostat`,
        about: 'The programmer goes on timing: its channel feeds the receiver’s common.',
        brief: { ...now, circuits: withZone(now, name, { thermostat: 'wireless', timed: 'by-channel' }) },
      },
      {
        id: `wireless-own ${name}`,
        name: `Wireless receiver for ${name}, timed by its thermostat`,
        about:
          'On permanent line. The programmer’s channel does nothing any more for it: tell the user, write it on the plate.',
        brief: { ...now, circuits: withZone(now, name, { thermostat: 'wireless', timed: 'by-itself' }) },
      },
      {
        id: `programmable ${name}`,
        name: `Programmable thermostat for ${name}`,
        about: 'On permanent line in the old one’s place, with its own hours.',
        brief: { ...now, circuits: withZone(now, name, { thermostat: 'programmable', timed: 'by-itself' }) },
      },
    ]),
    ...(now.scheme === 'unvented' ? [] : [ownFeed(now)]),
  ]
}

const ownFeed = (now: PlanBrief): Wish => ({
  id: 'programmer-own-feed',
  name: 'Programmer with a feed of its own for its contacts',
  about: 'Other terminals behind the same plate: the contacts’ feed is one conductor more.',
  brief: { ...now, types: { ...now.types, programmer: 'programmer-own-feed' } },
})

/** Three-port valves in whose place two two-port ones can come, at the same boiler. */
const toTwoPorts = (now: PlanBrief): boolean => ['mid-position', 'diverter'].includes(now.scheme)

function otherValves(now: PlanBrief): Wish[] {
  return [
    {
      id: 'valve-head',
      name: 'Valve head with a lead of other colours',
      about: 'Go by what is printed on the head and not by the old one’s colours.',
      brief: { ...now, types: { ...now.types, 'zv-1': 'two-port-valve-other-lead' } },
    },
    ...(toTwoPorts(now)
      ? [
          {
            id: 'two-ports',
            name: 'Two two-port valves for the three-port one',
            about: 'A valve to each circuit; the pipework is opened.',
            brief: { ...now, scheme: 'two-port', offContact: undefined },
          },
        ]
      : []),
    ...(byPieces(now) && fittingsOf(now).boiler !== 'two-calls'
      ? [
          {
            id: 'priority',
            name: 'Hot water first, with a call of its own',
            about:
              'A boiler with two calls: the heating valves call one input, the hot water valve the other; a normally open valve shuts heating off. The flow has to divide before it.',
            brief: { ...now, boiler: 'two-calls' },
          },
        ]
      : []),
  ]
}

const withZone = (now: PlanBrief, name: string, set: Partial<CircuitBrief>): CircuitBrief[] =>
  now.circuits.map((one) => (one.name === name ? { ...one, ...set } : one))

function freeName({ circuits }: PlanBrief, wanted: string): string {
  const taken = new Set(circuits.map(({ name }) => name.toLowerCase()))
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${wanted} ${n}`
    if (!taken.has(name.toLowerCase())) return name
  }
}
