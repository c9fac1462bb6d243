import type { Circuit } from '../circuit'
import type { RowKind, RowLook, RunRow } from '../commission'
import type { LookResult } from '../looks'
import { lookText, shownText } from './looks'
import { settingText, waitText } from './acts'

const kindWords: Record<RowKind, string> = {
  earths: 'Isolated: earth at each earthed part',
  polarity: 'Power on, everything off: polarity',
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
}

/** A row of the run in words: what it is, what to do, what to expect where. */
export function runRowText(circuit: Circuit, row: RunRow): { title: string; acts: string[]; expects: string[] } {
  const name = circuit.installation.intent.demands.find(({ id }) => id === row.demand)?.name
  const acts = row.acts.flatMap((act) =>
    act.do === 'set' ? settingText(circuit, act) : act.do === 'wait' ? `Wait ${waitText(act.ms)}` : [],
  )
  return {
    title: name === undefined ? kindWords[row.kind] : `${name} ${kindWords[row.kind]}`,
    acts: [...acts, ...(row.waitMs >= 5000 ? [`Wait ${waitText(row.waitMs)}`] : [])],
    expects: row.looks.map((look) => expectText(circuit, look)),
  }
}

/** "House valve: open or shut: open". */
const expectText = (circuit: Circuit, { see, expect }: RowLook): string =>
  `${lookText(circuit, see)}: ${wordsOf(expect)}`

/** What was found otherwise than expected: "House valve: open or shut: shut, expected open". */
export const otherwiseText = (circuit: Circuit, { see, expect, found }: RowLook & { found: LookResult }): string =>
  `${lookText(circuit, see)}: ${wordsOf(found)}, expected ${wordsOf(expect)}`

/** Volts of a two-pole tester are told as what they mean. */
const wordsOf = (shown: LookResult): string =>
  'full' in shown ? (shown.value < shown.full / 2 ? 'dead' : 'live') : shownText(shown)
