import {
  recordingText,
  signalText,
  signalValueText,
  type Circuit,
  type Recording,
  type Signal,
  weekTimeText,
} from '@nobbet/core'
import { useMemo, useState } from 'react'
import { Button } from 'react-bootstrap'
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { useNarrow } from '../shell/use-narrow'

interface SignalsProps {
  circuit: Circuit
  recording: Recording
  /** Signals that are shown though nothing happened on them. */
  also?: readonly string[]
  /** Minute of the week at its start, where a clock is set. */
  fromMinute?: number
  /** The moment that is looked at, ms. */
  cursor?: number
  /** Where a moment can be looked at. */
  onMoment?: (ms: number) => void
}

/** Height of a row, of the line of time below, and room for the names, px: on a phone these take up to three lines. */
const sizes = {
  wide: { rowHeight: 23, axisHeight: 28, namesWidth: 210, nameSize: 13 },
  narrow: { rowHeight: 36, axisHeight: 28, namesWidth: 124, nameSize: 11 },
} as const
/** How far above its row's foot a signal goes. */
const reach = 0.72
/** A boiler's phases by how much it does. */
const heights: Readonly<Record<string, number>> = {
  firing: 1,
  circulating: 1,
  'self-check': 0.6,
  'no-flow': 0.6,
  'waits-off': 0.6,
  overrun: 0.35,
}

/** What every part did, one row each on one line of time; pressed, all the screen shows that moment. */
export function Signals({ circuit, recording, also, fromMinute, cursor, onMoment }: SignalsProps) {
  const [zoom, setZoom] = useState<[number, number]>()
  const { rowHeight, axisHeight, namesWidth, nameSize } = sizes[useNarrow(700) ? 'narrow' : 'wide']
  const { signals, to } = recording
  const [from, until] = zoom ?? [0, Math.max(to, 1)]
  const shown = useMemo(
    () => signals.filter((s) => s.steps.length > 1 || isSwitched(s) || also?.includes(s.id)),
    [signals, also],
  )
  const data = useMemo(() => pointsOf(shown, to), [shown, to])
  const middle = cursor ?? (from + until) / 2
  const closer = () => {
    const half = (until - from) / 8
    const left = Math.min(Math.max(0, middle - half), Math.max(0, to - 2 * half))
    setZoom([left, Math.min(to, left + 2 * half)])
  }
  const when = (ms: number) =>
    fromMinute === undefined ? sinceText(ms) : weekTimeText((fromMinute + ms / 60_000) % 10_080)
  return (
    <div className="signals">
      <div className="signals-tools">
        <Button size="sm" variant="outline-dark" onClick={closer} disabled={until - from < 200}>
          Closer
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => setZoom(undefined)} disabled={!zoom}>
          All of it
        </Button>
        {onMoment && <span className="quiet">{recordingText(circuit, recording).join(' · ')}</span>}
      </div>
      <div role="img" aria-label={`What ${shown.length} parts did over ${when(to)}`} className="signals-chart">
        <ResponsiveContainer width="100%" height={shown.length * rowHeight + axisHeight}>
          <LineChart
            data={data}
            margin={{ top: 2, right: 12, bottom: 0, left: 0 }}
            onClick={(event) => {
              if (event.activeLabel !== undefined) onMoment?.(Number(event.activeLabel))
            }}
          >
            <CartesianGrid stroke="var(--hair)" horizontal={false} />
            <XAxis
              dataKey="at"
              type="number"
              domain={[from, until]}
              allowDataOverflow
              tickFormatter={when}
              tick={{ fill: 'var(--ink)', fontSize: 13 }}
              height={axisHeight}
            />
            <YAxis
              type="number"
              domain={[0, shown.length]}
              ticks={shown.map((_, i) => shown.length - 1 - i + reach / 2)}
              interval={0}
              width={namesWidth}
              tickLine={false}
              tickFormatter={(y: number) => signalText(circuit, shown[Math.round(shown.length - 1 - (y - reach / 2))])}
              tick={{ fill: 'var(--ink)', fontSize: nameSize }}
            />
            <Tooltip
              labelFormatter={(ms) => when(Number(ms))}
              content={({ label }) => (
                <Moment circuit={circuit} signals={shown} ms={Number(label)} when={when(Number(label))} />
              )}
              isAnimationActive={false}
            />
            {cursor !== undefined && <ReferenceLine x={cursor} stroke="var(--pine)" strokeWidth={3} />}
            {shown.map((signal, i) => (
              <Line
                key={signal.id}
                dataKey={(point: Point) => point.values[i]}
                type={isStraight(signal) ? 'linear' : 'stepAfter'}
                connectNulls
                stroke={signal.of.kind === 'phase' || signal.of.kind === 'load' ? 'var(--live)' : 'var(--ink)'}
                strokeWidth={2}
                dot={false}
                activeDot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
    </div>
  )
}

/** What is of interest though it never changed: a demand's own contacts, the boiler. */
const isSwitched = ({ of, steps }: Signal) => of.kind !== 'travel' && steps.some(({ value }) => value !== 0)

const isStraight = ({ of }: Signal) =>
  of.kind === 'travel' || of.kind === 'room' || of.kind === 'cylinder' || of.kind === 'water'

interface Point {
  at: number
  values: (number | null)[]
}

/** Rows from the top down; each moment at which anything changed, with the height of what changed then. */
function pointsOf(signals: readonly Signal[], to: number): Point[] {
  const times = [...new Set([0, to, ...signals.flatMap(({ steps }) => steps.map(({ at }) => at))])].sort(
    (x, y) => x - y,
  )
  const rows = signals.map((signal, i) => {
    const height = heightOf(signal)
    const foot = signals.length - 1 - i
    const at = new Map(signal.steps.map((step) => [step.at, foot + reach * height(step.value)]))
    const last = signal.steps.at(-1)
    if (last && !at.has(to)) at.set(to, foot + reach * height(last.value))
    return at
  })
  return times.map((at) => ({ at, values: rows.map((row) => row.get(at) ?? null) }))
}

function heightOf({ of, steps }: Signal): (value: number | string) => number {
  if (of.kind === 'phase') return (value) => heights[String(value)] ?? 0
  if (of.kind === 'room' || of.kind === 'cylinder' || of.kind === 'water') {
    const values = steps.map(({ value }) => Number(value))
    const [least, most] = [Math.min(...values), Math.max(...values)]
    return (value) => (most - least < 0.5 ? 0.5 : (Number(value) - least) / (most - least))
  }
  return Number
}

/** One moment in words: what is on, open, travelling, and how warm it is. */
function Moment({
  circuit,
  signals,
  ms,
  when,
}: {
  circuit: Circuit
  signals: readonly Signal[]
  ms: number
  when: string
}) {
  return (
    <div className="signals-moment">
      <strong>{when}</strong>
      <ul>
        {signals.map((signal) => {
          const value = signal.steps.findLast(({ at }) => at <= ms)?.value
          return value === undefined || value === 0 ? null : (
            <li key={signal.id}>
              {signalText(circuit, signal)} {signalValueText(circuit, signal, value)}
            </li>
          )
        })}
      </ul>
    </div>
  )
}

/** Time since the start: in seconds, minutes or hours by how long it is. */
export const sinceText = (ms: number) =>
  ms < 120_000
    ? `${(ms / 1000).toFixed(1)} s`
    : ms < 7_200_000
      ? `${(ms / 60_000).toFixed(1)} min`
      : `${(ms / 3_600_000).toFixed(1)} h`
