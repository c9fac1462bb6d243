import { ownerOf, type Cable, type End, type Installation, type Link } from '../installation'
import type { NearEnd, Survey } from './document'
import type { Surveyed } from './surveyed'
import type { CoreStanding } from './standing'

const nearEnd = (centre: string, at: NearEnd): End => {
  switch (at.at) {
    case 'terminal':
    case 'parked':
      return { at: at.at, terminal: `${centre}.${at.terminal}`, provenance: 'seen' }
    case 'connector':
      return { at: 'connector', connector: at.connector, provenance: 'seen' }
    case 'unseen':
      return { at: 'unknown', provenance: 'assumed' }
    default:
      return { at: at.at, provenance: 'seen' }
  }
}

/** What is certain was tested; what is likely is assumed, and marked so; of the rest nobody knows. */
function farEnd({ sure, to }: CoreStanding): End {
  const provenance = sure === 'certain' ? 'tested' : 'assumed'
  if (sure === 'open' || !to || to.at === 'away' || to.at === 'joint') return { at: 'unknown', provenance }
  return to.at === 'cut-back' ? { at: 'cut-back', provenance } : { at: 'terminal', terminal: to.terminal, provenance }
}

/**
 * The wiring as found, made of what was seen and what follows from it: the devices as they were expected, the wiring centre as it was
 * seen. Cables that do not come into the wiring centre stay as they were expected, assumed. What is fed through a wall is a cable of
 * one conductor.
 */
export function asFoundOf(
  survey: Survey,
  { cores, departures, cables }: Surveyed,
  expected: Installation,
): Installation {
  const [box] = expected.wiringCentres
  if (!box) throw new RangeError('there is no wiring centre to hold what was seen')
  const boxes = new Set(expected.wiringCentres.map(({ id }) => id))
  const direct = expected.cables.filter((cable) =>
    cable.cores.every(({ ends }) => ends.every((end) => !('terminal' in end) || !boxes.has(ownerOf(end.terminal)))),
  )
  const used = new Set(direct.map(({ id }) => id))
  const free = (wanted: string): string => {
    for (let n = 1; ; n++) {
      const id = n === 1 ? wanted : `${wanted}-${n}`
      if (!used.has(id)) {
        used.add(id)
        return id
      }
    }
  }
  const known = new Map(cores.map((core) => [`${core.cable} ${core.core}`, core]))
  const seen = survey.cables.map((cable, i): Cable => {
    const standing = cables.find((one) => one.cable === cable.id)
    const device = expected.devices.find(({ id }) => id === standing?.device)
    const lead = cable.leadOf !== undefined && standing?.sure === 'certain' ? { leadOf: standing.device } : {}
    const named =
      device && standing?.sure !== 'open'
        ? `${device.name} ${cable.leadOf === undefined ? 'cable' : 'lead'}`
        : undefined
    return {
      id: free(`cable-${i + 1}`),
      label: named === undefined || named === cable.label ? cable.label : `${named} (${cable.label})`.slice(0, 120),
      ratedForMains: true,
      ...lead,
      cores: cable.cores.map(({ id, colour, sleeve, at }) => ({
        id,
        colour,
        ...(sleeve && { sleeve }),
        areaMm2: 0.75,
        ends: [farEnd(known.get(`${cable.id} ${id}`)!), nearEnd(box.id, at)],
      })),
    }
  })
  const name = (ref: string) => expected.devices.find(({ id }) => id === ownerOf(ref))?.name ?? ref
  const hidden = departures.flatMap(({ kind, between, sure }): Cable[] => {
    if (kind !== 'through-wall' || !between) return []
    const provenance = sure === 'certain' ? 'tested' : 'assumed'
    const ends = between.map((terminal): End => ({ at: 'terminal', terminal, provenance })) as [End, End]
    return [
      {
        id: free('through-wall'),
        label: `Through the wall: ${name(between[0])}, ${name(between[1])}`.slice(0, 120),
        ratedForMains: true,
        cores: [{ id: 'core', colour: 'brown', areaMm2: 0.75, ends }],
      },
    ]
  })
  const taken = new Set<string>()
  const links = [
    ...expected.links.filter(({ between }) => !between.some((ref) => boxes.has(ownerOf(ref)))),
    ...survey.links.map(({ id, between: [a, b] }): Link => ({
      id,
      kind: 'fitted',
      between: [`${box.id}.${a}`, `${box.id}.${b}`],
      provenance: 'seen',
    })),
  ].map((link) => {
    let { id } = link
    for (let n = 2; taken.has(id); n++) id = `${link.id}-${n}`
    taken.add(id)
    return { ...link, id }
  })
  const joined = new Map<string, number>()
  for (const { cores: own } of survey.cables)
    for (const { at } of own) if (at.at === 'connector') joined.set(at.connector, (joined.get(at.connector) ?? 0) + 1)
  return {
    ...expected,
    provenance: 'assumed',
    wiringCentres: [{ ...box, terminals: terminalsOf(survey, box.id, links) }, ...expected.wiringCentres.slice(1)],
    connectors: [...joined].map(([id, ways]) => ({
      id,
      name: `Connector ${id}`,
      place: box.place,
      ways: Math.min(12, Math.max(2, ways)),
    })),
    cables: [...seen, ...direct.map(assumed), ...hidden],
    links,
  }
}

const assumed = (cable: Cable): Cable => ({
  ...cable,
  cores: cable.cores.map((core) => ({
    ...core,
    ends: core.ends.map((end) => ({ ...end, provenance: 'assumed' })) as Cable['cores'][number]['ends'],
  })),
})

/** The terminals as seen; a box has at least one. Each has as many ways as there are conductors and links in it. */
function terminalsOf(
  survey: Survey,
  centre: string,
  links: readonly Link[],
): Installation['wiringCentres'][number]['terminals'] {
  const known = new Set(survey.terminals.map(({ id }) => id))
  const used = survey.cables.flatMap(({ cores }) => cores.flatMap(({ at }) => ('terminal' in at ? at.terminal : [])))
  const others = new Set([...used, ...survey.links.flatMap(({ between }) => between)].filter((id) => !known.has(id)))
  const seen = [...survey.terminals, ...[...others].map((id) => ({ id, legend: '' }))]
  const all = seen.length > 0 ? seen : [{ id: '1', legend: '' }]
  return all.map(({ id, legend }) => {
    const sits = survey.cables.flatMap(({ cores }) => cores).filter(({ at }) => 'terminal' in at && at.terminal === id)
    const linked = links.filter(({ between }) => between.includes(`${centre}.${id}`))
    return { id, legend, ways: Math.min(8, Math.max(2, sits.length + linked.length)) }
  })
}
