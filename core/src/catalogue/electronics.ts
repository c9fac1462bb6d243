import { feedLost, madeThrowOpen, neverOperates, openCircuit, restThrowOpen, stuckOperated } from './failures'
import type { Changeover, Condition, Load, Setting, TerminalType } from './primitives'

/** What controls with electronics under mains have in common: their supply, their own draw, a changeover that is volt-free. */

export const mainsSupply: TerminalType[] = [
  { id: 'L', legend: 'Permanent live', role: 'permanent-live' },
  { id: 'N', legend: 'Neutral', role: 'neutral' },
]

export const ownDraw = (watts: number): Setting => ({
  id: 'watts',
  label: 'Own draw',
  unit: 'W',
  min: 0.5,
  max: 10,
  default: watts,
  origin: 'usual value',
})

/** The electronics, and what goes dark with them. */
export const electronics = (lights: 'display' | 'lamps', remedy: string): Load => ({
  kind: 'load',
  id: 'electronics',
  label: 'electronics',
  from: 'L',
  to: 'N',
  watts: { setting: 'watts' },
  lights: true,
  failures: [openCircuit(`electronics dead, ${lights} dark`, 1, remedy)],
})

export const changeoverTerminals = (prefix = '', of = ''): TerminalType[] => {
  const legend = (text: string) => (of ? `${of} ${text.toLowerCase()}` : text)
  return [
    { id: `${prefix}COM`, legend: legend('Common'), role: 'contact-feed' },
    { id: `${prefix}NO`, legend: legend('Normally open'), role: 'output' },
    { id: `${prefix}NC`, legend: legend('Normally closed'), role: 'output' },
  ]
}

interface Relay {
  id?: string
  label?: string
  prefix?: string
  remedy: string
  operatedWhen: Condition
}

/** The changeover on those terminals. */
export const changeover = ({
  id = 'contact',
  label = 'contact',
  prefix = '',
  remedy,
  operatedWhen,
}: Relay): Changeover => ({
  kind: 'changeover',
  id,
  label,
  common: `${prefix}COM`,
  no: `${prefix}NO`,
  nc: `${prefix}NC`,
  operatedWhen,
  failures: [
    neverOperates(`${label} does not pull in`, 2.5, remedy),
    stuckOperated(`${label} welded`, 1.5, remedy),
    madeThrowOpen(`${label}: made contact burnt`, 1, remedy),
    restThrowOpen(`${label}: rest contact burnt`, 0.5, remedy),
    feedLost(`${label}: common contact open`, 0.3, remedy),
  ],
})
