import {
  circuitKindIds,
  circuitKinds,
  circuitsTaken,
  countOf,
  fittingChoices,
  fittingsOf,
  schemes,
  usualFittings,
  zonesBehindChannel,
  type CircuitKind,
  type Fittings,
  type SchemeId,
  type ThermostatChoice,
  type TimedChoice,
} from './schemes'

/** What answers of a brief can contradict each other in. */
export interface Answers extends Partial<Fittings> {
  scheme: SchemeId
  circuits: readonly {
    kind: CircuitKind
    name: string
    alongside?: boolean
    thermostat?: ThermostatChoice
    timed?: TimedChoice
  }[]
  offContact?: boolean
}

/** Why answers cannot be laid out together, and which of them says so. */
export interface Refusal {
  path: (string | number)[]
  message: string
}

/** What contradicts what among the answers of a brief, before anything is laid out; none where all of it goes together. */
export function refusalsOf(brief: Answers): Refusal[] {
  const refusals: Refusal[] = []
  const refuse = (path: (string | number)[], message: string) => refusals.push({ path, message })
  countsOfCircuits(brief, refuse)
  namesOfCircuits(brief, refuse)
  alongsideHotWater(brief, refuse)
  ownThermostats(brief, refuse)
  if (brief.scheme === 'mid-position' && brief.offContact === false)
    refuse(
      ['offContact'],
      'a mid-position valve needs the programmer’s hot water OFF contact: without it heating alone stops halfway and never calls the boiler',
    )
  if (usualFittings(brief.scheme)) whatIsFitted(brief, refuse)
  else inOneWayOnly(brief, refuse)
  return refusals
}

type Refuse = (path: (string | number)[], message: string) => void

function countsOfCircuits(brief: Answers, refuse: Refuse): void {
  for (const kind of circuitKindIds) {
    const [least, most] = circuitsTaken(brief.scheme, kind)
    const n = countOf(brief, kind)
    if (n >= least && n <= most) continue
    const wanted = least === most ? `${most}` : least === 0 ? `at most ${most}` : `${least} to ${most}`
    refuse(
      ['circuits'],
      `${schemes[brief.scheme].name} takes ${wanted} ${circuitKinds[kind]} circuit${most === 1 ? '' : 's'}, not ${n}`,
    )
  }
}

function namesOfCircuits({ circuits }: Answers, refuse: Refuse): void {
  const names = circuits.map((c) => c.name.toLowerCase())
  names.forEach((name, i) => {
    if (names.indexOf(name) !== i) refuse(['circuits', i, 'name'], `"${circuits[i].name}" is there twice`)
  })
}

/** Circuits that stand behind a valve which shuts them while the cylinder is heated. */
function alongsideHotWater(brief: Answers, refuse: Refuse): void {
  const waits = (kind: CircuitKind) =>
    ['diverter', 'three-wire-diverter'].includes(brief.scheme) ||
    // Towel rails divide off before the priority valve.
    (usualFittings(brief.scheme) && fittingsOf(brief).boiler === 'two-calls' && kind !== 'towel-rails')
  brief.circuits.forEach(({ kind, name, alongside }, i) => {
    if (alongside && kind === 'hot-water') refuse(['circuits', i, 'alongside'], `“${name}” is the hot water itself`)
    else if (alongside && waits(kind))
      refuse(
        ['circuits', i, 'alongside'],
        usualFittings(brief.scheme)
          ? `“${name}” is to heat with hot water, and with two calls a valve shuts it off while the cylinder is heated`
          : `“${name}” is to heat with hot water, and ${schemes[brief.scheme].name} gives all flow to the cylinder first`,
      )
  })
}

/** Zones with another thermostat than their scheme's, or timed otherwise. */
function ownThermostats(brief: Answers, refuse: Refuse): void {
  const behind = zonesBehindChannel(brief.scheme)
  const receiver = usualFittings(brief.scheme) && fittingsOf(brief).control === 'smart-receiver'
  brief.circuits.forEach(({ kind, name, thermostat, timed }, i) => {
    for (const [field, said] of Object.entries({ thermostat, timed })) {
      if (said === undefined) continue
      const path = ['circuits', i, field]
      if (kind !== 'heating') refuse(path, `“${name}” is no heating zone with a thermostat of its own to choose`)
      else if (receiver)
        refuse(path, `with a smart receiver the zones’ thermostats are its own: leave the ${field} out`)
      else if (!behind)
        refuse(path, `${schemes[brief.scheme].name} is laid out in one way only: leave the ${field} out`)
    }
    if (timed === 'by-itself' && (thermostat === undefined || thermostat === 'wired' || thermostat === 'two-wire'))
      refuse(
        ['circuits', i, 'timed'],
        `“${name}” cannot time itself: a plain thermostat knows no hours; take a programmable or a wireless one`,
      )
  })
}

function inOneWayOnly(brief: Answers, refuse: Refuse): void {
  const { name } = schemes[brief.scheme]
  const heatsCylinder = circuitsTaken(brief.scheme, 'hot-water')[1] > 0
  for (const field of Object.keys(fittingChoices) as (keyof Fittings)[]) {
    if (brief[field] === undefined || (heatsCylinder && brief[field] === 'vented')) continue
    if (heatsCylinder && brief[field] === 'unvented')
      refuse(
        ['cylinder'],
        `an unvented cylinder’s high limit has to shut a valve that closes without power, and ${name} has none before the cylinder`,
      )
    else refuse([field], `${name} is laid out in one way only: leave the ${field} out`)
  }
}

function whatIsFitted(brief: Answers, refuse: Refuse): void {
  const count = (kind: CircuitKind) => countOf(brief, kind)
  const fitted = fittingsOf(brief)
  if (fitted.cylinder === 'unvented' && count('hot-water') === 0)
    refuse(['cylinder'], 'an unvented cylinder needs a hot water circuit')
  if (fitted.control === 'smart-receiver' && count('heating') === 0)
    refuse(['control'], 'a smart receiver controls a heating zone: there is none')
  if (fitted.control === 'smart-receiver' && count('towel-rails') > 0)
    refuse(['control'], 'towel rails need a channel of their own, and a smart receiver has two: take a programmer')
  if (fitted.control === 'smart-receiver' && count('later') > 0)
    refuse(
      ['control'],
      'a zone whose thermostat comes later runs with a heating channel: a smart receiver has none to spare',
    )
  if (fitted.boiler === 'two-calls' && (count('hot-water') === 0 || count('heating') === 0))
    refuse(['boiler'], 'two calls need a heating and a hot water circuit')
  if (brief.scheme === 'hot-water-priority' && fitted.boiler !== 'two-calls')
    refuse(['boiler'], 'hot-water priority needs a boiler with two calls')
}
