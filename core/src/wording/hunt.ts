import type { Circuit } from '../circuit'
import { needsIsolation, passes, type Complaint, type HuntEntry, type Reason, type Suspect } from '../hunt'
import type { WrittenLook } from '../looks'
import { actText, inSentence } from './acts'
import { runName } from './demands'
import { answerText, lookText } from './looks'
import { deviceName, partName } from './names'

const nothingWrong = 'Nothing wrong: that is how it works'

export const suspectText = ({ id, label }: Pick<Suspect, 'id' | 'label'>): string =>
  id === 'nothing-wrong' ? nothingWrong : label.slice(0, 1).toUpperCase() + label.slice(1)

/** Why an installation in order does what was complained of, to be told to whoever complained. */
export function reasonText(circuit: Circuit, reason: Reason): string {
  const service = (id: string) => serviceText(circuit, id)
  switch (reason.why) {
    case 'satisfied':
      return `${service(reason.demand)} is not called: ${inSentence(deviceName(circuit, reason.thermostat))} is satisfied`
    case 'channel-off':
      return `${service(reason.demand)} is not called: its channel of ${inSentence(deviceName(circuit, reason.channel))} is off`
    case 'waits':
      return `${service(reason.demand)} waits: ${inSentence(service(reason.first))} goes first, and both cannot be served`
    case 'own-run':
      return `${service(reason.demand)} is on by the ${runName(circuit, reason.run)}`
    case 'stays-over':
      return `${deviceName(circuit, reason.valve)} stays where it was driven last: it moves on only when another service calls`
    case 'overrun':
      return `${deviceName(circuit, reason.boiler)} runs on for a while after its call, to cool itself`
    case 'waits-off':
      return `${deviceName(circuit, reason.boiler)} is called and waits: it keeps its burner off for a least time after each run`
    case 'asks-besides':
      return `${deviceName(circuit, reason.device)} asks, whatever is set: no service is asked for, and without it there is no call`
  }
}

/** What a customer says of a service, to stand behind its name. */
export const complaintWords: Record<Complaint, string> = {
  'does-not-come-on': 'does not come on',
  'is-fine': 'is fine',
  'only-with-another': 'only works while another is on',
  'goes-off-when-another-is-done': 'goes off when another is done',
  'never-goes-off': 'never goes off',
  'comes-on-by-itself': 'comes on by itself',
  'warms-with-another': 'warms while another is on',
  'gets-too-hot': 'gets too hot',
  'comes-on-at-wrong-times': 'comes on at the wrong times',
  'makes-a-noise': 'makes a noise',
  'blows-the-fuse': 'blows the fuse',
}

/** The service a complaint is of, or the whole. */
export const serviceText = ({ installation }: Circuit, demand: string | undefined): string =>
  installation.intent.demands.find(({ id }) => id === demand)?.name ?? 'the system'

/** A line of a hunt's log. `before`: the lines above it. `labelOf`: what a suspect is called. */
export function huntEntryText(
  circuit: Circuit,
  entry: HuntEntry,
  before: readonly HuntEntry[],
  labelOf: (suspect: string) => string,
): string {
  if ('do' in entry) return actText(circuit, entry.do, before)
  if ('see' in entry) {
    const notDone = (entry.after ?? [])
      .filter((act) => !passes(act))
      .map((act) => inSentence(actText(circuit, act, before)))
    const found = `${lookText(circuit, entry.see)}: ${answerText(circuit, entry.see, entry.found)}`
    return notDone.length > 0 ? `${found}; not done: ${notDone.join(', ')}` : found
  }
  if ('says' in entry)
    return `Customer on ${serviceText(circuit, entry.says.demand)}: ${complaintWords[entry.says.what]}`
  if ('mended' in entry)
    return `Put right: ${inSentence(suspectText({ id: entry.mended, label: labelOf(entry.mended) }))}`
  if ('blamed' in entry) return `Somebody before held it to be the ${inSentence(deviceName(circuit, entry.blamed))}`
  return entry.part === undefined
    ? `New: ${inSentence(deviceName(circuit, entry.renew))}`
    : `New: ${inSentence(partName(circuit, entry.renew, entry.part))}`
}

/** What is needed in the hand for a look. */
export function toolText(look: WrittenLook): string {
  switch (look.at) {
    case 'points':
      return look.with === 'tester'
        ? 'Low-impedance tester'
        : look.with === 'power'
          ? 'Clamp or plug meter'
          : look.with === 'insulation'
            ? 'Insulation tester'
            : 'Meter'
    case 'motor':
    case 'clicks':
      return 'Ear'
    case 'display':
    case 'boiler':
    case 'lamps':
    case 'clock':
    case 'flow-temperature':
    case 'trip':
    case 'fuse':
    case 'eyes':
    case 'wiring':
      return 'Eye'
    default:
      return 'Hand'
  }
}

/** How a look stands to the supply: on live parts, isolated, or with nothing opened. */
export const hazardOf = (look: WrittenLook, live: boolean): 'live' | 'dead' | 'covers-on' =>
  live ? 'live' : needsIsolation(look) ? 'dead' : 'covers-on'
