import { weekTimeText, type Installation, type Span, type WeekResult } from '@nobbet/core'

const hours = (spans: readonly Span[]) => `${(spans.reduce((sum, s) => sum + s.to - s.from, 0) / 60).toFixed(1)} h`
const range = (celsius: readonly number[]) =>
  `${Math.min(...celsius).toFixed(1)} to ${Math.max(...celsius).toFixed(1)} °C`

/** A week as lines of text: temperatures, who was served for how long, where the heat went, what went wrong. */
export function weekText({ places, devices, intent }: Installation, week: WeekResult): string[] {
  const device = (id: string) => devices.find((d) => d.id === id)?.name ?? id
  const place = (id: string) => places.find((p) => p.id === id)?.name ?? id
  const { energy } = week
  return [
    `outdoors: ${range(week.outdoors)}`,
    ...week.rooms.map((r) => `${place(r.of)}: ${range(r.celsius)}`),
    ...week.cylinders.map((c) => `${device(c.of)}: ${range(c.celsius)}`),
    ...week.demands.map(
      (d) =>
        `${intent.demands.find((x) => x.id === d.demand)?.name ?? d.demand}: wanted ${hours(d.wanted)}, warm ${hours(d.warm)}`,
    ),
    ...week.fires.map((f) => `${device(f.device)} fires ${hours(f.spans)}`),
    ...energy.brought.map((b) => `${device(b.device)} brings ${b.kWh.toFixed(1)} kWh`),
    `lost to outdoors ${energy.lost.reduce((sum, l) => sum + l.kWh, 0).toFixed(1)} kWh, drawn ${energy.drawn.toFixed(1)} kWh`,
    ...(week.leftAt === undefined
      ? []
      : [`left at ${weekTimeText(week.leftAt)}: it hunts, and would do so without end`]),
    ...(week.notes.length === 0 ? ['nothing out of the ordinary'] : []),
    ...week.notes.map((n) => {
      const { note, minute, ...rest } = n
      const what = Object.values(rest)
        .map((v) => (typeof v === 'number' ? `${v} min` : v))
        .join(' ')
      return `${weekTimeText(minute)} ${note} ${what}`.trimEnd()
    }),
  ]
}
