import type { Circuit } from '../circuit'
import type { Demand } from '../installation'
import { nth } from '../lists'
import type { WrittenLook } from '../looks'
import { runsOfDemand, type Way } from '../trace'
import { askableContacts, askedFor, type ControlState } from './candidates'
import type { HuntEntry, HuntOptions } from './case'
import { complainedOf } from './standing'

/** What a strategy needs to know of a look. */
interface Choosable {
  see: WrittenLook
  state: { asking: ControlState }
  /** Bits. */
  bits: number
  minutes: number
}

/**
 * Looks in the order in which a strategy would make them, of those that tell anything. Along a line, looks on it come first, in
 * the service that was complained of; what tells most for its time follows.
 */
export function inOrder<C extends Choosable>(
  circuit: Circuit,
  log: readonly HuntEntry[],
  strategy: HuntOptions['strategy'],
  looks: readonly C[],
): C[] {
  const byRate = [...looks].sort((x, y) => y.bits / y.minutes - x.bits / x.minutes)
  if (strategy === 'most-information') return byRate
  const lines = demandsInOrder(circuit, log).map((demand) => {
    const line = lineOf(circuit, demand)
    const place = ({ see }: C) => line.indexOf(JSON.stringify(see))
    const onLine = looks
      .filter((look) => place(look) >= 0 && asksForOnly(circuit, look.state.asking, demand))
      .sort((x, y) => place(x) - place(y))
    const middle = Math.floor((onLine.length - 1) / 2)
    return strategy === 'source-to-load' || onLine.length === 0
      ? onLine
      : [nth(onLine, middle), ...onLine.filter((_, i) => i !== middle)]
  })
  const first = lines.flat()
  return [...first, ...byRate.filter((look) => !first.includes(look))]
}

/** The services complained of first, then the others. */
function demandsInOrder({ installation }: Circuit, log: readonly HuntEntry[]): Demand[] {
  const told = complainedOf(log)
  const { demands } = installation.intent
  return [...demands].sort((x, y) => Number(told.has(y.id)) - Number(told.has(x.id)))
}

function asksForOnly(circuit: Circuit, asking: ControlState, demand: Demand): boolean {
  const asked = askedFor(circuit, asking)
  return asked.length === 1 && asked[0] === demand
}

/** The contacts that ask where this demand alone is wanted. */
export const askingFor = (circuit: Circuit, { channel, thermostat }: Demand): ControlState =>
  askableContacts(circuit).flatMap((at) =>
    [channel, thermostat].some((own) => own?.device === at.device && own.contact === at.contact)
      ? [`${at.device}.${at.contact}`]
      : [],
  )

/** What a demand's signal comes by on its way from the source: terminals, the valve it drives, the boiler it calls; as looks' texts. */
function lineOf(circuit: Circuit, demand: Demand): string[] {
  const { boiler } = demand.call
  const runs = runsOfDemand(circuit, demand)
  const looks = runs.flatMap(({ way, load }): WrittenLook[] => {
    const { device } = nth(circuit.devices, nth(circuit.loads, load).device)
    const end: WrittenLook[] =
      device.id === boiler
        ? [{ at: 'boiler', device: boiler }]
        : [
            { at: 'motor', device: device.id },
            { at: 'lever', device: device.id },
          ]
    return [
      ...atomsOf(way).map((atom): WrittenLook => ({ at: 'points', with: 'tester', red: nth(circuit.atoms, atom).ref })),
      ...end,
    ]
  })
  return looks.map((look) => JSON.stringify(look))
}

/** The atoms a way goes through, in order; of ways side by side, one after the other. */
function atomsOf(way: Way): number[] {
  return way.flatMap((station): number[] => {
    switch (station.kind) {
      case 'leg':
        return [station.from, ...station.steps.map((step) => step.to)]
      case 'gate':
      case 'tangle':
        return [station.from, station.to]
      case 'split':
        return [station.from, ...station.branches.flatMap(atomsOf), station.to]
    }
  })
}
