import { typeIn } from '../catalogue'
import type { Cable, Colour, Installation } from '../installation'

/** Devices of one type. */
export interface Part {
  name: string
  count: number
  /** What each is called here. */
  called: string[]
}

/** Cables that are cut from one drum. */
export interface CableKind {
  cores: number
  colours: Colour[]
  /** mm² of each core. */
  areaMm2: number
  /** Metres in all, of those whose length is known. */
  lengthM: number
  cables: { label: string; lengthM?: number }[]
}

/** What is to be at hand before the first cable is pulled. */
export interface PartsList {
  /** With terminals, to be wired. */
  wired: Part[]
  /** In the pipes only. */
  unwired: Part[]
  cables: CableKind[]
  /** The fixed leads of devices: their makers supply them. */
  leads: string[]
  wiringCentres: { name: string; terminals: number; links: number }[]
  connectors: { name: string; ways: number }[]
  /** By colour, one to each end of a conductor that is sleeved. */
  sleeves: { colour: Colour; count: number }[]
}

export function partsList(installation: Installation): PartsList {
  const { devices, cables, wiringCentres, connectors, links } = installation
  const byType = grouped(devices, ({ type }) => type)
  const isWired = (type: string) => typeIn(installation, type).terminals.length > 0
  const parts = (wired: boolean): Part[] =>
    byType
      .filter(([type]) => isWired(type) === wired)
      .map(([type, own]) => ({
        name: typeIn(installation, type).name,
        count: own.length,
        called: own.map(({ name }) => name),
      }))
  const drums = grouped(
    cables.filter(({ leadOf }) => leadOf === undefined),
    drumOf,
  )
  const sleeved = cables.flatMap(({ cores }) =>
    cores.flatMap(({ sleeve, ends }) =>
      sleeve ? ends.filter(({ at }) => at === 'terminal' || at === 'connector').map(() => sleeve) : [],
    ),
  )
  return {
    wired: parts(true),
    unwired: parts(false),
    cables: drums.map(([, own]) => ({
      cores: own[0].cores.length,
      colours: own[0].cores.map(({ colour }) => colour),
      areaMm2: own[0].cores[0].areaMm2,
      lengthM: own.reduce((sum, { lengthM }) => sum + (lengthM ?? 0), 0),
      cables: own.map(({ label, lengthM }) => ({ label, lengthM })),
    })),
    leads: cables.filter(({ leadOf }) => leadOf !== undefined).map(({ label }) => label),
    wiringCentres: wiringCentres.map(({ id, name, terminals }) => ({
      name,
      terminals: terminals.length,
      links: links.filter((l) => l.kind === 'fitted' && l.between.every((ref) => ref.startsWith(`${id}.`))).length,
    })),
    connectors: connectors.map(({ name, ways }) => ({ name, ways })),
    sleeves: grouped(sleeved, (colour) => colour).map(([colour, own]) => ({ colour, count: own.length })),
  }
}

const drumOf = ({ cores }: Cable): string => cores.map(({ colour, areaMm2 }) => `${colour} ${areaMm2}`).join(', ')

function grouped<T, K>(list: readonly T[], keyOf: (one: T) => K): [K, [T, ...T[]]][] {
  const groups = new Map<K, [T, ...T[]]>()
  for (const one of list) {
    const own = groups.get(keyOf(one))
    if (own) own.push(one)
    else groups.set(keyOf(one), [one])
  }
  return [...groups]
}
