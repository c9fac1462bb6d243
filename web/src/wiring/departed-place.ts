import type { Departed } from '@nobbet/core'

/** Where on the Bench something that departs is looked at and put right; undefined of a setting, and of a conductor that is not there. */
export function departedPlace(what: Departed): string | undefined {
  const core = what.kind === 'core' ? what.core : what.kind === 'exchanged' ? what.cores[0] : undefined
  if (core) return `${core.cable}.${core.core}`
  return 'between' in what ? what.between[0] : undefined
}
