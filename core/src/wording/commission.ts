import type { Circuit } from '../circuit'
import { standsAfter, type HandCheck, type LookFound, type RowKind, type RowLook, type RunRow } from '../commission'
import type { Found, LookResult } from '../looks'
import { settingText, waitText } from './acts'
import { answerText, lookText } from './looks'
import { deviceName } from './names'

const kindWords: Record<RowKind, string> = {
  'as-it-stood': 'How the controls stand',
  box: 'Isolated: the open box',
  earths: 'Isolated: earth at each earthed part',
  polarity: 'Isolated: polarity',
  insulation: 'Isolated: insulation to earth',
  covers: 'Covers on',
  rest: 'Everything off',
  'before-travel-ends': 'its valve is on its way',
  alone: 'alone',
  'thermostat-down': 'dropped by its thermostat',
  'thermostat-up': 'raised again',
  'channel-off': 'dropped by its channel',
  together: 'All together',
  'dropped-from-together': 'dropped from together',
  'all-off': 'All off',
  'overrun-over': 'After the overrun',
  isolated: 'Isolated',
  'put-back': 'Everything put back',
  told: 'Who lives here is told',
}

/** A row of the run in words: what it is, what to do, what to expect where. */
export interface RowText {
  title: string
  acts: string[]
  /** Of each look and each check by hand, in the row's order. */
  expects: { at: string; is: string }[]
  byHand: string[]
  /** What is not right by the installation as it is drawn. */
  amiss?: string
}

/** Rows of a run in words: whether a dial goes up or down depends on where they, and what was done `before` them, left it. */
export function runRowTexts(
  circuit: Circuit,
  rows: readonly RunRow[],
  before: readonly Pick<RunRow, 'acts'>[] = [],
): RowText[] {
  const stands = standsAfter(before.flatMap(({ acts }) => acts))
  return rows.map((row) => {
    const name = circuit.installation.intent.demands.find(({ id }) => id === row.demand)?.name
    const acts = row.acts.flatMap((act) => {
      if (act.do === 'wait') return `Wait ${waitText(act.ms)}`
      if (act.do !== 'set') return []
      const control = `${act.device}.${act.control}`
      const text = settingText(circuit, act, stands.get(control))
      stands.set(control, act.value)
      return text
    })
    return {
      title: name === undefined ? kindWords[row.kind] : `${name}: ${kindWords[row.kind]}`,
      acts: [...acts, ...(row.waitMs >= 5000 ? [`Wait ${waitText(row.waitMs)}`] : [])],
      expects: row.looks.map((look) => ({ at: lookText(circuit, look.see), is: rowExpectText(circuit, look) })),
      byHand: row.byHand.map((check) => handCheckText(circuit, check)),
      ...(row.amiss && {
        amiss:
          'As the wiring is drawn this will not be as it should: a check says why. Only the call is expected here.',
      }),
    }
  })
}

/** What is expected at a look of a run. */
export const rowExpectText = (circuit: Circuit | undefined, { see, expect }: RowLook): string => {
  if (see.at === 'points' && see.with === 'insulation') return 'at least 1 MΩ'
  const text = answerText(circuit, see, expect)
  return 'value' in expect && expect.value !== null ? `about ${text}` : text
}

export function handCheckText(circuit: Circuit, check: HandCheck): string {
  const { wiringCentres, connectors } = circuit.installation
  const owner = (id: string) =>
    [...wiringCentres, ...connectors].find((one) => one.id === id)?.name ??
    (circuit.deviceIndex.has(id) ? deviceName(circuit, id) : id)
  const control = (device: string, id: string) => {
    const at = circuit.deviceIndex.get(device)
    const found = at === undefined ? undefined : circuit.devices[at].type.controls.find((one) => one.id === id)
    return `${owner(device)}: ${found?.label.toLowerCase() ?? id}`
  }
  switch (check.check) {
    case 'stands':
      return control(check.device, check.control)
    case 'as-wanted':
      return `${control(check.device, check.control)} as it was, or as its user wants it`
    case 'links': {
      const { centre, links } = check
      const count = links.length === 1 ? '1 link' : `${links.length} links`
      return links.length === 0
        ? `${owner(centre)}: no link`
        : `${owner(centre)}: ${count}, no other: ${links.map((pair) => pair.join('–')).join(', ')}`
    }
    case 'clamped':
      return `${owner(check.centre)}: ${check.cables.length === 1 ? '1 cable' : `each of ${check.cables.length} cables`} held on its sheath`
    case 'cover':
      return `${owner(check.owner)}: cover on, nothing trapped under its edge`
    case 'lit':
      return `${owner(check.device)} shows that it has power`
    case 'told':
      return 'What is otherwise than it was, and where to switch off'
  }
}

/** What was found otherwise than expected: "House valve: open or shut: shut, expected open". */
export const otherwiseText = (circuit: Circuit, look: LookFound): string =>
  `${lookText(circuit, look.see)}: ${rowFoundText(circuit, look, look.found)}, expected ${rowExpectText(circuit, look)}`

/** What was found at a look of a run. */
export function rowFoundText(circuit: Circuit, { see, full = 0 }: RowLook, found: LookResult | Found): string {
  if ('unknown' in found || 'chances' in found) return 'cannot be known'
  // Volts of a two-pole tester are told as what they mean.
  if ('full' in found && full > 0) return answerText(circuit, see, { word: found.value < full / 2 ? 'dead' : 'live' })
  return answerText(circuit, see, found)
}
