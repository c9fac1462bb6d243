import { typeIn } from '../../catalogue'
import { type EdgeId, type AtomId, conductingPath, feedsOf, type Circuit } from '../../circuit'
import { Rig } from '../../hypotheses'
import { freeLinkId, placeOf, type Cable, type Change, type Core, type End } from '../../installation'
import { parseAction, type Simulation } from '../../simulation'
import { loadEnds } from '../../trace'
import type { CheckFinding } from '../finding'
import { otherKind, withoutLink, withSetting, type Departure } from '../../departures'
import { Survey } from '../rules/survey'

/**
 * Single changes that might cure findings, where there is no plan to go back to: choices at set-up of what is
 * concerned, links on the way, conductors on the way and at the devices of the demands concerned, to every other function of
 * the wiring centre or exchanged with one beside them. The likelier and the cheaper to do come first.
 */
export function repairsFor(circuit: Circuit, findings: readonly CheckFinding[]): Departure[] {
  const doc = circuit.installation
  const survey = new Survey(circuit)
  const devices = concerned(circuit, findings)
  const onWay = new Set(findings.flatMap((f) => (f.actions ? edgesOnWay(circuit, f) : edgesToPoles(survey, f))))
  const way = {
    cores: new Set(findings.flatMap((f) => (f.cores ?? []).map((c) => `${c.cable}.${c.core}`))),
    links: new Set(findings.flatMap((f) => f.links ?? [])),
  }
  for (const index of onWay) {
    const edge = circuit.edges[index]
    if (edge.kind === 'core') way.cores.add(`${edge.cable.id}.${edge.core.id}`)
    if (edge.kind === 'link') way.links.add(edge.link.id)
  }
  const settings = doc.devices
    .filter((d) => devices.has(d.id))
    .flatMap((device) =>
      typeIn(doc, device.type).settings.flatMap((setting) => {
        const stands = device.settings[setting.id] ?? setting.default
        return (setting.choices ?? [])
          .filter((c) => c.value !== stands)
          .map((c) => withSetting(doc, device, setting.id, c.value))
      }),
    )
  const owner = (ref: string) => ref.split('.')[0]
  const links = doc.links.flatMap((link) => {
    const near = link.between.some((t) => devices.has(owner(t)))
    if (link.kind !== 'fitted') return near ? otherKind(link) : []
    return way.links.has(link.id) || near ? [withoutLink(link)] : []
  })
  const all = doc.cables.flatMap((cable) => cable.cores.map((core) => ({ cable, core })))
  const touches = ({ core }: (typeof all)[number]) => core.ends.some((end) => devices.has(owner(placeOf(end) ?? '.')))
  const first = all.filter(({ cable, core }) => way.cores.has(`${cable.id}.${core.id}`))
  const second = all.filter((c) => !first.includes(c) && touches(c))
  const isolators = new Set(circuit.sources.map((s) => circuit.devices[s.device].device.id))
  // What brings the supply to everything is not what is wrong with one demand.
  const own = ({ cable }: (typeof all)[number]) =>
    !cable.cores.some((k) => k.ends.some((e) => isolators.has(owner(placeOf(e) ?? '.'))))
  const missing = missingLinks(survey)
  return [
    ...settings,
    // What a planner or a hand has called alike, it meant to join.
    ...missing.filter((m) => m.alike).map((m) => m.departure),
    ...links,
    ...first.filter(own).flatMap(({ cable, core }) => elsewhere(survey, cable, core)),
    ...exchanges([...first, ...second].filter(own)),
    ...second.filter(own).flatMap(({ cable, core }) => elsewhere(survey, cable, core)),
    ...missing.filter((m) => !m.alike).map((m) => m.departure),
  ]
}

/** Devices that findings are about, with those of the demands concerned. */
function concerned(circuit: Circuit, findings: readonly CheckFinding[]): Set<string> {
  const { demands } = circuit.installation.intent
  const ids = new Set(findings.flatMap((f) => [...f.devices, ...f.terminals.map((t) => t.split('.')[0])]))
  for (const demand of demands) {
    const calls = demands.length === 1 || findings.some((f) => f.demands?.includes(demand.id))
    const owns = demand.circuit.valves.some((v) => ids.has(v.device))
    if (!calls && !owns) continue
    const { channel, thermostat, circuit: of, call } = demand
    for (const id of [
      channel?.device,
      thermostat?.device,
      ...of.valves.map((v) => v.device),
      ...(of.runs ?? []),
      call.boiler,
    ])
      if (id !== undefined) ids.add(id)
  }
  return ids
}

/** Conductors, links and contacts on the ways by which what a finding is about is live, in the state that shows it. */
function edgesOnWay(circuit: Circuit, finding: CheckFinding): EdgeId[] {
  const rig = Rig.after(circuit, (finding.actions ?? []).map(parseAction))
  const sim = rig.simulation
  const state = { ...sim.electrics.state, blown: new Uint8Array(circuit.fuses.length) }
  const to = (atom: AtomId) =>
    feedsOf(circuit).flatMap(({ line }) => conductingPath(circuit, state, line, (reached) => reached === atom) ?? [])
  if (finding.rule === 'no-short')
    return circuit.sources.flatMap(
      ({ line, neutral, earth }) =>
        conductingPath(circuit, state, line, (atom) => atom === neutral || atom === earth) ?? [],
    )
  const atoms = [
    ...finding.terminals.map((t) => circuit.atomIndex.get(t)!),
    ...motorsOf(circuit, sim, finding).map((load) => loadEnds(circuit, load).fed),
  ]
  return atoms.flatMap(to)
}

/** What joins the terminals of a rule's finding to poles of the supply by wiring alone. */
function edgesToPoles({ circuit, wiredState }: Survey, { terminals }: CheckFinding): EdgeId[] {
  const poles = new Set(circuit.sources.flatMap(({ line, neutral, earth }) => [line, neutral, earth]))
  return terminals.flatMap((t) => {
    const atom = circuit.atomIndex.get(t)
    return atom === undefined ? [] : (conductingPath(circuit, wiredState, atom, (reached) => poles.has(reached)) ?? [])
  })
}

/** Motors that run in the circuits a finding is about. */
function motorsOf(circuit: Circuit, sim: Simulation, finding: CheckFinding): number[] {
  const demands = circuit.installation.intent.demands.filter((d) => finding.demands?.includes(d.id))
  const valves = new Set([...finding.devices, ...demands.flatMap((d) => d.circuit.valves.map((v) => v.device))])
  return circuit.actuators.flatMap(({ device, drivenBy }) =>
    valves.has(circuit.devices[device].device.id) && sim.loadEnergised(drivenBy) ? [drivenBy] : [],
  )
}

const onTerminal = (terminal: string): End => ({ at: 'terminal', terminal })

/** A conductor's end in a wiring centre, or on nothing, put on every other function there is. */
function elsewhere(survey: Survey, cable: Cable, core: Core): Departure[] {
  const { circuit, wired } = survey
  const centres = circuit.installation.wiringCentres.map((c) => c.id)
  return ([0, 1] as const).flatMap((end) => {
    const is = core.ends[end]
    const at = placeOf(is)
    const other = placeOf(core.ends[1 - end])
    const free = at === undefined && other !== undefined && !centres.includes(other.split('.')[0])
    if (!free && (at === undefined || is.at === 'connector' || !centres.includes(at.split('.')[0]))) return []
    const seen = new Set(at === undefined ? [] : [wired.netOf[survey.atom(at)]])
    const places = survey.centreTerminals((atom) => {
      if (seen.has(wired.netOf[atom])) return false
      seen.add(wired.netOf[atom])
      return true
    })
    return places.map((first): Departure => {
      // Of the terminals of one function, one with a way free.
      const net = wired.netOf[survey.atom(first)]
      const belongs = survey.centreTerminals((a) => wired.netOf[a] === net).find((ref) => survey.hasRoom(ref)) ?? first
      return {
        what: { kind: 'core', core: { cable: cable.id, core: core.id, end }, at: at ?? '', belongs },
        step: {
          deed: { do: 'put-in', core: { cable: cable.id, core: core.id }, to: belongs },
          changes: [{ do: 'end', cable: cable.id, core: core.id, end, to: onTerminal(belongs) }],
        },
      }
    })
  })
}

/** Two conductors exchanged that end at one device, or belong to one cable and end in one wiring centre. */
function exchanges(cores: readonly { cable: Cable; core: Core }[]): Departure[] {
  const ends = cores.flatMap(({ cable, core }) =>
    ([0, 1] as const).flatMap((end) => {
      const at = placeOf(core.ends[end])
      return at === undefined || core.ends[end].at === 'connector' ? [] : [{ cable, core, end, at }]
    }),
  )
  return ends.flatMap((a, i) =>
    ends.slice(i + 1).flatMap((b): Departure[] => {
      if (a.at === b.at || a.at.split('.')[0] !== b.at.split('.')[0]) return []
      const change = (of: typeof a, to: string): Change => ({
        do: 'end',
        cable: of.cable.id,
        core: of.core.id,
        end: of.end,
        to: onTerminal(to),
      })
      const of = ({ cable, core }: typeof a) => ({ cable: cable.id, core: core.id })
      return [
        {
          what: {
            kind: 'exchanged',
            cores: [
              { cable: a.cable.id, core: a.core.id, end: a.end },
              { cable: b.cable.id, core: b.core.id, end: b.end },
            ],
          },
          step: { deed: { do: 'exchange', cores: [of(a), of(b)] }, changes: [change(a, b.at), change(b, a.at)] },
        },
      ]
    }),
  )
}

/** Terminals beside each other in a wiring centre that nothing joins, joined by a link. */
function missingLinks({ circuit, wired }: Survey): { alike: boolean; departure: Departure }[] {
  const doc = circuit.installation
  return doc.wiringCentres.flatMap((centre) =>
    centre.terminals.slice(1).flatMap((t, i) => {
      const between: [string, string] = [`${centre.id}.${centre.terminals[i].id}`, `${centre.id}.${t.id}`]
      const [a, b] = between.map((ref) => circuit.atomIndex.get(ref)!)
      if (wired.netOf[a] === wired.netOf[b]) return []
      const departure: Departure = {
        what: { kind: 'link-missing', between },
        step: {
          deed: { do: 'fit-link', between },
          changes: [{ do: 'put', in: 'links', value: { id: freeLinkId(doc), kind: 'fitted', between } }],
        },
      }
      return [{ alike: t.legend !== '' && t.legend === centre.terminals[i].legend, departure }]
    }),
  )
}
