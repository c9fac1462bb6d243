import { planBriefSchema, zonesBehindChannel, type CircuitBrief, type PlanBrief } from '../planning'

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
  return wishes(now).flatMap(({ id, name, about, brief }) => {
    const read = planBriefSchema.safeParse(brief)
    return read.success ? [{ id, name, about, brief: read.data }] : []
  })
}

type Wish = Omit<CommonChange, 'brief'> & { brief: object }

function wishes(now: PlanBrief): Wish[] {
  const zones = now.circuits.filter(({ kind }) => kind === 'heating')
  return [
    ...(zonesBehindChannel(now.scheme) && now.control !== 'smart-receiver' ? behindChannel(now, zones) : []),
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

function behindChannel(now: PlanBrief, zones: readonly CircuitBrief[]): Wish[] {
  const twoPort = ['two-port', 'more-zones', 'unvented', 'hot-water-priority'].includes(now.scheme)
  const plain = now.circuits.map((circuit) => ({ ...circuit, thermostat: undefined, timed: undefined }))
  return [
    {
      id: 'smart-receiver',
      name: 'Smart receiver for programmer and thermostat',
      about:
        'Its heating contact stands for channel and thermostat in series, its hot water contact for the channel alone.',
      brief: {
        ...now,
        ...(!twoPort && { scheme: 'two-port' }),
        circuits: plain,
        control: 'smart-receiver',
        types: undefined,
      },
    },
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
    {
      id: 'programmer-own-feed',
      name: 'Programmer with a feed of its own for its contacts',
      about: 'Other terminals behind the same plate: the contacts’ feed is one conductor more.',
      brief: { ...now, types: { ...now.types, programmer: 'programmer-own-feed' } },
    },
  ]
}

function otherValves(now: PlanBrief): Wish[] {
  const toTwoPort = ['mid-position', 'diverter'].includes(now.scheme)
  return [
    {
      id: 'valve-head',
      name: 'Valve head with a lead of other colours',
      about: 'Go by what is printed on the head and not by the old one’s colours.',
      brief: { ...now, types: { ...now.types, 'zv-1': 'two-port-valve-other-lead' } },
    },
    ...(toTwoPort
      ? [
          {
            id: 'two-ports',
            name: 'Two two-port valves for the three-port one',
            about: 'A valve to each circuit; the pipework is opened.',
            brief: { ...now, scheme: 'two-port', offContact: undefined },
          },
        ]
      : []),
    {
      id: 'priority',
      name: 'Hot water first, with a call of its own',
      about:
        'The heating valves call one input, the hot water valve the other; a normally open valve shuts heating off. The flow has to divide before it.',
      brief: { ...now, scheme: 'hot-water-priority', boiler: 'two-calls' },
    },
  ].filter(({ id }) => id !== 'priority' || now.scheme !== 'hot-water-priority')
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
