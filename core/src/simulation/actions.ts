/** Something a person does, or lets pass. Times in milliseconds. */
export type Action =
  | { do: 'set'; device: string; control: string; value: string }
  | { do: 'wait'; ms: number }
  | { do: 'fault'; fault: string }
  | { do: 'mend'; fault: string }

/** An action that cannot be read or does not fit the installation; the message is one line for the user. */
export class ActionError extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'ActionError'
  }
}

const unitMs = { ms: 1, s: 1000, min: 60_000, h: 3_600_000 } as const
const longestWaitMs = 7 * 24 * unitMs.h

/**
 * Reads one action as written on a command line or in an address:
 * `DEVICE.CONTROL=VALUE`, `wait=20s` (ms, s, min, h), `fault=NAME`, `mend=NAME`.
 * Throws {@link ActionError}. Whether device, control and fault exist is the simulation's to say.
 */
export function parseAction(text: string): Action {
  const eq = text.indexOf('=')
  const left = text.slice(0, eq).trim()
  const right = text.slice(eq + 1).trim()
  if (eq < 1 || right === '')
    throw new ActionError(`"${text}" is not an action: write DEVICE.CONTROL=VALUE or wait=20s`)
  if (left === 'wait') {
    const match = /^(\d+(?:\.\d+)?)(ms|s|min|h)$/.exec(right)
    if (!match) throw new ActionError(`"${right}" is not a time: write a number and ms, s, min or h, for example 20s`)
    const ms = Math.round(Number(match[1]) * unitMs[match[2] as keyof typeof unitMs])
    if (ms > longestWaitMs) throw new ActionError(`"${right}" is too long: a wait is at most 168h`)
    return { do: 'wait', ms }
  }
  if (left === 'fault' || left === 'mend') return { do: left, fault: right }
  const dot = left.indexOf('.')
  if (dot < 1 || dot === left.length - 1)
    throw new ActionError(`"${left}" names no control: write DEVICE.CONTROL, for example programmer.heating`)
  return { do: 'set', device: left.slice(0, dot), control: left.slice(dot + 1), value: right }
}

/** Writes an action so that {@link parseAction} reads the same back. */
export function formatAction(action: Action): string {
  switch (action.do) {
    case 'set':
      return `${action.device}.${action.control}=${action.value}`
    case 'wait':
      return action.ms % 1000 === 0 ? `wait=${action.ms / 1000}s` : `wait=${action.ms}ms`
    default:
      return `${action.do}=${action.fault}`
  }
}
