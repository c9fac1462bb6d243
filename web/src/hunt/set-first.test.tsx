/** @jest-environment jsdom */
import { compile, exampleById, type HuntEntry } from '@nobbet/core'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import type { HuntScreen } from './hunt-screen'
import { SetFirst } from './set-first'

jest.mock('../store/stores', () => jest.requireActual('../../testing/stores'))

const circuit = compile(exampleById('two-port-heating-hot-water')!.installation)
interface Given {
  acts: string[]
  restsAfter?: number
  entries?: HuntEntry[]
}
function First({ acts, restsAfter, entries = [] }: Given) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  return (
    <SetFirst
      screen={{ circuit, entries } as unknown as HuntScreen}
      acts={acts}
      ticked={ticked}
      onTick={setTicked}
      restsAfter={restsAfter}
      meanwhile={<p>lamps</p>}
    />
  )
}
const shown = (acts: string[], restsAfter?: number) => render(<First acts={acts} restsAfter={restsAfter} />)
const boxes = () => screen.getAllByRole<HTMLInputElement>('checkbox')

describe('what is set first', () => {
  it('is ticked switch by switch, where each stands; with the last one the clock runs, and says what to do meanwhile', () => {
    shown(['programmer.heating=on', 'stat-1.set=30', 'wait=40s'])
    expect(boxes().map((box) => box.closest('label')!.querySelector('.act')!.textContent)).toEqual([
      'Programmer: heating on',
      'House thermostat: up to 30 °C',
    ])
    expect(screen.getByRole('timer').textContent).toContain('Then wait: 40 s')
    fireEvent.click(boxes()[0])
    screen.getByText('Start the clock')
    expect(screen.queryByText('lamps')).toBeNull()
    fireEvent.click(boxes()[1])
    expect(screen.queryByText('Start the clock')).toBeNull()
    screen.getByText('lamps')
    fireEvent.click(boxes()[0])
    expect(boxes().map((box) => box.checked)).toEqual([false, true])
  })

  it('is waited for in between where it has to be, each thing in its turn; the clock is for what comes last', () => {
    shown(['spur.switch=off', 'wait=20s', 'spur.switch=on', 'wait=30s'])
    const said = () => boxes().map((box) => box.closest('label')!.querySelector('.act')!.textContent)
    expect(said()).toEqual(['Fused spur: spur switch off', 'Wait 20 s', 'Fused spur: spur switch on'])
    boxes().forEach((box) => fireEvent.click(box))
    expect(screen.getAllByRole('timer')).toHaveLength(1)
    expect(screen.queryByText('Start the clock')).toBeNull()
  })

  it('is waited for only where something takes its time, and the clock can be started by hand', () => {
    shown(['settle'], 0)
    expect(screen.queryByRole('timer')).toBeNull()
    shown(['settle'], 180_000)
    expect(screen.getByRole('timer').textContent).toContain('Until everything is at rest: about 3 min')
    fireEvent.click(screen.getByText('Start the clock'))
    expect(screen.queryByText('Start the clock')).toBeNull()
  })
})
