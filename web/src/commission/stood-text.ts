import type { Control, HandCheck } from '@nobbet/core'
import type { RunInHand } from './use-run'

type Stands = Extract<HandCheck, { check: 'stands' }>

/** The control whose stand is to be written down. */
export function controlOf({ circuit }: Pick<RunInHand, 'circuit'>, { device, control }: Stands): Control | undefined {
  const at = circuit.deviceIndex.get(device)
  return at === undefined ? undefined : circuit.devices[at].type.controls.find(({ id }) => id === control)
}

/** How a control stood before the run, behind its name; undefined where nobody wrote it down. */
export function stoodText(hand: Pick<RunInHand, 'circuit' | 'options'>, check: Stands, name = ''): string | undefined {
  const control = controlOf(hand, check)
  const stood = hand.options.stood[`${check.device}.${check.control}`]
  if (!control || stood === undefined) return undefined
  const text =
    control.kind === 'number'
      ? `${stood} ${control.unit}`
      : (control.values.find(({ id }) => id === stood)?.label ?? stood)
  return name === '' ? text : `${name} ${text}`
}
