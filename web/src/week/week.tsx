import { errorText } from '../api/client'
import {
  dayNames,
  houseIds,
  houses,
  livedIn,
  weatherIds,
  weathers,
  type HouseId,
  type Installation,
  type WeatherId,
} from '@nobbet/core'
import { useMemo, type ReactNode } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useSearchValue } from '../shell/use-search-value'
import { Energy } from './energy'
import { Progress } from '../shell/progress'
import { useWeek } from './use-week'
import { WeekChart } from './week-chart'
import { WeekEditor } from './week-editor'
import { WeekNotes } from './week-notes'

interface WeekProps {
  installation: Installation
  onChange: (installation: Installation) => void
  /** Undo, redo, and what becomes of changes. */
  tools: ReactNode
}

/** The clocks of an installation on one side, and on the other how a week goes by them. */
export function Week({ installation, onChange, tools }: WeekProps) {
  const [house, setHouse] = useSearchValue('house')
  const [weather, setWeather] = useSearchValue('weather')
  const [day, setDay] = useSearchValue('day')
  const scenario = {
    house: (houseIds as string[]).includes(house ?? '') ? (house as HouseId) : 'semi',
    weather: (weatherIds as string[]).includes(weather ?? '') ? (weather as WeatherId) : 'winter',
  } as const
  const actions = useMemo(() => livedIn(installation), [installation])
  const run = useWeek(installation, { scenario, actions, days: 7 })
  const shownDay = day === undefined ? undefined : Number(day)

  return (
    <main className="week">
      <h1 className="visually-hidden">Week</h1>
      <section className="sheet week-result" aria-label="How the week goes">
        <div className="week-head">
          <Form.Select
            aria-label="House"
            value={scenario.house}
            onChange={(e) => setHouse(e.target.value === 'semi' ? undefined : e.target.value)}
          >
            {houseIds.map((id) => (
              <option key={id} value={id}>
                {houses[id].name}
              </option>
            ))}
          </Form.Select>
          <Form.Select
            aria-label="Outdoors"
            value={scenario.weather}
            onChange={(e) => setWeather(e.target.value === 'winter' ? undefined : e.target.value)}
          >
            {weatherIds.map((id) => (
              <option key={id} value={id}>
                {weathers[id].name}, {weathers[id].mean - weathers[id].swing} to{' '}
                {weathers[id].mean + weathers[id].swing} °C
              </option>
            ))}
          </Form.Select>
          <div className="knob" role="group" aria-label="Days shown">
            <button
              className={shownDay === undefined ? 'on' : ''}
              aria-pressed={shownDay === undefined}
              onClick={() => setDay(undefined)}
            >
              Week
            </button>
            {dayNames.map((name, i) => (
              <button
                key={name}
                className={shownDay === i ? 'on' : ''}
                aria-pressed={shownDay === i}
                aria-label={`${name.slice(0, 2)} ${name}`}
                onClick={() => setDay(String(i))}
              >
                {name.slice(0, 2)}
              </button>
            ))}
          </div>
        </div>
        {run.progress !== undefined && (
          <div className="week-progress" role="status">
            <Progress label="Days worked out" share={run.progress} />
            <span>
              {dayNames[Math.min(6, Math.floor(run.progress * 7))]}, {Math.round(run.progress * 100)} %
            </span>
            <Button size="sm" variant="outline-dark" onClick={run.stop}>
              Stop
            </Button>
          </div>
        )}
        {run.stopped && (
          <p className="alarm">
            <strong>Stopped.</strong> What is shown is from before.{' '}
            <Button size="sm" onClick={run.again}>
              Work it out
            </Button>
          </p>
        )}
        {run.error && (
          <p className="alarm">
            <strong>The week could not be worked out:</strong> {errorText(run.error)}
          </p>
        )}
        {run.result && (
          <>
            <WeekNotes installation={installation} result={run.result} actions={actions} scenario={scenario} />
            <WeekChart installation={installation} result={run.result} day={shownDay} />
            <Energy installation={installation} result={run.result} />
          </>
        )}
      </section>
      <section className="sheet week-clocks" aria-label="Clocks">
        <header>
          <h2>Clocks</h2>
          <span className="week-tools">{tools}</span>
        </header>
        <WeekEditor installation={installation} onChange={onChange} />
      </section>
    </main>
  )
}
