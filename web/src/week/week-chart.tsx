import { dayNames, timeText, weekTimeText, type Installation, type Span, type WeekResult } from '@nobbet/core'
import { useMemo, useState } from 'react'
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { useNarrow } from '../shell/use-narrow'

interface WeekChartProps {
  installation: Installation
  result: WeekResult
  /** One day of it; left out, all seven. */
  day?: number
}

/** A line: its name, how it is drawn so that it is told without colour, and where it is. */
interface Drawn {
  key: string
  name: string
  stroke: string
  dash?: string
  width: number
  celsius: number[]
}

const roomDashes = [undefined, '9 4', '3 3', '14 4 3 4', '6 2 2 2']
/** Room for the figures of temperature, px. */
const figures = 52
/** Names before and totals behind the strips, px: the picture above keeps the same, so that times stand over each other. */
const besides = { wide: { names: 128, totals: 70 }, narrow: { names: 84, totals: 54 } } as const

/** Temperatures over the week, and beneath them, on the same line of time, who wanted heat and when the boiler fired. */
export function WeekChart({ installation, result, day }: WeekChartProps) {
  const [withWater, setWithWater] = useState(false)
  const { names, totals } = besides[useNarrow(500) ? 'narrow' : 'wide']
  const [from, to] = day === undefined ? [0, 7 * 1440] : [day * 1440, (day + 1) * 1440]
  const lines = useMemo(() => linesOf(installation, result, withWater), [installation, result, withWater])
  const data = useMemo(
    () =>
      result.minutes.flatMap((minute, i) => {
        // Over a week every third sample is as fine as the picture.
        if (minute < from || minute > to || (day === undefined && i % 3 !== 0)) return []
        return [{ minute, ...Object.fromEntries(lines.map((l) => [l.key, l.celsius[i]])) }]
      }),
    [result, lines, from, to, day],
  )
  const ticks =
    day === undefined
      ? Array.from({ length: 8 }, (_, d) => d * 1440)
      : Array.from({ length: 9 }, (_, n) => from + n * 180)
  const tick = (minute: number) =>
    day === undefined ? (dayNames[Math.floor(minute / 1440)] ?? '').slice(0, 3) : timeText(minute - from || 0)
  return (
    <div className="week-chart">
      <ul className="week-legend">
        {lines.map((l) => (
          <li key={l.key}>
            <svg width="34" height="10" aria-hidden>
              <line x1="0" x2="34" y1="5" y2="5" stroke={l.stroke} strokeWidth={l.width} strokeDasharray={l.dash} />
            </svg>
            {l.name}
          </li>
        ))}
        <li>
          <label>
            <input type="checkbox" checked={withWater} onChange={(e) => setWithWater(e.target.checked)} /> Boiler water
          </label>
        </li>
      </ul>
      <div role="img" aria-label={summary(lines)}>
        <ResponsiveContainer width="100%" height={280}>
          <LineChart data={data} margin={{ top: 6, right: totals, bottom: 0, left: names - figures }}>
            <CartesianGrid stroke="var(--hair)" />
            <XAxis
              dataKey="minute"
              type="number"
              domain={[from, to]}
              ticks={ticks}
              tickFormatter={tick}
              tick={{ fill: 'var(--ink)', fontSize: 14 }}
            />
            <YAxis width={figures} unit=" °C" tick={{ fill: 'var(--ink)', fontSize: 14 }} domain={['auto', 'auto']} />
            {day === undefined && ticks.map((t) => <ReferenceLine key={t} x={t} stroke="var(--dash)" />)}
            <Tooltip
              labelFormatter={(minute) => weekTimeText(Number(minute))}
              formatter={(value, key) => [`${Number(value).toFixed(1)} °C`, lines.find((l) => l.key === key)?.name]}
              isAnimationActive={false}
            />
            {lines.map((l) => (
              <Line
                key={l.key}
                dataKey={l.key}
                stroke={l.stroke}
                strokeWidth={l.width}
                strokeDasharray={l.dash}
                dot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <Strips installation={installation} result={result} from={from} to={to} />
    </div>
  )
}

function linesOf({ places, devices }: Installation, result: WeekResult, withWater: boolean): Drawn[] {
  const place = (id: string) => places.find((p) => p.id === id)?.name ?? id
  const device = (id: string) => devices.find((d) => d.id === id)?.name
  return [
    ...result.rooms.map((r, i): Drawn => ({
      key: `room-${i}`,
      name: place(r.of),
      stroke: 'var(--ink)',
      dash: roomDashes[i % roomDashes.length],
      width: 2.5,
      celsius: r.celsius,
    })),
    ...result.cylinders.map((c, i): Drawn => ({
      key: `cylinder-${i}`,
      name: device(c.of) ?? 'Cylinder',
      stroke: 'var(--pine)',
      width: 4,
      celsius: c.celsius,
    })),
    ...(withWater
      ? result.water.map((w, i): Drawn => ({
          key: `water-${i}`,
          name: `${device(w.of) ?? 'Boiler'} water`,
          stroke: 'var(--live)',
          width: 1,
          celsius: w.celsius,
        }))
      : []),
    { key: 'outdoors', name: 'Outdoors', stroke: 'var(--calm)', dash: '1 4', width: 3, celsius: result.outdoors },
  ]
}

const summary = (lines: Drawn[]) =>
  `Temperatures over the week. ${lines
    .map((l) => `${l.name} ${Math.min(...l.celsius).toFixed(0)} to ${Math.max(...l.celsius).toFixed(0)} °C`)
    .join('; ')}`

/** Bars of time: a demand wanted is a thin line, its circuit warm a thick one; the boiler firing is solid. */
function Strips({ installation, result, from, to }: Omit<WeekChartProps, 'day'> & { from: number; to: number }) {
  const width = 1000
  const x = (minute: number) => ((Math.min(to, Math.max(from, minute)) - from) / (to - from)) * width
  const bars = (spans: Span[], height: number, className: string) =>
    spans.flatMap((s) =>
      s.to <= from || s.from >= to
        ? []
        : [
            <rect
              key={`${className} ${s.from}`}
              className={className}
              x={x(s.from)}
              width={Math.max(1, x(s.to) - x(s.from))}
              y={10 - height / 2}
              height={height}
            />,
          ],
    )
  const hours = (spans: Span[]) => {
    const inside = spans.map((s) => Math.max(0, Math.min(to, s.to) - Math.max(from, s.from)))
    return `${(inside.reduce((sum, m) => sum + m, 0) / 60).toFixed(1)} h`
  }
  const name = (id: string) => installation.devices.find((d) => d.id === id)?.name ?? 'Boiler'
  const rows = [
    ...result.demands.map((d) => ({
      key: d.demand,
      name: installation.intent.demands.find((x) => x.id === d.demand)?.name ?? d.demand,
      total: hours(d.warm),
      bars: [...bars(d.warm, 14, 'warm'), ...bars(d.wanted, 4, 'wanted')],
    })),
    ...result.fires.map((f) => ({
      key: `fires ${f.device}`,
      name: `${name(f.device)} fires`,
      total: hours(f.spans),
      bars: bars(f.spans, 14, 'fires'),
    })),
  ]
  return (
    <table className="strips">
      <caption>
        <svg width="26" height="14" aria-hidden>
          <rect className="warm" y="0" width="26" height="14" />
          <rect className="wanted" y="5" width="26" height="4" />
        </svg>{' '}
        wide: its circuit is warm · narrow line: it is wanted
      </caption>
      <tbody>
        {rows.map((row) => (
          <tr key={row.key} data-strip={row.key}>
            <th scope="row">{row.name}</th>
            <td className="bar">
              <svg viewBox={`0 0 ${width} 20`} preserveAspectRatio="none" aria-hidden>
                {row.bars}
              </svg>
            </td>
            <td className="total">{row.total}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
