const moment = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

export const momentText = (iso: string): string => moment.format(new Date(iso))
