const moment = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

export const momentText = (iso: string): string => moment.format(new Date(iso))

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

/** Hours and minutes. */
export const clockText = (iso: string): string => clock.format(new Date(iso))

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })

/** A day with its year: papers are read years later. */
export const dayText = (at: Date): string => day.format(at)
