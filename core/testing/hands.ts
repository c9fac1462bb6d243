import {
  addCable,
  addCentre,
  addDevice,
  addTerminal,
  changeDevice,
  changeTerminal,
  cutLink,
  fitLink,
  markEnd,
  moveEnd,
  outsideTerminals,
  recolour,
  removeCable,
  removeCentre,
  removeDevice,
  removeTerminal,
  sleeve,
  type EndRef,
} from '../src/bench'
import { deviceTypes } from '../src/catalogue'
import { edited, type Command, type Installation, type Step } from '../src/installation'
import { commandOf } from '../src/wording'

/** Picks a whole number from 0 to below n. */
export type Pick = (n: number) => number

const from = <T>(pick: Pick, list: readonly T[]): T | undefined =>
  list.length > 0 ? list[pick(list.length)] : undefined

function someEnd(doc: Installation, pick: Pick): EndRef | undefined {
  const cable = from(pick, doc.cables)
  const core = cable && from(pick, cable.cores)
  return cable && core && { cable: cable.id, core: core.id, end: pick(2) as 0 | 1 }
}

function someTerminal(doc: Installation, pick: Pick): string | undefined {
  const centre = from(pick, doc.wiringCentres)
  const terminal = centre && from(pick, centre.terminals)
  if (terminal && pick(3) > 0) return `${centre.id}.${terminal.id}`
  const device = from(pick, doc.devices)
  return device && from(pick, outsideTerminals(doc, device))?.ref
}

/** Everything a hand does at the bench, one of each kind. */
const acts: ((doc: Installation, pick: Pick) => Step | undefined)[] = [
  (doc, pick) => {
    const [end, terminal] = [someEnd(doc, pick), someTerminal(doc, pick)]
    return end && terminal ? moveEnd(end, { at: 'terminal', terminal, provenance: 'seen' }) : undefined
  },
  (doc, pick) => {
    const end = someEnd(doc, pick)
    return end && moveEnd(end, { at: from(pick, ['loose', 'cut-back', 'unknown'] as const)! })
  },
  (doc, pick) => {
    const end = someEnd(doc, pick)
    return end && markEnd(doc, end, from(pick, ['seen', 'tested', 'assumed'] as const)!)
  },
  (doc, pick) => {
    const end = someEnd(doc, pick)
    return end && recolour(end, from(pick, ['red', 'black', 'yellow'] as const)!)
  },
  (doc, pick) => {
    const end = someEnd(doc, pick)
    return end && sleeve(end, pick(2) ? 'brown' : null)
  },
  (doc, pick) => {
    const centre = from(pick, doc.wiringCentres)
    return centre && addTerminal(centre, `Spare ${pick(1000)}`, from(pick, centre.terminals)?.id)
  },
  (doc, pick) => {
    const centre = from(pick, doc.wiringCentres)
    return centre && removeTerminal(doc, centre, from(pick, centre.terminals)!.id)
  },
  (doc, pick) => {
    const centre = from(pick, doc.wiringCentres)
    return centre && changeTerminal(centre, from(pick, centre.terminals)!.id, { legend: `Legend ${pick(1000)}` })
  },
  (doc, pick) => {
    const centre = from(pick, doc.wiringCentres)
    return centre && changeTerminal(centre, from(pick, centre.terminals)!.id, { ways: 1 + pick(4) })
  },
  (doc, pick) => {
    const [a, b] = [someTerminal(doc, pick), someTerminal(doc, pick)]
    return a && b && a !== b ? fitLink(doc, a, b) : undefined
  },
  (doc, pick) => {
    const link = from(pick, doc.links)
    return link && cutLink(link)
  },
  (doc, pick) => addCable(doc, `Cable ${pick(5)}`, from(pick, [3, 4, 5] as const)!),
  (doc, pick) => {
    const cable = from(pick, doc.cables)
    return cable && !cable.leadOf ? removeCable(doc, cable.id) : undefined
  },
  (doc, pick) => {
    const device = from(pick, doc.devices)
    return device && changeDevice(doc, device.id, { name: `Device ${pick(1000)}` })
  },
  (doc, pick) => {
    const device = from(pick, doc.devices)
    const terminal = device && from(pick, outsideTerminals(doc, device))
    if (!device || !terminal) return undefined
    return changeDevice(doc, device.id, { legends: { ...device.legends, [terminal.id]: `L${pick(100)}` } })
  },
  (doc, pick) => addDevice(doc, from(pick, deviceTypes)!, `Device ${pick(4)}`, from(pick, doc.places)!.id),
  (doc, pick) => {
    const device = from(pick, doc.devices)
    return device && removeDevice(doc, device.id)
  },
  (doc, pick) => (doc.wiringCentres.length < 4 ? addCentre(doc, `Centre ${pick(3)}`, 1 + pick(4)) : undefined),
  (doc, pick) => {
    const centre = from(pick, doc.wiringCentres)
    return centre && doc.wiringCentres.length > 1 ? removeCentre(doc, centre) : undefined
  },
  (_, pick) => ({
    deed: { do: 'settings', name: 'Let stand' },
    changes: [{ do: 'put', in: 'waivers', value: { id: `finding ${pick(5)}`, reason: `for reason ${pick(100)}` } }],
  }),
]

/** One thing done at the bench, whatever the numbers say; undefined where it cannot be done to this wiring. */
export function someAct(doc: Installation, pick: Pick): Command | undefined {
  const step = from(pick, acts)!(doc, pick)
  return step && edited(doc, step).doc !== doc ? commandOf(doc, step) : undefined
}
