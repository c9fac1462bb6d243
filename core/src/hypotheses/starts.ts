import { hasClock } from '../catalogue'
import { nth } from '../lists'
import type { Circuit } from '../circuit'
import { demandActions } from '../inputs'
import type { Command } from '../installation'
import type { Action } from '../simulation'

/** What went before the moment at which somebody looks, and may still be seen then; or how a device may be from its maker. */
export interface Start {
  name: string
  /** In the trade's words. */
  label: string
  /** What puts it right; empty where it passes by itself. */
  remedy: string
  actions: Action[]
  change?: Command
}

/**
 * Starts other than rest: each demand that was served and ended before; each control that is no demand's stood otherwise: a lever
 * latched, a switch off; each clock wrong.
 */
export function startsOf(circuit: Circuit): Start[] {
  const { demands } = circuit.installation.intent
  const ended = demands.map(({ id, name }): Start => ({
    name: `after ${id}`,
    label: `${name} was on before`,
    remedy: '',
    actions: [...demandActions(circuit, [id]), ...demandActions(circuit, [])],
  }))
  const asked = new Set(
    demandActions(
      circuit,
      demands.map((d) => d.id),
    ).flatMap((a) => (a.do === 'set' ? [`${a.device}.${a.control}`] : [])),
  )
  const stood = circuit.devices.flatMap(({ device, type, controlIndex }) =>
    type.controls.flatMap((control): Start[] => {
      if (control.kind !== 'choice' || asked.has(`${device.id}.${control.id}`)) return []
      const { initial } = nth(circuit.controls, controlIndex.get(control.id)!)
      return control.values
        .filter((value) => value.id !== initial)
        .map((value) => ({
          name: `start ${device.id}.${control.id} ${value.id}`,
          label: `${device.name}: ${control.label.toLowerCase()} at "${value.label}"`,
          remedy: 'Set it as it should stand, test every demand.',
          actions: [{ do: 'set', device: device.id, control: control.id, value: value.id }],
        }))
    }),
  )
  const clocks = circuit.devices.flatMap(({ device, type }): Start[] =>
    hasClock(type)
      ? [
          {
            name: `start ${device.id} clock`,
            label: `${device.name}: its clock shows the wrong time`,
            remedy: 'Set the clock, and see that it keeps it.',
            actions: [{ do: 'lost-time', device: device.id, minutes: lostMinutes }],
          },
        ]
      : [],
  )
  return [...ended, ...stood, ...clocks, ...fromMakers(circuit)]
}

/** Settings that nobody makes, each as it may as well be. */
const fromMakers = ({ devices }: Circuit): Start[] =>
  devices.flatMap(({ device, type }) =>
    type.settings.flatMap(({ id, default: usual, mayBe }): Start[] => {
      if (!mayBe || device.settings[id] !== undefined || mayBe.value === usual) return []
      const label = `${device.name}: ${mayBe.label}`
      const value = { ...device, settings: { ...device.settings, [id]: mayBe.value } }
      const change: Command = { label, changes: [{ do: 'put', in: 'devices', value }] }
      return [{ name: `made ${device.id}.${id} ${mayBe.value}`, label, remedy: '', actions: [], change }]
    }),
  )

/** A clock that is wrong is taken to be wrong by this, minutes: morning for evening. */
const lostMinutes = 12 * 60
