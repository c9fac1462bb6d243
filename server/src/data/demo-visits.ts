import type { Entry } from '@nobbet/contract'

const dayMs = 86_400_000

/** Something recorded on a visit, so many minutes after it began. */
type Recorded = readonly [minutes: number, entry: Entry]
interface DemoVisit {
  job: string
  id: string
  /** Days before today, and the hour of the day, UTC. */
  before: number
  hour: number
  recorded: (stamp: { at: string; visit: string }, day: (from: number) => string) => Recorded[]
}

const who = 'I. Halloran'

/** Visits that have been paid to the demo's jobs: one whose temporary measure is over, one with a follow-up, one that closed its job. */
const visits: DemoVisit[] = [
  {
    job: 'demo-birch-cabin',
    id: 'birch-cabin-first',
    before: 9,
    hour: 9,
    recorded: (stamp, day) => [
      [0, { do: 'visit', visit: { id: stamp.visit, who, why: 'No heat at night', at: stamp.at } }],
      [3, { do: 'isolated', visit: stamp.visit }],
      [5, { do: 'disturb', disturbed: { id: 'birch-cover', what: 'Cover off: wiring centre' } }],
      [
        30,
        {
          do: 'item',
          id: 'birch-cabin-found',
          item: {
            kind: 'found',
            severity: 'fault',
            text: 'The room thermostat’s contact does not make below 18 °C: 230 V on its common, 0.2 V behind it.',
            part: 'stat-1',
            evidence: ['230 V at the common of the thermostat, dial at 25 °C', '0.2 V behind its contact'],
            ...stamp,
          },
        },
      ],
      [35, { do: 'disturb', disturbed: { id: 'birch-dial', what: 'Dial turned: thermostat left at 25 °C' } }],
      [40, { do: 'settle', disturbed: 'birch-cover', how: 'back' }],
      [
        45,
        {
          do: 'measure',
          measure: {
            id: 'birch-measure',
            what: 'Thermostat left at 25 °C so that its contact makes, heating switched by hand at the spur',
            why: 'a new thermostat comes on Thursday',
            limits: 'only while somebody is in the cabin; off at the spur at night',
            risk: 'the cabin is heated without the thermostat',
            told: 'Mr Ashby',
            until: day(-1),
            puts: 'birch-dial',
            at: stamp.at,
          },
        },
      ],
      [
        46,
        { do: 'part', id: 'birch-part', part: { what: 'Room thermostat, 230 V', count: 1, use: 'bring', ...stamp } },
      ],
      [
        50,
        {
          do: 'told',
          id: 'birch-told',
          told: { whom: 'Mr Ashby', what: 'Switch off at the spur at night.', ...stamp },
        },
      ],
      [55, { do: 'visit-ends', visit: stamp.visit }],
    ],
  },
  {
    job: 'demo-orchard-way',
    id: 'orchard-way-first',
    before: 3,
    hour: 13,
    recorded: (stamp, day) => [
      [0, { do: 'visit', visit: { id: stamp.visit, who, why: 'New receiver fitted', at: stamp.at } }],
      [2, { do: 'isolated', visit: stamp.visit }],
      [
        70,
        {
          do: 'item',
          id: 'orchard-way-done',
          item: {
            kind: 'done',
            severity: 'remark',
            text: 'Receiver wired and both channels run.',
            evidence: [],
            ...stamp,
          },
        },
      ],
      [
        75,
        {
          do: 'item',
          id: 'orchard-way-advised',
          item: {
            kind: 'advised',
            severity: 'minor',
            text: 'The cylinder’s jacket is loose at the thermostat: its sensor reads the air.',
            evidence: [],
            ...stamp,
          },
        },
      ],
      [
        80,
        {
          do: 'follow-up',
          id: 'orchard-way-follow',
          followUp: { what: 'Pair the second room sensor', on: day(2), at: stamp.at },
        },
      ],
      [85, { do: 'visit-ends', visit: stamp.visit }],
    ],
  },
  {
    job: 'demo-weir-house',
    id: 'weir-house-first',
    before: 21,
    hour: 8,
    recorded: (stamp) => [
      [0, { do: 'visit', visit: { id: stamp.visit, who, why: 'Hot water too hot', at: stamp.at } }],
      [4, { do: 'isolated', visit: stamp.visit }],
      [
        40,
        {
          do: 'item',
          id: 'weir-house-found',
          item: {
            kind: 'found',
            severity: 'danger',
            text: 'The cylinder thermostat hung beside the cylinder on its lead.',
            part: 'cyl-stat',
            evidence: ['71 °C at the tap, dial at 60 °C'],
            ...stamp,
          },
        },
      ],
      [
        60,
        {
          do: 'item',
          id: 'weir-house-done',
          item: {
            kind: 'done',
            severity: 'remark',
            text: 'Thermostat strapped to the cylinder a third of the way up.',
            part: 'cyl-stat',
            evidence: ['59 °C at the tap after an hour'],
            ...stamp,
          },
        },
      ],
      [65, { do: 'visit-ends', visit: stamp.visit }],
      [66, { do: 'edit', label: 'Job closed', changes: [{ do: 'set', path: ['status'], was: 'open', now: 'closed' }] }],
    ],
  },
]

/** What was recorded on a demo job's visits, each with the time it was done at. */
export const demoVisits = (job: string, now: Date): { id: string; visit: string; at: string; entry: Entry }[] =>
  visits
    .filter((one) => one.job === job)
    .flatMap(({ id, before, hour, recorded }) => {
      const day = (from: number) => new Date(now.getTime() + from * dayMs).toISOString().slice(0, 10)
      const begun = new Date(`${day(-before)}T${String(hour).padStart(2, '0')}:00:00.000Z`)
      return recorded({ at: begun.toISOString(), visit: id }, day).map(([minutes, entry], i) => ({
        id: `${id}-${i}`,
        visit: id,
        at: new Date(begun.getTime() + minutes * 60_000).toISOString(),
        entry,
      }))
    })
