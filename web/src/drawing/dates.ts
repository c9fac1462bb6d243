const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
const moment = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

export const dayText = (iso: string): string => day.format(new Date(iso))
export const momentText = (iso: string): string => moment.format(new Date(iso))
